"""Starters that run by themselves, or are pressed by whoever comes by."""

from ritornel.core.document.objects import Box, GoToSlide, Gradient, Shadow, Stroke
from ritornel.core.document.show import Frame, MusicSpan, Show, Slide
from ritornel.core.document.themes import BELLFOUNDER, LIMEWASH, MARKET_DAY, NIGHT_WATCH
from ritornel.starters.writing import BUTTON, Page

MUSIC = MusicSpan(id="music", asset_id="waltz", crossfade_ms=500, fade_in_ms=800, fade_out_ms=2500, gain_db=-6)


def exhibit() -> Show:
    """Five slides without an end: a sentence each, read from across a room."""
    theme = NIGHT_WATCH
    slides: list[Slide] = []
    opening = Page("open", "title", theme, "Title")
    title = opening.fill("title", "The clock in this tower")
    under = opening.fill("subtitle", "goes again since last winter")
    ring = opening.shape("ring", "ring", (540, 60, 200, 200), "@accent", hollow=0.9)
    opening.comes(ring, "enters fade", lasts=1200)
    opening.comes(title, "enters rise", "together", 400, 900)
    opening.comes(under, "enters fade", "together", 900, 900)
    slides.append(opening.slide(8000, ("dissolve", 1500)))
    facts = (
        ("stood", "It stood for thirty years.", "The hands were left at ten past four.", "night"),
        (
            "apart",
            "Eleven people took it apart.",
            "On the floor of the chapel, on two hundred sheets of newspaper.",
            "works",
        ),
        ("rings", "Now it rings the hours.", "Seventy-eight turns of the crank, every second evening.", "bell"),
    )
    for key, first, second, asset in facts:
        page = Page(key, "picture", theme, first)
        page.picture("picture", asset, first)
        page.shape("band", "rectangle", (0, 440, 1280, 280), fill=Gradient("#0d151900", "#0d1519e6", 90))
        head = page.words("line", (84, 520, 1112, 74), first, size=58, family="@heading", colour="#f4efe2")
        more = page.fill("caption", second, colour="#f4efe2")
        page.comes(head, "enters rise", after=300, lasts=900)
        page.comes(more, "enters fade", "together", 900, 900)
        slides.append(page.slide(10000, ("dissolve", 1500)))
    last = Page("come", "title", theme, "Come up")
    last.fill("title", "Come up and see it")
    last.fill("subtitle", "Second evenings, half past six, 112 steps")
    slides.append(last.slide(9000, ("dissolve", 1500)))
    return Show("exhibit", "The clock in this tower", end="loop", theme=theme, slides=tuple(slides), music=(MUSIC,))


