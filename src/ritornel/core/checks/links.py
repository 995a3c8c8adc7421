"""Links that lead nowhere: to this computer, or to names that do not exist in public."""

from collections.abc import Iterator
from urllib.parse import urlsplit

from ritornel.core.checks.finding import CheckedShow, Finding, Fix
from ritornel.core.document.decoding import to_builtins
from ritornel.core.document.edits import ChangeObjects
from ritornel.core.document.objects import Object, OpenAddress, Paragraph, TextHolder
from ritornel.core.document.show import Show, Slide

TITLE = "Links that lead nowhere"

NOWHERE = (".invalid", ".test", ".example", ".localhost", ".local", "localhost")
"""Names that are reserved for trying things out (RFC 2606, RFC 6761), or known at home only."""
PLACEHOLDERS = ("example.com", "example.org", "example.net")


def leads_nowhere(address: str) -> bool:
    """Whether nobody else can follow an address.

    >>> leads_nowhere("https://orlmere.town/clock")
    False
    >>> [leads_nowhere(one) for one in ("http://localhost:8000", "https://example.com/x", "https://tower/", "mailto:@")]
    [True, True, True, True]
    """
    parts = urlsplit(address)
    if parts.scheme == "mailto":
        name, _, host = parts.path.partition("@")
        return not name or "." not in host
    host = (parts.hostname or "").lower()
    numbered = host.replace(".", "").isdigit()
    home = host.startswith(("127.", "10.", "192.168.")) if numbered else False
    return home or "." not in host or host in PLACEHOLDERS or host.endswith(NOWHERE)


def _without_lost_slides(item: TextHolder, show: Show) -> tuple[Paragraph, ...]:
    """The paragraphs without links to slides that are not in the show."""

    def kept(link: str) -> str | None:
        return None if link.startswith("#") and show.slide(link[1:]) is None else link

    return tuple(paragraph.linked(kept) for paragraph in item.paragraphs)


def _dead_ends(slide: Slide, item: Object, show: Show) -> Iterator[tuple[str, str, str, Fix | None]]:
    """The links of an object that lead nowhere: the finding's kind, what it is about, its title, and its fix."""
    if isinstance(item.press, OpenAddress) and leads_nowhere(item.press.address):
        title = f"“{item.name}” leads to {item.press.address}, where nobody else can go"
        fix = Fix("Let a press on it do nothing", ChangeObjects(slide.id, (item.id,), {"press": None}))
        yield "link", item.id, title, fix
    if not isinstance(item, TextHolder):
        return
    freed = _without_lost_slides(item, show)
    if freed != item.paragraphs:
        title = f"Words of “{item.name}” lead to a slide that is not in the show any more"
        edit = ChangeObjects(slide.id, (item.id,), {"paragraphs": to_builtins(freed)})
        yield "slide-link", item.id, title, Fix("Let them be plain words", edit)
    addresses = dict.fromkeys(
        run.link
        for paragraph in item.paragraphs
        for run in paragraph.runs
        if run.link and not run.link.startswith("#") and leads_nowhere(run.link)
    )
    for at, address in enumerate(addresses):
        title = f"A link in “{item.name}” leads to {address}, where nobody else can go"
        yield "link", f"{item.id}:{at}", title, None


def find(look: CheckedShow) -> Iterator[Finding]:
    """One finding for each press or linked word that leads nowhere."""
    for shown in look.slides:
        slide = shown.slide
        for item in slide.objects:
            for kind, about, title, fix in _dead_ends(slide, item, look.show):
                why = "Who follows it finds an error, or nothing at all."
                yield shown.finding(kind, "links", "hurts", about=about, title=title, why=why, fix=fix)
