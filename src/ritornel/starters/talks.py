"""Starters for those who speak to people who have to follow or decide."""

from ritornel.core.document.show import Show, Slide
from ritornel.core.document.theme import Furniture
from ritornel.core.document.themes import SLATE_ROOF, VERDIGRIS
from ritornel.starters.writing import BUTTON, Page


def sections() -> Show:
    """Three sections, each with an opening slide and one of content, for three speakers."""
    theme = SLATE_ROOF
    opening = Page("open", "title", theme, "Title")
    title = opening.fill("title", "How we mended the tower clock")
    opening.fill("subtitle", "Told by three of those who did it")
    opening.comes(title, "enters rise", lasts=700)
    slides: list[Slide] = [opening.slide(9000, notes="Welcome. Say who speaks and how long it takes.")]
    parts = (
        (
            "find",
            "What we found",
            "Ines Varr",
            ("Rust on three of four arbors", "A rope of 1961", "Nine broken teeth", "A nest, with eggs"),
            "works",
        ),
        (
            "mend",
            "What we did",
            "Pauwel Drees",
            ("Bearings turned anew", "Teeth cut by hand, one a weekend", "The bell welded in one night"),
            "bell",
        ),
        (
            "keep",
            "How it is kept",
            "Tamsin Roake",
            ("Eleven winders in turn", "Oil twice a year", "A book that says who, when, and what was odd"),
            "dial",
        ),
    )
    for number, (key, name, speaker, lines, asset) in enumerate(parts, 1):
        door = Page(key, "title", theme, f"{number} {name}")
        figure = door.words(
            "figure",
            (900, 120, 300, 330),
            str(number),
            size=300,
            weight=700,
            colour="@line",
            align="right",
            family="@heading",
        )
        head = door.fill("title", name)
        by = door.fill("subtitle", speaker)
        door.comes(figure, "enters fade", lasts=900)
        door.comes(head, "enters rise", "together", 200, 700)
        door.comes(by, "enters fade", "together", 600)
        slides.append(door.slide(6000, ("push", 600)))
        page = Page(f"{key}-2", "text and picture", theme, name)
        page.fill("heading", name)
        text = page.fill("words", *lines, kind="bullets")
        page.picture("picture", asset, f"What {speaker} speaks of", corner_px=8)
        page.parts(text, "enters fade", hold=4000)
        slides.append(page.slide(6000, notes=f"{speaker}: one breath before each line."))
    last = Page("end", "credits", theme, "Thanks")
    last.fill("heading", "Thank you")
    last.fill("words", "Spoken by Ines Varr, Pauwel Drees and Tamsin Roake", "Pictures: the Ritornel makers")
    slides.append(last.slide(8000))
    return Show(
        "talk",
        "How we mended the tower clock",
        theme=theme,
        furniture=Furniture("Orlmere tower clock", True),
        slides=tuple(slides),
    )


def proposal() -> Show:
    """The matter, the plan, the cost, the decision."""
    theme = VERDIGRIS
    opening = Page("open", "title", theme, "Title")
    title = opening.fill("title", "A second dial for the market side")
    under = opening.fill("subtitle", "Put before the parish on the third evening of May")
    opening.comes(title, "enters rise", lasts=700)
    opening.comes(under, "enters fade", "together", 300)

    matter = Page("matter", "text and picture", theme, "The matter")
    matter.fill("heading", "Half the town cannot see the time")
    lines = matter.fill(
        "words",
        "The dial looks south, to the river.",
        "Since the mill closed, the town has grown to the north.",
        "The market opens by guesswork.",
    )
    matter.picture("picture", "noon", "The tower from the south, its only dial lit by the sun", corner_px=10)
    matter.parts(lines, hold=3500)

    plan = Page("plan", "heading", theme, "The plan")
    plan.fill("heading", "Three steps, one summer")
    steps = (
        ("June", "Scaffold and opening", "@second"),
        ("July", "Dial, painted below", "@accent"),
        ("August", "Hands and first noon", "@second"),
    )
    for number, (month, what, colour) in enumerate(steps):
        x = 84 + number * 384
        card = plan.shape(f"step-{number}", "rectangle", (x, 280, 344, 220), "@raised", "@line", 2, corner_px=16)
        head = plan.words(
            f"month-{number}", (x + 28, 306, 290, 56), month, size=42, weight=700, colour=colour, family="@heading"
        )
        text = plan.words(f"what-{number}", (x + 28, 380, 290, 100), what, size=30)
        plan.comes(card, "enters rise", "follows" if number == 0 else "cue", lasts=500, hold=2500)
        plan.comes(head, "enters fade", "together", 150)
        plan.comes(text, "enters fade", "together", 250)
        if number < 2:
            arrow = plan.shape(f"arrow-{number}", "arrow", (x + 348, 372, 32, 36), "@soft", hollow=0.4)
            plan.comes(arrow, "enters fade", "together", 400)

    cost = Page("cost", "two columns", theme, "What it takes")
    cost.fill("heading", "What it takes")
    cost.fill("words", "Timber and hire", "Enamel and copper", "The motion work", "Our own hands")
    cost.fill("words 2", "1 400", "2 150", "3 300", "nothing")
    total = cost.shape(
        "total",
        "rectangle",
        (84, 560, 1112, 76),
        "@accent",
        lines=("6 850 in all, of which 4 000 are promised",),
        size_px=32,
        **BUTTON,
    )
    cost.comes(total, "enters settle", "cue", hold=4000)

    decide = Page("decide", "title", theme, "The decision")
    asked = decide.fill("title", "May we begin in June?")
    decide.fill("subtitle", "A show of hands, please")
    decide.comes(asked, "enters settle", lasts=700)
    notes = ("", "Ask who was late for the market last week.", "", "Say who promised what.", "Wait for the hands.")
    pages = (opening, matter, plan, cost, decide)
    return Show(
        "proposal",
        "A second dial for the market side",
        runs="on cue",
        theme=theme,
        slides=tuple(page.slide(None, notes=note) for page, note in zip(pages, notes, strict=True)),
    )
