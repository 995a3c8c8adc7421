"""Starters for those who explain and ask."""

from ritornel.core.document.objects import GoToSlide
from ritornel.core.document.show import Show, Slide
from ritornel.core.document.themes import DRAWING_BOARD, LIMEWASH
from ritornel.starters.writing import BUTTON, Page


def lesson() -> Show:
    """How a pendulum keeps time, in five steps on cue."""
    theme = LIMEWASH

    one = Page("open", "title", theme, "Title")
    title = one.fill("title", "How a pendulum keeps time")
    under = one.fill("subtitle", "A lesson of ten minutes, with questions")
    one.shape("cord", "rectangle", (1156.5, 0, 3, 440), "@line")
    bob = one.shape("bob", "ellipse", (1098, 430, 120, 120), "@accent")
    one.comes(title, "enters rise", after=200, lasts=800)
    one.comes(under, "enters fade", "together", 400)
    one.comes(bob, "accents pulse", "together", lasts=1400, repeats=0, settings={"swell": 0.06}, pace="ease in and out")

    two = Page("ask", "heading", theme, "A question first")
    two.fill("heading", "A question first")
    asked = ("Which swings faster:", "the heavy one or the light one?")
    label = {"size_px": 40, "align": "centre", "stand": "middle", "corner_px": 28, "tail_x": 0.12, "tail_y": 1.3}
    question = two.shape("question", "bubble", (84, 230, 760, 210), "@raised", "@line", 2, lines=asked, **label)
    heavy = two.shape(
        "heavy",
        "ellipse",
        (930, 270, 150, 150),
        "@second",
        lines=("12 kg",),
        size_px=30,
        colour="@ground",
        align="centre",
        stand="middle",
    )
    light = two.shape(
        "light",
        "ellipse",
        (1120, 305, 80, 80),
        "@accent",
        lines=("1 kg",),
        size_px=19,
        colour="@ground",
        align="centre",
        stand="middle",
    )
    answer = two.words(
        "answer",
        (84, 560, 1112, 60),
        "Neither. The length of the cord alone decides.",
        size=36,
        colour="@accent",
        weight=600,
    )
    two.comes(question, "enters settle", lasts=700)
    two.comes(heavy, "enters fade", "cue", hold=3000)
    two.comes(light, "enters fade", "together", 300)
    two.comes(answer, "enters rise", "cue", hold=4000)

    three = Page("law", "text and picture", theme, "What decides")
    three.fill("heading", "What decides")
    reasons = three.fill(
        "words",
        "The cord: four times as long, twice as slow",
        "The place: a little slower near the equator",
        "Not the weight",
        "Hardly the width of the swing",
        kind="bullets",
    )
    three.shape("plate", "rectangle", (666, 194, 530, 432), "@raised", "@line", 2, corner_px=14)
    for number, (length, colour) in enumerate(((120, "@accent"), (240, "@second"), (330, "@words"))):
        x = 770 + number * 160
        three.shape(f"cord-{number}", "rectangle", (x - 1.5, 230, 3, length), "@line")
        three.shape(f"bob-{number}", "ellipse", (x - 24, 230 + length - 6, 48, 48), colour)
    three.parts(reasons, hold=3000)

    four = Page("try", "two columns", theme, "Now you")
    four.fill("heading", "Now you")
    left = four.fill("words", "Take a cord of one metre and any weight.", "Count the swings of one minute.")
    right = four.fill("words 2", "Then shorten the cord to a quarter.", "Count again, and say what you expect first.")
    four.comes(left, "enters fade")
    four.comes(right, "enters fade", "cue", hold=8000)

    five = Page("end", "credits", theme, "To take along")
    five.fill("heading", "To take along")
    five.fill(
        "words",
        "Length keeps time, weight does not.",
        "One metre swings in two seconds, there and back.",
        "Next time: who pushes the pendulum?",
    )
    notes = (
        "Let it swing on the table before the first word.",
        "Count to ten before you show the answer.",
        "Write the four lines on the board as they come.",
        "Two minutes.",
        "",
    )
    pages = (one, two, three, four, five)
    return Show(
        "lesson",
        "How a pendulum keeps time",
        runs="on cue",
        theme=theme,
        slides=tuple(page.slide(None, notes=note) for page, note in zip(pages, notes, strict=True)),
    )


def quiz() -> Show:
    """Three questions; each answer is a slide of its own that leads back."""
    theme = DRAWING_BOARD
    questions = (
        (
            "teeth",
            "How many teeth has the great wheel?",
            ("36", "48", "60"),
            1,
            "Forty-eight: one for every half minute of its turn.",
        ),
        ("turns", "How many turns wind the clock?", ("12", "78", "200"), 1, "Seventy-eight, every second evening."),
        (
            "bell",
            "Which note does the hour bell sound?",
            ("An F, nearly", "A clear C", "Two at once"),
            0,
            "An F, nearly. The frost took the rest.",
        ),
    )
    opening = Page("open", "title", theme, "Title")
    title = opening.fill("title", "Do you know your clock?")
    opening.fill("subtitle", "Three questions. Press an answer.")
    opening.comes(title, "enters rise", lasts=700)
    begin = opening.shape("begin", "rectangle", (84, 540, 250, 84), "@accent", lines=("Begin",), size_px=32, **BUTTON)
    opening.pressed(begin, GoToSlide("teeth"))
    slides: list[Slide] = [opening.slide(None)]
    for number, (key, words, answers, right, why) in enumerate(questions):
        following = questions[number + 1][0] if number + 1 < len(questions) else "end"
        page = Page(key, "heading", theme, words)
        page.fill("heading", words)
        for at, answer in enumerate(answers):
            card = page.shape(
                f"answer-{at}",
                "rectangle",
                (84 + at * 380, 260, 350, 230),
                "@raised",
                "@line",
                2,
                lines=(answer,),
                size_px=44,
                weight=600,
                align="centre",
                stand="middle",
                corner_px=18,
            )
            page.comes(card, "enters settle", "follows" if at == 0 else "together", at * 160, 500)
            page.pressed(card, GoToSlide(f"{key}-yes" if at == right else f"{key}-no"))
        page.words("count", (84, 570, 600, 50), f"Question {number + 1} of {len(questions)}", size=24, colour="@soft")
        slides.append(page.slide(None, ("push", 500)))
        for good in (True, False):
            reply = Page(
                f"{key}-{'yes' if good else 'no'}", "heading and text", theme, "Right" if good else "Not quite"
            )
            reply.fill("heading", "Right" if good else "Not quite", colour="@accent" if good else "@second")
            reply.fill("words", why if good else "Have another look at the wheel and try again.", size_px=40)
            on = reply.shape(
                "on",
                "rectangle",
                (84, 530, 300, 84),
                "@accent",
                lines=("Go on" if good else "Back to it",),
                size_px=30,
                **BUTTON,
            )
            reply.pressed(on, GoToSlide(following if good else key))
            slides.append(reply.slide(None, ("cut", 0)))
    last = Page("end", "title", theme, "End")
    last.fill("title", "That was it")
    last.fill("subtitle", "The clock thanks you, and goes on.")
    slides.append(last.slide(None))
    return Show("quiz", "Do you know your clock?", runs="on cue", theme=theme, slides=tuple(slides))
