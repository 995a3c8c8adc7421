"""JavaScript modules in templates: `{% module "ritornel/pages/compose.js" %}` runs one, and tells the browser at once
about all modules that it will import.

Without this a browser learns of each module only when it has read the one that imports it: half a second for sixty
small files in five levels.
"""

import posixpath
import re
from functools import lru_cache
from pathlib import Path

from django import template
from django.contrib.staticfiles import finders
from django.templatetags.static import static
from django.utils.html import format_html, format_html_join
from django.utils.safestring import SafeString

register = template.Library()

_IMPORT = re.compile(r'^(?:import|export)\b[^"]*"(\.{1,2}/[^"]+)";', re.MULTILINE)


def imports_of(name: str) -> list[str]:
    """The names of the modules that a module imports statically.

    Raises FileNotFoundError for a module that does not ship.
    """
    path = finders.find(name)
    if path is None:
        raise FileNotFoundError(f"There is no module “{name}” among the static files.")
    found = _IMPORT.findall(Path(path).read_text(encoding="utf-8"))
    return [posixpath.normpath(posixpath.join(posixpath.dirname(name), target)) for target in found]


@lru_cache
def modules_of(name: str) -> tuple[str, ...]:
    """The module and everything that it imports, directly or not, the nearest first."""
    found = {name: None}
    queue = [name]
    while queue:
        for target in imports_of(queue.pop(0)):
            if target not in found:
                found[target] = None
                queue.append(target)
    return tuple(found)


@register.simple_tag
def module(name: str) -> SafeString:
    """The links and the script, for a page's head."""
    links = format_html_join(
        "", '<link rel="modulepreload" href="{}">', ((static(entry),) for entry in modules_of(name))
    )
    return format_html('{}<script type="module" src="{}"></script>', links, static(name))
