"""Sounds and pictures whose licence asks for a credit that the show does not give."""

from collections.abc import Iterator

from ritornel.core.checks.finding import CheckedShow, Finding, Fix
from ritornel.core.document.credits import credit_lines
from ritornel.core.document.edits import GatherCredits
from ritornel.core.document.objects import TextHolder
from ritornel.core.document.uses import uses_of

TITLE = "A credit is missing"


def find(look: CheckedShow) -> Iterator[Finding]:
    """One finding for all assets that are used, have a credit, and whose credit stands on no shown slide."""
    said = "\n".join(
        paragraph.text
        for shown in look.slides
        for item in shown.slide.objects
        if isinstance(item, TextHolder)
        for paragraph in item.paragraphs
    )
    uses = uses_of(look.show)
    missing = [
        asset
        for asset in look.show.assets
        if asset.id in uses and asset.credit.strip() and asset.credit.strip() not in said
    ]
    if not missing or not credit_lines(look.show):
        return
    names = ", ".join(f"“{asset.name}”" for asset in missing[:3]) + (" and others" if len(missing) > 3 else "")
    title = f"{len(missing)} {'asks' if len(missing) == 1 else 'ask'} for a credit, 0 shown: {names}"
    last = look.slides[-1]
    fix = Fix("Gather all credits on a closing slide", GatherCredits("credits-slide"))
    why = "Who likes it cannot find who made it, and its licence asks for that."
    yield Finding(
        id="credits",
        check="credits",
        severity="polish",
        title=title,
        why=why,
        slide_id=last.slide.id,
        number=last.number,
        at_ms=last.start_ms,
        fix=fix,
    )
