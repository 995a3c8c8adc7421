import tempfile
from pathlib import Path
from unittest import TestCase

from ritornel.core.document.objects import Box, Gradient, Picture, Plain, Shape, Table, Text
from ritornel.core.document.show import AdvanceAfter, AdvanceOnCue, Follows, Frame, OnCue, Show, Slide, Together
from ritornel.core.formats.media import Limits
from ritornel.core.formats.opendocument.names import Loss
from ritornel.core.formats.opendocument.reading import read_opendocument
from tests.core.formats.opendocument import page, png, presentation

PX = 1280 / (25.4 / 2.54 * 96)
"""How many px of the frame one of the page's is: the page made by hand is 960 px wide."""


def clicked(effect: str, begin: str = "next") -> str:
    return f'<anim:par smil:begin="{begin}"><anim:par smil:begin="0s">{effect}</anim:par></anim:par>'


def timing(inside: str, more: str = "") -> str:
    return (
        f'<anim:par presentation:node-type="timing-root">{more}<anim:seq '
        f'presentation:node-type="main-sequence">{inside}</anim:seq></anim:par>'
    )


def shown(target: str, rest: str = "", begin: str = "0s") -> str:
    appears = (
        f'<anim:set smil:begin="0s" smil:dur="0.001s" smil:targetElement="{target}" '
        'smil:attributeName="visibility" smil:to="visible"/>'
    )
    return f'<anim:par smil:begin="{begin}" presentation:preset-class="entrance">{appears}{rest}</anim:par>'


BOX = '<draw:rect xml:id="box" draw:name="Box" svg:x="1in" svg:y="1in" svg:width="2in" svg:height="1in"/>'


class ReadingCase(TestCase):
    def setUp(self) -> None:
        folder = tempfile.TemporaryDirectory(prefix="ritornel-odp-")
        self.addCleanup(folder.cleanup)
        self.folder = Path(folder.name)
        (self.folder / "media").mkdir()

    def read(self, data: bytes, name: str = "made.odp") -> tuple[Show, tuple[Loss, ...]]:
        (self.folder / "came").write_bytes(data)
        return read_opendocument(self.folder / "came", name, self.folder / "media", "made", Limits())

    def one(self, inside: str, **more: object) -> tuple[Slide, list[str]]:
        show, losses = self.read(presentation(page(inside, style="dp"), **more))  # type: ignore[arg-type]
        return show.slides[0], [loss.words for loss in losses]


