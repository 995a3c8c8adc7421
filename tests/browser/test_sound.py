"""The browser's sound against the film's mix, both from the same passes."""

import json
import tempfile
from pathlib import Path

import numpy as np
from playwright.sync_api import expect

from ritornel.core.document import Show
from ritornel.core.document.decoding import to_builtins
from ritornel.core.document.edits import ChangeBuild, ChangeSlides, PutVoice, apply_edit
from ritornel.core.document.show import Voice
from ritornel.core.schedule.performance import Performance, builtins_of, perform
from ritornel.core.sound.decoding import decode_sound, keep_in_file
from ritornel.core.sound.mixing import mix_block
from ritornel.core.time import sample_at
from ritornel.demo.orlmere import MEDIA, orlmere
from tests.browser.base import BrowserTest

PIECE = 4_800
"""Samples a level is measured over: a tenth of a second."""
TOLERANCE_DB = 0.5

RENDER = """async ([seconds, fromMs, piece, given]) => {
  const { Sound } = await import("/static/ritornel/player/sound.js");
  const show = given ?? await (await fetch("/shows/orlmere/performance.json")).json();
  const lead = 480;  // the 10 ms by which Sound begins things after the context's present
  const audio = new OfflineAudioContext(2, seconds * 48000 + lead, 48000);
  const sound = new Sound(show, audio);
  await sound.loaded;
  sound.seek(fromMs);
  sound.ahead(seconds + 1);
  const samples = (await audio.startRendering()).getChannelData(0).subarray(lead);
  const levels = [];
  for (let at = 0; at + piece <= samples.length; at += piece) {
    let sum = 0;
    for (let i = at; i < at + piece; i += 1) sum += samples[i] * samples[i];
    levels.push(Math.sqrt(sum / piece));
  }
  return levels;
}"""


def levels_db(levels: np.ndarray) -> np.ndarray:
    return 20 * np.log10(np.maximum(levels, 1e-4))


