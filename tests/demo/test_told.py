from django.test import SimpleTestCase

from ritornel.core.document import AdvanceWithVoice
from ritornel.core.document.integrity import check_integrity
from ritornel.core.schedule.performance import perform
from ritornel.core.sound.ducking import level_at
from ritornel.demo.narrated import SPOKEN, VOICES, told, told_media


class ToldTest(SimpleTestCase):
    def test_every_slide_follows_its_voice_and_nothing_else_makes_it_longer(self) -> None:
        show = told()
        check_integrity(show)
        self.assertEqual({type(slide.advance) for slide in show.slides}, {AdvanceWithVoice})
        staged = perform(show)
        self.assertEqual([slide.extended_ms for slide in staged.schedule.slides], [0] * 9)
        sources = {beat.wait.source for slide in staged.schedule.slides for beat in slide.beats if beat.wait}
        self.assertEqual(sources, {"voice mark"})

    def test_the_music_is_down_wherever_somebody_speaks(self) -> None:
        staged = perform(told())
        (music,) = staged.music
        for voice in staged.voices:
            self.assertEqual(level_at(music.ducking, voice.start_ms + voice.lasts_ms // 2), -9.0)

    def test_the_voices_come_out_alike_whatever_their_files_are_like(self) -> None:
        assets = {asset.id: asset for asset, _ in told_media().values()}
        levels = {round(assets[voice.asset_id].loudness_lufs + voice.gain_db, 1) for voice in perform(told()).voices}  # type: ignore[operator]
        self.assertEqual(levels, {-16.0})

    def test_they_are_small(self) -> None:
        self.assertEqual({path.stem for path in VOICES.iterdir()}, set(SPOKEN))
        self.assertLess(sum(path.stat().st_size for path in VOICES.iterdir()), 300_000)
