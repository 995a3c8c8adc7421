"""Scripts as they are sent to browsers: without comments and indentation, which only developers read.

So a comment or a type costs no bytes: half of some modules is JSDoc. In Django's debug mode scripts are sent as
written.
"""

import re
from collections.abc import Iterator
from functools import lru_cache

import tree_sitter_javascript
from django.conf import settings
from tree_sitter import Language, Node, Parser

_JAVASCRIPT = Language(tree_sitter_javascript.language())


_BETWEEN_LINES = re.compile(rb"[ \t]*\n\s*")


def _nodes(node: Node, *kinds: str) -> Iterator[Node]:
    """The outermost nodes of some kinds, in source order."""
    for child in node.children:
        if child.type in kinds:
            yield child
        else:
            yield from _nodes(child, *kinds)


@lru_cache(maxsize=512)
def _shorten(source: bytes) -> bytes:
    root = Parser(_JAVASCRIPT).parse(source).root_node
    if root.has_error:
        return source
    parts: list[bytes] = []
    plain, end = b"", 0
    # Within a string or a template every blank counts, so they are copied. Lines stay lines, since they end statements.
    for node in _nodes(root, "comment", "string", "template_string"):
        plain += source[end : node.start_byte]
        text = source[node.start_byte : (end := node.end_byte)]
        if node.type == "comment" and not text.startswith(b"/*!"):
            plain += b"\n" if b"\n" in text else b" "
        else:
            parts += [_BETWEEN_LINES.sub(b"\n", plain), text]
            plain = b""
    return b"".join([*parts, _BETWEEN_LINES.sub(b"\n", plain + source[end:])]).lstrip()


def shipped_script(source: bytes) -> bytes:
    """The script with the same tokens in the same order, in fewer bytes. A comment that begins with `/*!` stays, as
    licences require; a script that cannot be parsed stays as it is.
    """
    return source if settings.DEBUG else _shorten(source)
