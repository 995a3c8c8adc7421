"""Pictures and clips without a text alternative."""

from collections.abc import Iterator

from ritornel.core.checks.finding import CheckedShow, Finding, Fix
from ritornel.core.document.edits import ChangeObjects
from ritornel.core.document.objects import Picture

TITLE = "Pictures without a text alternative"


def find(look: CheckedShow) -> Iterator[Finding]:
    """One finding for each picture or clip without a text alternative. The fix copies the alternative from the shelf,
    or else the name.
    """
    for shown in look.slides:
        slide = shown.slide
        for item in slide.objects:
            if not isinstance(item, Picture) or item.alternative.strip():
                continue
            asset = look.show.asset(item.asset_id)
            words = ((asset.alternative or asset.name) if asset else "").strip() or item.name
            fix = Fix(f"Write “{words[:60]}” for it", ChangeObjects(slide.id, (item.id,), {"alternative": words}))
            title = f"“{item.name}” has no text alternative"
            why = "Whoever listens to the page misses it."
            yield shown.finding(
                "alternative",
                "alternatives",
                "polish",
                about=item.id,
                title=title,
                why=why,
                fix=fix,
            )
