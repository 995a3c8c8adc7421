import msgspec
from django.test import SimpleTestCase
from hypothesis import given
from hypothesis import strategies as st

from ritornel.core.document.objects import Paragraph, TextHolder, TextRun
from ritornel.core.errors import BadMedia
from ritornel.core.formats.outline import MOST_SLIDES, read_outline, write_outline
from ritornel.core.schedule.performance import perform
from ritornel.demo.orlmere import orlmere

OUTLINE = """# The Orlmere clock
It keeps **time**.

# How it works

## The escapement
Lets *one* tooth pass, see [the rota](https://orlmere.example/rota).

- Pallets
   - An axle
- A wheel

> Left alone it would spin.
> Then a wait.

## Who winds it?

1. Odo
2. Ines

```
code
```
![a picture](x.png)
"""


def told(show, slide: int, place: str):  # type: ignore[no-untyped-def]
    return next(item for item in show.slides[slide].objects if item.place == place).paragraphs


class OutlineTest(SimpleTestCase):
    def read(self, text: str):  # type: ignore[no-untyped-def]
        return read_outline(text.encode(), "talk.md", "talk")

    def test_headings_become_slides_and_what_stands_under_them_their_words(self) -> None:
        show, lost = self.read(OUTLINE)
        self.assertEqual(
            (show.title, [slide.name for slide in show.slides]),
            ("The Orlmere clock", ["Opening", "The escapement", "Who winds it?"]),
        )
        self.assertEqual([run.weight for run in told(show, 0, "subtitle")[0].runs], [None, 700, None])
        self.assertEqual([slide.opens_section for slide in show.slides], ["", "How it works", ""])
        words = told(show, 1, "words")
        self.assertEqual(
            [(line.text, line.list, line.level) for line in words[1:]],
            [("Pallets", "bullets", 0), ("An axle", "bullets", 1), ("A wheel", "bullets", 0)],
        )
        self.assertEqual(
            [(run.text, run.italic, run.link) for run in words[0].runs if run.italic or run.link],
            [("one", True, None), ("the rota", None, "https://orlmere.example/rota")],
        )
        self.assertEqual(show.slides[1].notes, "Left alone it would spin. Then a wait.")
        self.assertEqual([line.list for line in told(show, 2, "words")][:2], ["numbers", "numbers"])
        self.assertEqual(lost, ("Left out of “talk.md”: code, pictures.",))
        perform(show)

    def test_what_was_written_is_read_again_the_same(self) -> None:
        show, _ = self.read(OUTLINE)
        again, lost = self.read(write_outline(show))
        self.assertEqual(lost, ())
        self.assertEqual(again, show)

    def test_the_demo_keeps_its_words_sections_and_notes(self) -> None:
        again, _ = self.read(write_outline(orlmere()))

        def words(show):
            return sorted(
                p.text.strip()
                for s in show.slides
                for o in s.objects
                if isinstance(o, TextHolder)
                for p in o.paragraphs
                if p.text.strip()
            )

        missing = set(words(orlmere())) - set(words(again))
        self.assertEqual(missing, set())
        self.assertEqual(
            [slide.opens_section for slide in again.slides if slide.opens_section],
            ["The town", "How it keeps time", "The restoration", "Every hour"],
        )

    @given(
        st.lists(
            st.text("ab1.-*_#>[]()`\\ ", min_size=1, max_size=12).filter(lambda text: text.strip()),
            min_size=1,
            max_size=4,
        )
    )
    def test_signs_of_markdown_in_words_stay_words(self, lines: list[str]) -> None:
        show, _ = self.read("# Title\n\n## One\n\nx")
        text = next(item for item in show.slides[1].objects if item.place == "words")
        paragraphs = tuple(Paragraph(f"p{number}", (TextRun(line),)) for number, line in enumerate(lines))
        changed = msgspec.structs.replace(
            show.slides[1], objects=(show.slides[1].objects[0], msgspec.structs.replace(text, paragraphs=paragraphs))
        )
        again, _ = self.read(write_outline(msgspec.structs.replace(show, slides=(show.slides[0], changed))))
        self.assertEqual(
            [" ".join(line.text.split()) for line in told(again, 1, "words")],
            [" ".join(line.split()) for line in lines],
        )

    def test_bad_outlines_are_refused_by_name(self) -> None:
        for data, words in (
            (b"just words", "“talk.md” has no heading"),
            (b"\xff\xfe\x00", "is not text in UTF-8"),
            (b"## x\n" * (MOST_SLIDES + 1), "would make 1001 slides"),
            (b"x" * 2_000_001, "2.0 MB"),
        ):
            with self.assertRaisesMessage(BadMedia, words):
                read_outline(data, "talk.md", "talk")