class SameSoundTest(BrowserTest):
    def film_levels(self, from_ms: int, seconds: int, show: Performance) -> np.ndarray:
        with tempfile.TemporaryDirectory() as folder:
            waltz = keep_in_file(decode_sound(MEDIA / "winders-waltz.ogg"), Path(folder) / "waltz.raw", "sound")
            samples = mix_block(show.music, {"waltz": waltz}, sample_at(from_ms), seconds * 48_000, show.events)[
                :, 0
            ].astype(np.float64)
        return np.asarray(np.sqrt((samples.reshape(-1, PIECE) ** 2).mean(axis=1)))

    def same(self, from_ms: int, seconds: int, show: Show | None = None) -> None:
        performance = perform(show or orlmere())
        given = (
            json.loads(json.dumps(builtins_of(performance, {"waltz": "/shows/orlmere/media/waltz"}))) if show else None
        )
        browser = np.array(self.page.evaluate(RENDER, [seconds, from_ms, PIECE, given]))
        film = self.film_levels(from_ms, seconds, performance)
        self.assertEqual(len(browser), len(film))
        self.assertGreater(film.max(), 0.02, "there is something to hear")
        self.assertLess(float(np.abs(levels_db(browser) - levels_db(film)).max()), TOLERANCE_DB)

    def test_from_the_start_with_fade_in_and_the_first_crossfade(self) -> None:
        self.same(0, 30)

    def test_from_the_middle_of_a_pass_with_the_fade_out_to_the_end(self) -> None:
        self.same(60_000, 22)

    def spoken(self) -> Show:
        """Voices on three slides, the second right behind the first; our only sound, from somewhere in its middle,
        stands for speech.
        """
        show = orlmere()
        for slide, voice in (
            (0, Voice("waltz", 7200, 4000, 1500, 3.0)),
            (1, Voice("waltz", 9000, 8000, 300)),
            (3, Voice("waltz", 6500, 2000, 2000, -4.0)),
        ):
            show = apply_edit(show, PutVoice(show.slides[slide].id, voice)).show
        return show

    def test_voices_and_the_music_sinking_under_them(self) -> None:
        self.same(0, 24, self.spoken())

    def test_sounds_of_transitions_and_builds_one_of_which_keeps_on(self) -> None:
        show = self.spoken()
        first, second, third = show.slides[:3]
        for edit in (
            ChangeSlides(
                (first.id,),
                {
                    "transition": {
                        **to_builtins(first.transition),
                        "sound": {"asset_id": "waltz", "gain_db": -12, "keeps_on": True},
                    }
                },
            ),
            ChangeBuild(second.id, second.order[0].id, {"sound": {"asset_id": "waltz", "gain_db": -3}}),
            ChangeSlides(
                (third.id,), {"transition": {**to_builtins(third.transition), "sound": {"asset_id": "waltz"}}}
            ),
        ):
            show = apply_edit(show, edit).show
        self.same(0, 20, show)
        self.same(9000, 12, show)

    def test_a_jump_into_the_middle_of_a_voice(self) -> None:
        self.same(2400, 8, self.spoken())

    def test_live_voices_are_silent_unless_the_show_says_otherwise(self) -> None:
        loud = self.page.evaluate(
            """async ([given]) => {
              const { Sound } = await import("/static/ritornel/player/sound.js");
              const heard = [];
              for (const live of [false, true]) {
                const audio = new OfflineAudioContext(1, 48000 * 12, 48000);
                const sound = new Sound({ ...given, voices_live: live }, audio);
                await sound.loaded;
                sound.arrive(0);
                sound.ahead(13);
                const samples = (await audio.startRendering()).getChannelData(0);
                const level = (from, to) => {
                  const part = samples.subarray(from * 48000, to * 48000);
                  return Math.sqrt(part.reduce((sum, value) => sum + value * value, 0) / part.length);
                };
                heard.push([level(0, 1.4), level(1.9, 4.5), level(6, 8)]);
              }
              return heard;
            }""",
            [json.loads(json.dumps(builtins_of(perform(self.spoken()), {"waltz": "/shows/orlmere/media/waltz"})))],
        )
        silent, spoken = loud
        self.assertAlmostEqual(silent[0], spoken[0], places=3)
        self.assertGreater(abs(silent[1] - spoken[1]), 0.005, "there is a voice, and music sunk under it")
        self.assertAlmostEqual(silent[2], spoken[2], places=2)

    def test_a_short_fade_is_laid_also_where_the_clock_runs_on_between_two_looks(self) -> None:
        begun = self.page.evaluate(
            """async ([given]) => {
              const { Sound } = await import("/static/ritornel/player/sound.js");
              const audio = new OfflineAudioContext(1, 48000, 48000);
              const sound = new Sound(given, audio);
              await sound.loaded;
              // A busy page: eight milliseconds pass from one look at the clock to the next.
              let now = 0;
              Object.defineProperty(audio, "currentTime", { get: () => (now += 0.008) });
              const stopped = [];
              sound.running.set("m", { leave: audio.createGain(), sources: new Set([{ stop: (at) => stopped.push(at) }]) });
              sound.stopSpan("m", 5);
              return stopped;
            }""",
            [json.loads(json.dumps(builtins_of(perform(self.spoken()), {"waltz": "/shows/orlmere/media/waltz"})))],
        )
        self.assertAlmostEqual(begun[0], 0.008 + 0.005 + 0.01, places=6)

    def test_a_jump_into_a_crossfade_has_both_passes(self) -> None:
        self.same(23_800, 3)


HALF_AN_HOUR = """async ([show, seconds]) => {
  // A sound card whose clock the test turns: what begins on it is written down with the place in its sound.
  const begun = [];
  const param = () => ({
    value: 1, setValueAtTime() {}, setValueCurveAtTime() {}, cancelScheduledValues() {}, exponentialRampToValueAtTime() {}, setTargetAtTime() {},
  });
  const node = () => ({ gain: param(), connect(other) { return other; } });
  class Card {
    constructor() { Object.assign(this, { currentTime: 5, state: "running", destination: node() }); Card.now = this; }
    createGain() { return node(); }
    createAnalyser() { return { ...node(), getFloatTimeDomainData() {} }; }
    createChannelSplitter() { return node(); }
    createBufferSource() {
      const source = {
        ...node(),
        start(when, offset, duration = Infinity) {
          Object.assign(source, { when, offset, end: when + (source.loop ? Infinity : duration) });
          begun.push(source);
        },
        stop(at) { source.end = Math.min(source.end, at); },
      };
      return source;
    }
    async decodeAudioData() { return { duration: 24 }; }
    async resume() {}
    async close() {}
  }
  window.AudioContext = Card;
  const { ShowPlayer } = await import("/static/ritornel/player/player.js");
  const surface = document.createElementNS("http://www.w3.org/2000/svg", "svg");
  document.body.append(surface);
  const player = new ShowPlayer({ ...show, end: "loop", length_ms: show.content_ms }, surface, { mode: "self-running" });
  await player.begin(0);
  const apart = [];
  let [voices, music] = [0, 0];
  const look = () => {
    const { currentTime: now } = Card.now;
    const at = player.timeMs();
    const heard = begun.filter(({ when, end }) => when <= now && now < end).map(({ when, offset }) => (offset + now - when) * 1000);
    const nearest = (meant) => Math.min(...heard.map((place) => Math.abs(place - meant)), 1e9);
    // What has only begun, or is about to end, may be a hundredth of a second late.
    const settled = (from, to) => at > from + 60 && at < to - 60;
    for (const { start_ms: from, lasts_ms: lasts, in_ms: skipped } of show.voices) {
      if (settled(from, from + lasts)) { apart.push(nearest(at - from + skipped)); voices += 1; }
    }
    for (const [from, to] of show.music.flatMap(({ passes }) => passes)) if (settled(from, to)) { apart.push(nearest(at - from)); music += 1; }
  };
  let turn = 0;
  for (const end = Card.now.currentTime + seconds; Card.now.currentTime < end; turn += 1) {
    Card.now.currentTime += 0.31 + (turn % 7) * 0.17;
    player.frame();
    if (turn % 211 === 100) { player.pause(); Card.now.currentTime += 4; player.resume(); player.frame(); }
    if (turn % 173 === 60) { player.previous(); player.frame(); }
    if (turn % 131 === 90) { player.next(); player.frame(); }
    if (turn % 251 === 40) { player.seek((turn * 7919) % show.content_ms); player.frame(); }
    Card.now.currentTime += 0.05;
    player.frame();
    look();
    for (let n = begun.length - 1; n >= 0; n -= 1) if (begun[n].end < Card.now.currentTime - 1) begun.splice(n, 1);
    if (turn % 100 === 0) await new Promise((done) => { setTimeout(done); });
  }
  player.stop();
  return { worst: Math.max(...apart), voices, music, turn };
}"""


