"""Media in use whose files are missing or damaged."""

from collections.abc import Iterator

from ritornel.core.checks.finding import CheckedShow, Finding
from ritornel.core.document.uses import uses_of

TITLE = "Files that are missing or damaged"


def find(look: CheckedShow) -> Iterator[Finding]:
    """One finding for each medium in use whose file is missing or damaged, at the place of its first use."""
    places = {shown.slide.id: shown for shown in look.slides}
    uses = uses_of(look.show)
    for asset in look.show.assets:
        fault = look.faults.get(asset.id)
        if fault is None or asset.id not in uses:
            continue
        first = next((places[use] for use in uses[asset.id] if use in places), None)
        what = "Nothing is heard where it should sound." if asset.kind == "sound" else "A gap is seen in its place."
        title = f"The file of “{asset.name}” is {fault}"
        yield Finding(
            id=f"missing:{asset.id}",
            check="missing",
            severity="stops",
            title=title,
            why=f"{what} Add the same file again.",
            slide_id=first.slide.id if first else None,
            number=first.number if first else None,
            at_ms=first.start_ms if first else 0,
            asset_id=asset.id,
        )