def choices() -> Show:
    """A start page with four topics; each leads back by a press, or by itself after a while."""
    theme = LIMEWASH
    topics = (
        ("wheel", "The wheels", "Four of them carry the weight down, a tooth at a time.", "works"),
        ("bell", "The bell", "Cast in Orlmere, cracked in a frost, welded in one long night.", "bell"),
        ("dial", "The dial", "Three coats of cream, and hands the colour of plums.", "dial"),
        ("night", "The nights", "Somebody climbs 112 steps every second evening.", "night"),
    )
    start = Page("start", "heading", theme, "Start page")
    start.fill("heading", "What would you like to see?")
    for number, (key, name, _, asset) in enumerate(topics):
        x, y = 84 + (number % 2) * 568, 190 + (number // 2) * 256
        shown = start.picture(f"picture-{key}", asset, name, Box(x, y, 544, 232), corner_px=18, shadow=Shadow())
        label = start.shape(
            f"label-{key}",
            "rectangle",
            (x + 18, y + 160, 240, 56),
            "@raised",
            lines=(name,),
            size_px=28,
            weight=600,
            align="centre",
            stand="middle",
            corner_px=12,
        )
        start.comes(shown, "enters fade", "follows" if number == 0 else "together", number * 150, 600)
        start.comes(label, "enters fade", "together", number * 150 + 200, 400)
        for object_id in (shown, label):
            start.pressed(object_id, GoToSlide(key))
    slides = [start.slide(None)]
    for key, name, words, asset in topics:
        page = Page(key, "text and picture", theme, name)
        page.fill("heading", name)
        text = page.fill("words", words, size_px=36)
        page.picture("picture", asset, name, corner_px=14)
        page.comes(text, "enters rise", lasts=700)
        back = page.shape(
            "back", "rectangle", (84, 560, 260, 72), "@accent", lines=("All topics",), size_px=28, **BUTTON
        )
        page.pressed(back, GoToSlide("start"))
        slides.append(page.slide(20000, ("push", 500)))
    return Show("choices", "What would you like to see?", end="loop", runs="on cue", theme=theme, slides=tuple(slides))


def photographs() -> Show:
    """Pictures full size with captions, six seconds each, over music."""
    theme = BELLFOUNDER
    opening = Page("open", "title", theme, "Title")
    title = opening.fill("title", "One year with the clock")
    opening.fill("subtitle", "An album")
    opening.comes(title, "enters fade", lasts=1000)
    slides: list[Slide] = [opening.slide(5000, ("dissolve", 1200))]
    album = (
        ("noon", "Noon, the first of May"),
        ("works", "The going train, laid out"),
        ("bell", "The bell, the night it was welded"),
        ("dial", "Cream, third coat"),
        ("night", "A quarter to ten, and going"),
    )
    for asset, caption in album:
        page = Page(f"p-{asset}", "picture", theme, caption)
        page.picture("picture", asset, caption)
        card = page.shape("card", "rectangle", (60, 608, 560, 66), "#1a1316cc", corner_px=10)
        words = page.fill("caption", caption, box=Box(84, 612, 520, 58), colour="#f7ece0")
        page.comes(card, "enters fade", after=700, lasts=700)
        page.comes(words, "enters fade", "together", 700, 700)
        slides.append(page.slide(6500, ("dissolve", 1400)))
    last = Page("end", "credits", theme, "Credits")
    last.fill("heading", "Until next year")
    last.fill("words", "Pictures and music: the Ritornel makers")
    slides.append(last.slide(6000, ("dissolve", 1400)))
    return Show(
        "photographs", "One year with the clock", end="black", theme=theme, slides=tuple(slides), music=(MUSIC,)
    )


def window() -> Show:
    """An upright screen: what is on this week, seen while walking by."""
    theme, frame = MARKET_DAY, Frame(720, 1280)
    opening = Page("open", "title", theme, "Title", frame)
    title = opening.fill("title", "This week at the tower")
    opening.fill("subtitle", "Open to all, free of charge")
    wheel = opening.shape("wheel", "wheel", (360, 760, 520, 520), "#20181214", points=24, hollow=0.72)
    opening.comes(title, "enters rise", lasts=800)
    opening.comes(wheel, "enters fade", "together", lasts=1200)
    slides: list[Slide] = [opening.slide(6000, ("push", 700))]
    days = (
        ("Tuesday", "Winding", "Half past six at the small door. Bring gloves.", "works"),
        ("Thursday", "The bell, up close", "Twelve at a time, from ten years on.", "bell"),
        ("Saturday", "Market noon", "Twelve strokes, heard from the square with cake.", "noon"),
    )
    for key, what, words, asset in days:
        page = Page(key.lower(), "text and picture", theme, f"{key}: {what}", frame)
        page.fill("heading", key, colour="@accent")
        head = page.fill("words", what, words, size_px=38)
        shown = page.picture("picture", asset, what, corner_px=20, stroke=Stroke("@words", 4))
        page.comes(shown, "enters settle", lasts=800)
        page.comes(head, "enters rise", "together", 300, 700)
        slides.append(page.slide(7000, ("push", 700)))
    return Show("window", "This week at the tower", frame=frame, end="loop", theme=theme, slides=tuple(slides))
