"""Starters that put a whole matter on a page or in figures."""

from ritornel.core.document.show import Show
from ritornel.core.document.themes import ALMANAC, SLATE_ROOF
from ritornel.starters.writing import Page


def summary() -> Show:
    """One page: what it is, why it matters, what comes next, building itself."""
    theme = ALMANAC
    page = Page("page", "blank", theme, "Summary")
    head = page.words(
        "heading", (84, 50, 1112, 70), "The tower clock in one page", size=46, family="@heading", italic=True
    )
    page.shape("rule", "rectangle", (84, 128, 1112, 2), "@words")
    columns = (
        ("what", "What it is", ("A turret clock of 1712,", "four wheels, one bell,", "wound by hand.")),
        ("why", "Why it matters", ("The market opens by it.", "Children learn to read it.", "It was ours to lose.")),
        (
            "next",
            "What comes next",
            ("A dial for the north side", "A twelfth winder", "A roof that keeps the rain out"),
        ),
    )
    page.comes(head, "enters fade", lasts=800)
    for number, (key, name, lines) in enumerate(columns):
        x = 84 + number * 384
        title = page.words(
            f"{key}-head", (x, 164, 344, 44), name, size=30, family="@heading", weight=600, colour="@accent"
        )
        text = page.words(f"{key}-text", (x, 214, 344, 150), *lines, size=25, line_spacing=1.4)
        page.comes(title, "enters fade", "cue", lasts=500, hold=1500)
        page.comes(text, "enters rise", "together", 150, 600)
    figures = (("30", "years it stood"), ("78", "turns to wind it"), ("11", "winders"), ("112", "steps up"))
    for number, (figure, unit) in enumerate(figures):
        x = 84 + number * 286
        card = page.shape(f"card-{number}", "rectangle", (x, 410, 254, 200), "@raised", "@line", 1.5, corner_px=6)
        big = page.words(
            f"figure-{number}", (x, 428, 254, 104), figure, size=84, family="@heading", align="centre", colour="@second"
        )
        small = page.words(f"unit-{number}", (x, 544, 254, 40), unit, size=23, align="centre", colour="@soft")
        page.comes(card, "enters fade", "cue" if number == 0 else "together", number * 250, 400, hold=1500)
        page.comes(big, "enters settle", "together", number * 250 + 150, 600)
        page.comes(small, "enters fade", "together", number * 250 + 300, 400)
    page.words(
        "foot",
        (84, 648, 1112, 34),
        "The volunteers of the tower clock, Orlmere",
        size=20,
        colour="@soft",
        align="centre",
    )
    return Show(
        "summary",
        "The tower clock in one page",
        theme=theme,
        slides=(page.slide(16000, notes="Read it aloud once; it takes a minute."),),
    )


def year() -> Show:
    """A title, a chart whose bars come one after another, a line of dates, a last word."""
    theme = SLATE_ROOF
    opening = Page("open", "title", theme, "Title")
    title = opening.fill("title", "Our year in numbers")
    opening.fill("subtitle", "The winders' book, counted")
    opening.comes(title, "enters rise", lasts=700)

    chart = Page("chart", "heading", theme, "Visitors")
    chart.fill("heading", "More came up every month")
    values = (("Jan", 40), ("Mar", 65), ("May", 120), ("Jul", 210), ("Sep", 180), ("Nov", 260))
    base, height = 590, 330
    chart.shape("floor", "rectangle", (84, base, 1112, 3), "@words")
    for number, (month, value) in enumerate(values):
        x, high = 118 + number * 184, height * value / 260
        bar = chart.shape(
            f"bar-{number}", "rectangle", (x, base - high, 110, high), "@accent" if value == 260 else "@second"
        )
        label = chart.words(
            f"month-{number}", (x - 20, base + 12, 150, 34), month, size=24, align="centre", colour="@soft"
        )
        count = chart.words(
            f"count-{number}", (x - 20, base - high - 46, 150, 40), str(value), size=30, weight=700, align="centre"
        )
        chart.comes(bar, "enters rise", "follows" if number == 0 else "together", number * 220, 600)
        chart.comes(label, "enters fade", "together", number * 220, 300)
        chart.comes(count, "enters fade", "together", number * 220 + 400, 300)

    dates = Page("dates", "heading", theme, "Dates")
    dates.fill("heading", "Four days to remember")
    dates.shape("line", "line", (110, 380, 1060, 6), None, "@line", 6)
    for number, (day, what) in enumerate(
        (
            ("9 Jan", "First tick"),
            ("2 Apr", "The bell is back"),
            ("21 Jun", "Five hundredth visitor"),
            ("30 Nov", "A whole year"),
        )
    ):
        x = 150 + number * 300
        dot = dates.shape(f"dot-{number}", "ellipse", (x - 20, 363, 40, 40), "@accent")
        when = dates.words(f"day-{number}", (x - 120, 290, 240, 50), day, size=34, weight=700, align="centre")
        event = dates.words(f"what-{number}", (x - 130, 425, 260, 90), what, size=27, align="centre", colour="@soft")
        dates.comes(dot, "enters settle", "follows" if number == 0 else "cue", lasts=400, hold=1800)
        dates.comes(when, "enters fade", "together", 100, 400)
        dates.comes(event, "enters rise", "together", 200, 500)

    last = Page("end", "title", theme, "Last word")
    figure = last.words("figure", (84, 60, 900, 170), "875", size=150, weight=700, colour="@accent", family="@heading")
    last.fill("title", "people climbed the tower")
    last.fill("subtitle", "112 steps each, which makes 98 000")
    last.comes(figure, "enters settle", lasts=800)
    return Show(
        "year",
        "Our year in numbers",
        theme=theme,
        slides=(
            opening.slide(5000),
            chart.slide(9000, ("push", 600)),
            dates.slide(9000, ("push", 600)),
            last.slide(7000),
        ),
    )