class PageTest(ReadingCase):
    def test_the_frame_has_the_pages_proportion_and_lengths_are_scaled_to_it(self) -> None:
        show, _ = self.read(presentation(page(BOX)))
        self.assertEqual(show.frame, Frame(1280, 960))
        self.assertEqual(show.slides[0].objects[1].box, Box(128, 128, 256, 128))

    def test_the_masters_forms_stand_behind_locked_and_its_ground_is_the_themes(self) -> None:
        show, _ = self.read(presentation(page(BOX) + page("", "page2")))
        band = show.slides[1].objects[0]
        self.assertEqual((band.name, band.locked), ("Band", True))
        self.assertEqual((show.theme.palette.ground, show.slides[0].background), ("#f0e8d8", None))

    def test_a_pages_own_ground_differs_from_the_theme(self) -> None:
        dressed = (
            '<style:style style:name="dp" style:family="drawing-page"><style:drawing-page-properties '
            'draw:fill="gradient" draw:fill-gradient-name="Dusk"/></style:style>'
        )
        show, _ = self.read(presentation(page(BOX) + page("", "page2") + page("", "page3", "dp"), dressed))
        self.assertEqual(show.slides[2].background, Gradient("#102030", "#405060", 90.0))

    def test_words_keep_their_paragraphs_lists_spans_and_links(self) -> None:
        automatic = (
            '<style:style style:name="T1" style:family="text"><style:text-properties '
            'fo:font-weight="bold" fo:color="#AA0000"/></style:style>'
            '<text:list-style style:name="N"><text:list-level-style-number text:level="1" '
            'style:num-format="1"/><text:list-level-style-bullet text:level="2" '
            'text:bullet-char="-"/></text:list-style>'
        )
        words = (
            '<draw:frame draw:name="Words" svg:x="0in" svg:y="2in" svg:width="4in" svg:height="2in"><draw:text-box>'
            '<text:p>How   the <text:span text:style-name="T1">clock</text:span><text:s '
            'text:c="2"/>goes<text:line-break/>again</text:p>'
            '<text:list text:style-name="N"><text:list-item><text:p>Wind '
            "it</text:p><text:list><text:list-item><text:p>with the crank</text:p></text:list-item></text:list>"
            "</text:list-item></text:list><text:p><text:a "
            'xlink:href="https://orlmere.example/">here</text:a></text:p></draw:text-box></draw:frame>'
        )
        slide, _ = self.one(words, automatic=automatic)
        text = slide.objects[1]
        assert isinstance(text, Text)
        self.assertEqual(
            [paragraph.text for paragraph in text.paragraphs],
            ["How the clock  goes", "again", "Wind it", "with the crank", "here"],
        )
        self.assertEqual(
            [(paragraph.list, paragraph.level) for paragraph in text.paragraphs[2:4]], [("numbers", 0), ("bullets", 1)]
        )
        self.assertEqual((text.paragraphs[0].runs[1].weight, text.paragraphs[0].runs[1].colour), (700, "#aa0000"))
        self.assertEqual(text.paragraphs[4].runs[0].link, "https://orlmere.example/")
        self.assertEqual((text.family, text.colour, text.size_px), ("Spectral", "#223344", 32.0))

    def test_a_font_that_does_not_ship_is_told(self) -> None:
        _, lost = self.one(
            '<draw:frame svg:width="4in" '
            'svg:height="2in"><draw:text-box><text:p>Words</text:p></draw:text-box></draw:frame>'
        )
        self.assertEqual(lost, ["the font “Georgia”"])

    def test_places_make_the_layout_and_their_names_the_slides(self) -> None:
        def placed(kind: str, words: str) -> str:
            return (
                f'<draw:frame presentation:class="{kind}" svg:width="4in" '
                f'svg:height="1in"><draw:text-box><text:p>{words}</text:p></draw:text-box></draw:frame>'
            )

        show, _ = self.read(
            presentation(
                page(placed("title", "The bell") + placed("outline", "It strikes"), "page1")
                + page(placed("title", "Orlmere") + placed("subtitle", "A clock"), "page2")
                + page(placed("title", "Two") + placed("outline", "left") + placed("outline", "right"), "Both sides")
            )
        )
        self.assertEqual([slide.layout for slide in show.slides], ["heading and text", "title", "two columns"])
        self.assertEqual([slide.name for slide in show.slides], ["The bell", "Orlmere", "Both sides"])
        self.assertEqual([item.place for item in show.slides[2].objects[1:]], ["heading", "words", "words 2"])

    def test_notes_skipping_and_advance_are_read(self) -> None:
        dressed = (
            '<style:style style:name="dp" style:family="drawing-page"><style:drawing-page-properties '
            'presentation:visibility="hidden" '
            'presentation:transition-type="automatic" presentation:duration="PT00H00M07.5S" '
            'smil:type="pushWipe" smil:subtype="fromRight"/></style:style>'
        )
        notes = (
            '<presentation:notes><draw:frame presentation:class="notes"><draw:text-box><text:p>Say '
            "this.</text:p><text:p>And this.</text:p></draw:text-box></draw:frame></presentation:notes>"
        )
        filtered = (
            '<anim:par smil:begin="page1.begin"><anim:transitionFilter smil:dur="1.5s" '
            'smil:type="pushWipe" smil:subtype="fromRight"/></anim:par>'
        )
        slide, lost = self.one(
            f'<anim:par presentation:node-type="timing-root">{filtered}</anim:par>{notes}', automatic=dressed
        )
        self.assertEqual(
            (slide.notes, slide.skipped, slide.advance), ("Say this.\nAnd this.", True, AdvanceAfter(9000))
        )
        self.assertEqual(
            (slide.transition.name, slide.transition.lasts_ms, slide.transition.settings, lost),
            ("push", 1500, {"comes_from": "right"}, []),
        )

    def test_a_page_that_waits_for_a_press_goes_on_at_a_cue(self) -> None:
        show, _ = self.read(presentation(page(BOX)))
        self.assertIsInstance(show.slides[0].advance, AdvanceOnCue)
        self.assertEqual(show.runs, "on cue")

    def test_a_transition_nobody_knows_is_told_and_dissolves(self) -> None:
        dressed = (
            '<style:style style:name="dp" style:family="drawing-page"><style:drawing-page-properties '
            'smil:type="snakeWipe" smil:subtype="topLeftVertical"/></style:style>'
        )
        slide, lost = self.one(BOX, automatic=dressed)
        self.assertEqual(
            (slide.transition.name, lost), ("dissolve", ["the transition “snakeWipe”, which becomes “Dissolve”"])
        )


