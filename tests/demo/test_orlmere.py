from django.test import SimpleTestCase

from ritornel.core.document import AdvanceAfter, AdvanceOnCue, Picture, Shape, Text
from ritornel.core.document.integrity import check_integrity
from ritornel.core.schedule.performance import perform
from ritornel.core.schedule.slide_schedule import SlideSchedule
from ritornel.demo import music
from ritornel.demo.orlmere import FILES, MEDIA, media, orlmere


class DemoTest(SimpleTestCase):
    def test_it_shows_what_ritornel_can_do(self) -> None:
        show = orlmere()
        check_integrity(show)
        kinds = {type(item) for slide in show.slides for item in slide.objects}
        self.assertGreaterEqual(len(show.slides), 8)
        self.assertEqual(kinds, {Text, Picture, Shape})
        self.assertEqual({slide.transition.name for slide in show.slides}, {"cut", "dissolve", "push"})
        self.assertEqual({type(slide.advance) for slide in show.slides}, {AdvanceAfter, AdvanceOnCue})
        effects = {build.effect for slide in show.slides for build in slide.order}
        self.assertEqual(
            effects, {"enters fade", "enters settle", "enters rise", "enters cut in", "leaves fade", "accents pulse"}
        )

    def test_music_lies_under_all_of_it_and_waits_have_several_sources(self) -> None:
        staged = perform(orlmere())
        (span,) = staged.music
        self.assertEqual((span.start_ms, span.end_ms), (0, staged.schedule.length_ms))
        self.assertEqual(
            {wait.source for slide in staged.schedule.slides for wait in waits(slide)}, {"own hold", "default"}
        )

    def test_no_slide_is_longer_than_its_maker_says(self) -> None:
        self.assertEqual([slide.extended_ms for slide in perform(orlmere()).schedule.slides], [0] * 9)

    def test_words_fit_their_boxes_and_no_glyph_is_missing(self) -> None:
        show = perform(orlmere())
        texts = {item.id for staged in show.slides for item in staged.slide.objects if isinstance(item, Text)}
        for staged in show.slides:
            self.assertEqual(staged.drawing.missing, ())
            for item in staged.drawing.objects:
                if item.object_id in texts:
                    self.assertLessEqual(item.needs_height, item.height + 1, item.object_id)

    def test_every_picture_has_words_for_those_who_do_not_see_it(self) -> None:
        pictures = [item for slide in orlmere().slides for item in slide.objects if isinstance(item, Picture)]
        self.assertTrue(all(len(picture.alternative) > 20 for picture in pictures))

    def test_media_are_small_and_credited(self) -> None:
        self.assertLess(sum((MEDIA / file).stat().st_size for file, _ in FILES.values()), 1_000_000)
        for asset, data in media().values():
            self.assertEqual((asset.size_bytes, bool(asset.author), bool(asset.licence)), (len(data), True, True))

    def test_the_waltz_runs_into_itself_without_a_seam(self) -> None:
        samples = music.waltz()
        self.assertEqual(samples.shape, (24 * music.RATE, 2))
        self.assertLessEqual(float(abs(samples).max()), 0.71)
        # The tails of its last notes lie at its start: there is sound before the first note's own attack is over.
        self.assertGreater(float(abs(samples[:50]).max()), 0.001)


def waits(slide: SlideSchedule) -> list:
    return [wait for wait in [*(beat.wait for beat in slide.beats), slide.last_wait] if wait]