class TogetherTest(BrowserTest):
    def setUp(self) -> None:
        super().setUp()
        self.page.goto(self.base + "/shows/start")

    def test_after_half_an_hour_of_pauses_and_jumps_sound_is_where_the_picture_is(self) -> None:
        show = orlmere()
        for slide, voice in (
            (0, Voice("waltz", 7200, 4000, 1500)),
            (1, Voice("waltz", 9000, 8000, 300)),
            (3, Voice("waltz", 6500, 2000, 2000)),
        ):
            show = apply_edit(show, PutVoice(show.slides[slide].id, voice)).show
        given = json.loads(
            json.dumps(
                builtins_of(perform(show), {asset.id: f"/shows/orlmere/media/{asset.id}" for asset in show.assets})
            )
        )
        found = self.page.evaluate(HALF_AN_HOUR, [given, 1800])
        self.assertGreater(min(found["voices"], found["music"]), 200, "there was something to hear, again and again")
        self.assertLess(found["worst"], 40)


class ClockTest(BrowserTest):
    def test_the_clock_does_not_jump_when_sound_begins_or_stops_and_stands_still_when_paused(self) -> None:
        result = self.page.evaluate(
            """async () => {
              const { Clock } = await import("/static/ritornel/player/clock.js");
              const audio = { state: "suspended", currentTime: 7 };
              const clock = new Clock(audio);
              const before = clock.now();
              audio.state = "running";
              const heard = clock.now();
              audio.currentTime = 8.5;
              const later = clock.now();
              clock.pause();
              audio.currentTime = 20;
              const paused = clock.now();
              clock.resume();
              audio.currentTime = 21;
              const resumed = clock.now();
              audio.state = "suspended";
              const silent = clock.now();
              return { jump: heard - before, ran: later - heard, stood: paused - later, went: resumed - paused, back: silent - resumed };
            }"""
        )
        self.assertLess(abs(result["jump"]), 50)
        self.assertAlmostEqual(result["ran"], 1500, places=3)
        self.assertAlmostEqual(result["stood"], 0, places=3)
        self.assertAlmostEqual(result["went"], 1000, places=3)
        self.assertLess(abs(result["back"]), 50)


class MeterTest(BrowserTest):
    def test_what_is_heard_is_seen_on_a_meter_and_nothing_while_it_is_paused(self) -> None:
        self.page.goto(f"{self.base}/shows/orlmere/play?from=who-s&mode=self-running")
        self.page.wait_for_selector(".house[data-ready]")
        level = "Number(document.querySelector('.slim .meter').getAttribute('aria-valuenow'))"
        self.page.wait_for_function(f"() => {level} > -40 && {level} < 0")
        self.page.keyboard.press(" ")
        self.page.wait_for_function(f"() => {level} === -48")

    def test_the_loudness_of_the_whole_is_told_where_it_is_released(self) -> None:
        self.page.goto(f"{self.base}/shows/orlmere/release")
        expect(self.page.locator(".heard")).to_contain_text("A film lands at −16.0 LUFS")