class FormTest(ReadingCase):
    def shape(self, element: str, automatic: str = "") -> Shape:
        slide, _ = self.one(element, automatic=automatic)
        shape = slide.objects[-1]
        assert isinstance(shape, Shape)
        return shape

    def custom(self, geometry: str) -> Shape:
        return self.shape(f'<draw:custom-shape svg:width="2in" svg:height="1in">{geometry}</draw:custom-shape>')

    def test_what_is_turned_stands_about_its_middle(self) -> None:
        # A box of 2 by 1 inch turned by a quarter anticlockwise about its corner and moved to (3, 4): its middle is at
        # (3.5, 3).
        shape = self.shape(
            '<draw:rect svg:width="2in" svg:height="1in" draw:transform="rotate (1.5707963) translate (3in 4in)"/>'
        )
        inch = 96 * PX
        self.assertAlmostEqual(shape.box.x + shape.box.width / 2, 3.5 * inch, delta=0.2)
        self.assertAlmostEqual(shape.box.y + shape.box.height / 2, 3 * inch, delta=0.2)
        self.assertAlmostEqual(shape.box.turn_deg, -90, places=2)

    def test_paths_and_polygons_become_outlines_in_shares_of_their_box(self) -> None:
        self.assertEqual(
            self.shape(
                '<draw:path svg:viewBox="0 0 100 50" svg:d="m0 0 h100 l-50 50 z" svg:width="2in" svg:height="1in"/>'
            ).path,
            "M 0 0 L 1 0 L 0.5 1 L 0 0 Z",
        )
        self.assertEqual(
            self.shape(
                '<draw:polygon svg:viewBox="0 0 10 10" draw:points="0,0 10,0 10,10" svg:width="1in" svg:height="1in"/>'
            ).path,
            "M 0 0 L 1 0 L 1 1 Z",
        )

    def test_known_custom_shapes_stay_easy_to_change(self) -> None:
        self.assertEqual(self.custom('<draw:enhanced-geometry draw:type="star5"/>').form, "star")
        rounded = self.custom('<draw:enhanced-geometry draw:type="round-rectangle" draw:modifiers="5400"/>')
        self.assertEqual((rounded.form, round(rounded.corner_px)), ("rectangle", 32))

    def test_formulas_and_modifiers_of_custom_shapes_are_worked_out(self) -> None:
        geometry = (
            '<draw:enhanced-geometry svg:viewBox="0 0 200 100" draw:modifiers="50" '
            'draw:enhanced-path="M ?f0 0 L right ?f1 ?f0 bottom Z N">'
            '<draw:equation draw:name="f0" draw:formula="min($0 ,width/2)"/><draw:equation '
            'draw:name="f1" draw:formula="if(?f0 -10,height/2,-1)"/></draw:enhanced-geometry>'
        )
        self.assertEqual(self.custom(geometry).path, "M 0.25 0 L 1 0.5 L 0.25 1 Z")

    def test_quarters_and_arcs_are_round(self) -> None:
        shape = self.custom(
            '<draw:enhanced-geometry svg:viewBox="0 0 100 100" draw:enhanced-path="M 0 50 Y 50 0 X 100 50 L 0 50 Z"/>'
        )
        self.assertTrue(shape.path.startswith("M 0 0.5 C 0 0.2239 0.2239 0 0.5 0 C 0.7761 0 1 0.2239 1 0.5"))
        circle = self.custom(
            '<draw:enhanced-geometry svg:viewBox="0 0 100 100" draw:enhanced-path="U 50 50 50 50 0 360 Z"/>'
        )
        numbers = [float(word) for word in circle.path.split() if not word.isalpha()]
        self.assertTrue(
            all(
                abs((x - 0.5) ** 2 + (y - 0.5) ** 2 - 0.25) < 0.001
                for x, y in zip(numbers[::2], numbers[1::2], strict=True)
            )
        )

    def test_equations_that_lead_to_each_other_become_a_rectangle_and_are_told(self) -> None:
        geometry = (
            '<draw:custom-shape svg:width="2in" svg:height="1in"><draw:enhanced-geometry svg:viewBox="0 '
            '0 9 9" draw:enhanced-path="M ?f0 0 L 1 1">'
            '<draw:equation draw:name="f0" draw:formula="?f1"/><draw:equation draw:name="f1" '
            'draw:formula="?f0"/></draw:enhanced-geometry></draw:custom-shape>'
        )
        slide, lost = self.one(geometry)
        self.assertEqual((slide.objects[-1].form, lost), ("rectangle", ["a form that becomes a rectangle"]))  # type: ignore[union-attr]

    def test_fill_border_and_line_come_from_their_style_and_its_parents(self) -> None:
        automatic = (
            '<style:style style:name="base" style:family="graphic"><style:graphic-properties '
            'draw:fill="solid" draw:fill-color="#00FF00" draw:opacity="50%"/></style:style>'
            '<style:style style:name="own" style:family="graphic" '
            'style:parent-style-name="base"><style:graphic-properties draw:stroke="solid" '
            'svg:stroke-width="3pt" svg:stroke-color="#112233"/></style:style>'
        )
        shape = self.shape('<draw:ellipse draw:style-name="own" svg:width="2in" svg:height="1in"/>', automatic)
        self.assertEqual(
            (shape.form, shape.fill, shape.stroke.width_px, shape.stroke.colour),
            ("ellipse", Plain("#00ff0080"), 5.3, "#112233"),
        )  # type: ignore[union-attr]
        line = self.shape('<draw:line svg:x1="0in" svg:y1="0in" svg:x2="3in" svg:y2="4in"/>')
        self.assertEqual(
            (line.form, round(line.box.width), round(line.box.turn_deg, 2)), ("line", round(5 * 96 * PX), 53.13)
        )

    def test_pictures_come_onto_the_shelf_once_and_keep_their_cut(self) -> None:
        automatic = (
            '<style:style style:name="cut" style:family="graphic"><style:graphic-properties '
            'fo:clip="rect(0in, 0.104166in, 0in, 0.104166in)"/></style:style>'
        )
        frame = (
            '<draw:frame draw:name="Bell" draw:style-name="cut" svg:width="2in" '
            'svg:height="1in"><draw:image xlink:href="Pictures/a.png"/><svg:desc>A bell</svg:desc></draw:frame>'
        )
        show, losses = self.read(presentation(page(frame + frame), automatic, files={"Pictures/a.png": png()}))
        picture = show.slides[0].objects[1]
        assert isinstance(picture, Picture)
        self.assertEqual((len(show.assets), losses, picture.alternative), (1, (), "A bell"))
        self.assertAlmostEqual(picture.crop.x, 0.25, places=3)
        self.assertAlmostEqual(picture.crop.width, 0.5, places=3)
        self.assertTrue((self.folder / "media" / show.assets[0].sha256).is_file())

    def test_a_table_comes_with_its_columns_heading_and_lines(self) -> None:
        automatic = (
            "".join(
                f'<style:style style:name="{name}" style:family="table-column"><style:table-column-properties '
                f'style:column-width="{width}"/></style:style>'
                for name, width in (("wide", "3cm"), ("slim", "1cm"))
            )
            + '<style:style style:name="head" style:family="table-cell"><style:graphic-properties draw:fill="solid" '
            'draw:fill-color="#1f6f6b"/><style:paragraph-properties fo:border-bottom="1.5pt dashed #8a2456"/>'
            '<style:text-properties fo:font-size="18pt"/></style:style>'
            '<style:style style:name="year" style:family="paragraph"><style:paragraph-properties '
            'fo:text-align="end"/></style:style>'
        )

        def row(*texts: str, style: str = "") -> str:
            cells = "".join(
                f'<table:table-cell table:style-name="{style}"><text:p{year}>{text}</text:p></table:table-cell>'
                for text, year in zip(texts, ("", ' text:style-name="year"'), strict=True)
            )
            return f"<table:table-row>{cells}</table:table-row>"

        table = (
            '<draw:frame draw:name="Bells" svg:width="4in" svg:height="2in"><table:table>'
            '<table:table-column table:style-name="wide"/><table:table-column table:style-name="slim"/>'
            f"<table:table-header-rows>{row('Bell', 'Cast', style='head')}</table:table-header-rows>"
            f"{row('The great bell', '1712')}{row('The quarter', '1784')}</table:table></draw:frame>"
        )
        show, losses = self.read(presentation(page(table), automatic))
        found = show.slides[0].objects[-1]
        assert isinstance(found, Table)
        self.assertEqual(
            [row.text for row in found.paragraphs], ["Bell\tCast", "The great bell\t1712", "The quarter\t1784"]
        )
        self.assertEqual([(column.width, column.align) for column in found.columns], [(1.0, None), (0.33, "right")])
        self.assertEqual((found.name, found.heading, found.heading_fill, losses), ("Bells", True, "#1f6f6b", ()))
        assert found.stroke is not None
        self.assertEqual((found.stroke.colour, found.stroke.dash), ("#8a2456", "dashed"))

    def test_what_a_table_has_that_ours_have_not_is_told(self) -> None:
        wide = '<table:table-cell table:number-columns-spanned="2"><text:p>Bell</text:p></table:table-cell>'
        many = '<table:table-cell table:number-columns-repeated="900"><text:p>x</text:p></table:table-cell>'
        rows = f"<table:table-row>{wide}<table:covered-table-cell/>{many}</table:table-row>"
        table = f'<draw:frame svg:width="4in" svg:height="2in"><table:table>{rows}</table:table></draw:frame>'
        show, losses = self.read(presentation(page(table)))
        found = show.slides[0].objects[-1]
        assert isinstance(found, Table)
        self.assertEqual(len(found.columns), 20)
        self.assertEqual(found.paragraphs[0].text.split("\t")[:3], ["Bell", "", "x"])
        self.assertEqual(
            {loss.words for loss in losses},
            {"cells of a table that reach over others", "columns of a table after the first 20"},
        )

    def test_tables_charts_and_strange_pictures_are_told_by_slide(self) -> None:
        table = (
            '<draw:frame svg:width="2in" '
            'svg:height="1in"><table:table><table:table-row><table:table-cell><text:p>9.30</text:p></table:table-cell></table:table-row></table:table></draw:frame>'
        )
        drawn = '<draw:frame svg:width="2in" svg:height="1in"><draw:image xlink:href="Pictures/old.wmf"/></draw:frame>'
        show, losses = self.read(
            presentation(page(BOX) + page(table + drawn, "page2"), files={"Pictures/old.wmf": b"\xd7\xcd\xc6\x9a"})
        )
        words = [loss.words for loss in losses if loss.slide == 2]
        self.assertIsInstance(show.slides[1].objects[1], Table)
        self.assertIn("a picture, clip or sound that cannot be read (WMF)", words)
        self.assertEqual(show.slides[1].objects[1].paragraphs[0].text, "9.30")  # type: ignore[union-attr]


class TimingTest(ReadingCase):
    def order(self, inside: str, more: str = "") -> tuple[Slide, list[str]]:
        return self.one(BOX + more + timing(inside))

    def test_presses_clusters_and_delays_become_cues_follows_and_together(self) -> None:
        fade = (
            '<anim:transitionFilter smil:dur="0.5s" smil:targetElement="box" smil:type="fade" '
            'smil:subtype="crossfade"/>'
        )
        beat = (
            '<anim:par smil:begin="next"><anim:par '
            f'smil:begin="0s">{shown("box", fade)}{shown("box", fade, "0.2s")}</anim:par><anim:par '
            f'smil:begin="0.7s">{shown("box", fade)}</anim:par></anim:par>'
        )
        slide, lost = self.order(beat)
        self.assertEqual([type(build.starts) for build in slide.order], [OnCue, Together, Follows])
        self.assertEqual(
            [(build.effect, build.after_ms, build.lasts_ms) for build in slide.order],
            [("enters fade", 0, 500), ("enters fade", 200, 500), ("enters fade", 0, 500)],
        )
        self.assertEqual([loss for loss in lost if "build" in loss], [])

    def test_what_begins_by_itself_is_in_beat_0_and_what_waits_by_itself_is_held(self) -> None:
        slide, _ = self.order(clicked(shown("box"), "0s") + clicked(shown("box"), "2.5s"))
        self.assertEqual(
            [build.starts for build in slide.order], [Follows(), OnCue(slide.order[1].starts.cue_id, 2500)]
        )  # type: ignore[union-attr]

    def test_effects_are_told_by_what_they_do(self) -> None:
        def wiped(kind: str, subtype: str, more: str = "") -> str:
            return shown(
                "box",
                f'<anim:transitionFilter smil:dur="1s" smil:targetElement="box" smil:type="{kind}" '
                f'smil:subtype="{subtype}" {more}/>',
            )

        def moved(attribute: str, values: str) -> str:
            return shown(
                "box",
                f'<anim:animate smil:dur="1s" smil:targetElement="box" smil:attributeName="{attribute}" '
                f'smil:values="{values}"/>',
            )

        def accented(inside: str) -> str:
            return f'<anim:par presentation:preset-class="emphasis">{inside}</anim:par>'

        def path(words: str) -> str:
            return (
                f'<anim:par><anim:animateMotion smil:dur="2s" smil:targetElement="box" svg:path="{words}"/></anim:par>'
            )

        hidden = (
            '<anim:set smil:begin="0.5s" smil:dur="0.001s" smil:targetElement="box" '
            'smil:attributeName="visibility" smil:to="hidden"/>'
        )
        goes = (
            '<anim:par presentation:preset-class="exit"><anim:animate smil:dur="0.5s" '
            f'smil:targetElement="box" smil:attributeName="x" smil:values="x;1+width/2"/>{hidden}</anim:par>'
        )
        tint = (
            '<anim:animateColor smil:dur="1s" smil:targetElement="box" smil:attributeName="fill-color" '
            'smil:to="#ff0000"/>'
        )
        for effect, settings, written in (
            ("enters unveil", {"begins_at": "left"}, wiped("barWipe", "leftToRight")),
            ("enters unveil", {"begins_at": "below"}, wiped("barWipe", "topToBottom", 'smil:direction="reverse"')),
            ("enters slide in", {"comes_from": "left"}, moved("x", "0-width/2;x")),
            ("enters slide in", {"comes_from": "below"}, moved("y", "1+height/2;y")),
            ("enters rise", {}, moved("y", "y+.1;y")),
            ("enters swell", {}, moved("width", "0;width")),
            ("enters cut in", {}, shown("box")),
            ("leaves slide out", {"comes_from": "right"}, goes),
            ("accents tint", {}, accented(tint)),
            ("travels along", {"path": "M 0 0 L 640 480"}, path("M 0 0 L 0.5 0.5")),
        ):
            slide, lost = self.order(clicked(written))
            self.assertEqual([(build.effect, build.settings) for build in slide.order], [(effect, settings)], written)
            self.assertEqual([loss for loss in lost if "build" in loss], [], written)

    def test_an_effect_nobody_knows_becomes_the_nearest_and_is_told(self) -> None:
        slide, lost = self.order(
            clicked(
                shown("box", '<anim:transitionFilter smil:dur="1s" smil:targetElement="box" smil:type="snakeWipe"/>')
            )
        )
        self.assertEqual(
            (slide.order[0].effect, [loss for loss in lost if "build" in loss]),
            ("enters fade", ["a build that becomes “Fade”"]),
        )

    def test_paragraphs_are_parts_and_repeats_and_paces_are_kept(self) -> None:
        words = (
            '<draw:frame xml:id="words" svg:width="4in" svg:height="2in"><draw:text-box><text:p '
            'xml:id="p1">One</text:p><text:p text:id="p2">Two</text:p></draw:text-box></draw:frame>'
        )
        pulse = (
            '<anim:par presentation:preset-class="emphasis" smil:repeatCount="3" '
            'smil:decelerate="0.5"><anim:animateTransform smil:dur="0.4s" smil:targetElement="words" '
            'smil:attributeName="transform" svg:type="scale" smil:by="1.2,1.2"/></anim:par>'
        )
        slide, _ = self.order(clicked(shown("p1")) + clicked(shown("p2")) + clicked(pulse), words)
        text = slide.objects[2]
        assert isinstance(text, Text)
        self.assertEqual([build.part for build in slide.order], [text.paragraphs[0].id, text.paragraphs[1].id, None])
        self.assertEqual(
            (slide.order[2].effect, slide.order[2].repeats, slide.order[2].pace), ("accents pulse", 3, "ease out")
        )

    def test_builds_of_what_is_gone_are_left_out_and_presses_on_objects_told(self) -> None:
        press = '<anim:seq presentation:node-type="interactive-sequence"><anim:par smil:begin="box.click"/></anim:seq>'
        slide, lost = self.one(
            BOX
            + f'<anim:par presentation:node-type="timing-root">{press}<anim:seq>{clicked(shown("ghost"))}{clicked(shown("box"))}</anim:seq></anim:par>'
        )
        self.assertEqual([build.object_id for build in slide.order], [slide.objects[1].id])
        self.assertIn("a build of something that was not brought in", lost)
        self.assertIn("builds that a press on an object sets off", lost)

    def test_a_show_that_nobody_presses_runs_by_itself_and_endless_ones_loop(self) -> None:
        dressed = (
            '<style:style style:name="dp" style:family="drawing-page"><style:drawing-page-properties '
            'presentation:transition-type="automatic" presentation:duration="PT5S"/></style:style>'
        )
        show, _ = self.read(
            presentation(page(BOX, style="dp"), dressed, more='<presentation:settings presentation:endless="true"/>')
        )
        self.assertEqual((show.runs, show.end, show.slides[0].advance), ("self-running", "loop", AdvanceAfter(5000)))
