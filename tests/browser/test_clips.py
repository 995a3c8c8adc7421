import json

from playwright.sync_api import expect

from ritornel.core.document.objects import played_ms
from ritornel.core.reference.captions import caption_in
from ritornel.core.render.version import RENDERER
from ritornel.core.schedule.performance import builtins_of, frame_state_at, perform
from ritornel.demo.pendulum import pendulum
from tests.browser.base import BrowserTest
from tests.footage import footage


class ClipTest(BrowserTest):
    def bring_clip(self, show: str, frames: int = 90) -> None:
        self.page.locator("#open-clips").click()
        self.page.locator('[aria-label="Choose pictures"]').set_input_files(
            {"name": "swing.mp4", "mimeType": "video/mp4", "buffer": footage(frames)}
        )
        self.page.wait_for_selector(".clip-strip")

    def clip(self, show: str, slide: str = "esc-s"):  # type: ignore[no-untyped-def]
        return next((item for item in self.slide(show, slide)["objects"] if item["kind"] == "clip"), None)

    def shown_at(self) -> float:
        """What instant of its own the clip on the stage shows, in ms."""
        return float(self.page.evaluate("document.querySelector('[data-stage] video').currentTime * 1000"))

    def test_a_clip_is_brought_on_plays_on_arrival_and_its_slide_waits_for_it(self) -> None:
        show = self.compose("esc-s")
        self.bring_clip(show)
        clip = self.clip(show)
        self.assertEqual((clip["in_ms"], clip["out_ms"]), (0, 3000))
        build = self.slide(show, "esc-s")["order"][0]
        self.assertEqual(
            (build["object_id"], build["effect"], build["starts"]), (clip["id"], "plays clip", {"rule": "follows"})
        )
        expect(self.page.locator(f'.score .build[data-build="{build["id"]}"]')).to_be_attached()
        self.page.get_by_role("button", name="Cue", exact=True).click()
        self.until(lambda: self.slide(show, "esc-s")["order"][0]["starts"]["rule"] == "cue")

    def test_it_is_trimmed_by_typing_by_here_and_by_pulling_and_the_stage_ends_on_the_last_picture(self) -> None:
        show = self.compose("esc-s")
        self.bring_clip(show)
        self.page.get_by_label("Clip from").fill("0:01")
        self.page.get_by_label("Clip from").press("Enter")
        self.until(lambda: self.clip(show)["in_ms"] == 1000)
        self.page.get_by_label("Clip to").fill("2")
        self.page.get_by_label("Clip to").press("Enter")
        self.until(lambda: self.clip(show)["out_ms"] == 2000)
        # At rest the stage shows the last picture before the end: number 59 of 30 a second begins at 1966.7 ms.
        self.until(lambda: 1966 < self.shown_at() < 2000)
        grip = self.page.get_by_role("slider", name="Ends at")
        box, strip = grip.bounding_box(), self.page.locator(".clip-strip").bounding_box()
        assert box and strip
        self.page.mouse.move(box["x"] + 4, box["y"] + 10)
        self.page.mouse.down()
        self.page.mouse.move(strip["x"] + strip["width"] * 5 / 6, box["y"] + 10, steps=4)
        expect(grip).to_have_attribute("aria-valuetext", "0:02.5")
        expect(self.page.locator(".panel")).to_contain_text("0:01.0 to 0:02.5")
        self.page.mouse.up()
        self.until(lambda: abs(self.clip(show)["out_ms"] - 2500) < 15)
        self.page.locator(".clip-strip").click(position={"x": strip["width"] / 2, "y": 10})
        self.page.get_by_role("button", name="In here").click()
        self.until(lambda: abs(self.clip(show)["in_ms"] - 1500) < 15)
        self.page.get_by_role("slider", name="Begins at").press("ArrowRight")
        self.until(lambda: abs(self.clip(show)["in_ms"] - 1600) < 15)

    def test_an_end_before_the_beginning_is_told_and_nothing_changes(self) -> None:
        show = self.compose("esc-s")
        self.expected_complaints = ("400",)
        self.bring_clip(show)
        self.page.get_by_label("Clip from").fill("5")
        self.page.get_by_label("Clip from").press("Enter")
        expect(self.page.get_by_role("alert")).to_contain_text("would end at 3.0 s, before it begins at 5.0 s")
        self.assertEqual(self.clip(show)["in_ms"], 0)

    def test_a_file_that_is_no_clip_is_told(self) -> None:
        show = self.compose("esc-s")
        self.expected_complaints = ("400",)
        self.page.locator("#open-clips").click()
        self.page.locator('[aria-label="Choose pictures"]').set_input_files(
            {"name": "broken.mp4", "mimeType": "video/mp4", "buffer": footage(30)[:1500]}
        )
        expect(self.page.get_by_role("alert")).to_contain_text(
            "“broken.mp4” is neither a picture nor a sound nor a clip"
        )
        self.assertIsNone(self.clip(show))

    def test_played_it_follows_the_show_stops_at_its_end_and_is_heard(self) -> None:
        self.page = self.new_page(self.context)
        self.page.add_init_script(
            """window.begun = []; const start = AudioBufferSourceNode.prototype.start;
               AudioBufferSourceNode.prototype.start = function (...given) { window.begun.push(given); return start.apply(this, given); };"""
        )
        self.page.goto(f"{self.base}/shows/pendulum/play?from=whole-s&mode=self-running")
        self.page.wait_for_selector('.house[data-ready][data-slide="whole-s"]')
        self.page.wait_for_function(
            "() => document.querySelector('.house video')?.currentTime > 1 && "
            "!document.querySelector('.house video').paused"
        )
        self.page.wait_for_function("() => window.begun.length > 0")
        self.page.keyboard.press("ArrowRight")
        self.page.wait_for_selector('.house[data-slide="ask-s"]')
        # Before its cue it shows the picture chosen for that; afterwards it stands on the last before its end.
        self.page.wait_for_function(
            "() => Math.abs(document.querySelector('[data-object=beside] video').currentTime - 4.5) < 0.05"
        )
        self.page.wait_for_selector('.house[data-slide="ask-s"][data-beat="2"]')
        beside = "document.querySelector('[data-object=beside] video')"
        self.page.wait_for_function(f"() => {beside}.paused && {beside}.currentTime > 7.95")
        self.assertLess(self.page.evaluate(f"{beside}.currentTime"), 8)

    def test_a_press_plays_a_clip_and_another_sends_it_back(self) -> None:
        show = self.compose("esc-s")
        self.bring_clip(show)
        clip = self.clip(show)
        self.page.get_by_role("button", name="A press", exact=True).click()
        self.until(lambda: self.clip(show)["press"] == {"do": "clip", "object_id": clip["id"]})
        self.assertEqual(
            [entry["effect"] for entry in self.slide(show, "esc-s")["order"] if entry["effect"] == "plays clip"], []
        )
        self.page.goto(f"{self.base}/shows/{show}/play?from=esc-s&mode=on+cue")
        self.page.wait_for_selector('.house[data-ready][data-slide="esc-s"]')
        video = "document.querySelector('.house video')"
        self.page.wait_for_function(f"() => {video}?.readyState > 1 && {video}.currentTime < 0.1")
        place = self.page.locator(f'.house [data-object="{clip["id"]}"]')
        place.click()
        self.page.wait_for_function(f"() => {video}.currentTime > 0.4 && !{video}.paused")
        self.page.wait_for_selector('.house[data-slide="esc-s"][data-beat="0"]')
        outline = "() => getComputedStyle(document.activeElement).outlineStyle"
        self.page.keyboard.press("Shift")
        self.assertEqual(self.page.evaluate(outline), "none", "no key brings a frame around what was pressed")
        self.page.keyboard.press("Tab")
        self.page.keyboard.press("Shift+Tab")
        self.assertEqual(self.page.evaluate(outline), "solid", "who walks by Tab sees where they are")
        place.click()
        self.page.wait_for_function(f"() => {video}.currentTime < 0.1 && {video}.paused")

    def test_live_a_press_ends_a_clip_that_holds(self) -> None:
        self.page.goto(f"{self.base}/shows/pendulum/play?from=ask-s&mode=on+cue")
        self.page.wait_for_selector('.house[data-ready][data-slide="ask-s"]')
        self.page.keyboard.press("ArrowRight")
        self.page.wait_for_function("() => document.querySelector('[data-object=beside] video').currentTime > 4.8")
        self.page.keyboard.press("ArrowRight")
        self.page.wait_for_selector('.house[data-slide="ask-s"][data-beat="2"]')
        self.page.wait_for_function(
            "() => Math.abs(document.querySelector('[data-object=beside] video').currentTime - 7.999) < 0.01"
        )

    def test_at_another_speed_it_lasts_longer_and_its_sound_is_the_one_at_that_speed(self) -> None:
        self.page = self.new_page(self.context)
        show = self.compose("esc-s")
        self.bring_clip(show)
        self.page.get_by_label("Speed of the clip").fill("50")
        self.page.get_by_label("Speed of the clip").press("Enter")
        self.until(lambda: self.clip(show)["rate_pct"] == 50)
        build = next(entry for entry in self.score(show)["slides"]["esc-s"]["builds"] if entry["kind"] == "plays")
        self.assertEqual(build["runs_ms"], 6000)
        asked: list[str] = []
        self.page.on(
            "response",
            lambda reply: (
                asked.append(f"{reply.status} {reply.url.split('/media/')[1]}") if "/at/50" in reply.url else None
            ),
        )
        self.page.goto(f"{self.base}/shows/{show}/play?from=esc-s&mode=self-running")
        self.page.wait_for_selector('.house[data-ready][data-slide="esc-s"]')
        self.page.wait_for_function("() => document.querySelector('.house video')?.currentTime > 0.8")
        self.assertEqual(self.page.evaluate("document.querySelector('.house video').playbackRate"), 0.5)
        self.assertEqual(asked, [f"200 {self.clip(show)['asset_id']}/v{RENDERER}/at/50"])

    def test_captions_come_from_a_file_and_are_read_while_the_clip_plays_unless_somebody_wants_none(self) -> None:
        show = self.compose("esc-s")
        self.expected_complaints = ("400",)
        self.bring_clip(show)
        field = self.page.get_by_label("Captions from a WebVTT or SRT file")
        field.set_input_files({"name": "none.vtt", "mimeType": "text/vtt", "buffer": b"nothing"})
        expect(self.page.get_by_role("alert")).to_contain_text("“none.vtt” holds no captions")
        self.assertEqual(self.clip(show)["captions"], [])
        vtt = b"WEBVTT\n\n00:00.100 --> 00:02.900\n<i>The escape wheel</i> lets one tooth go\n"
        field.set_input_files({"name": "swing.vtt", "mimeType": "text/vtt", "buffer": vtt})
        self.until(
            lambda: (
                self.clip(show)["captions"]
                == [{"start_ms": 100, "end_ms": 2900, "text": "The escape wheel lets one tooth go"}]
            )
        )
        self.page.goto(f"{self.base}/shows/{show}/play?from=esc-s&mode=on+cue")
        line = self.page.locator(".house .captions")
        expect(line).to_have_text("The escape wheel lets one tooth go")
        self.page.keyboard.press("c")
        expect(line).to_be_hidden()
        self.page.get_by_role("button", name="Captions").click()
        self.page.goto(f"{self.base}/shows/{show}/play?from=esc-s&mode=on+cue")
        expect(line).to_be_visible()
        expect(line).to_be_hidden()

    def test_the_browser_reads_what_the_core_reads(self) -> None:
        performance = perform(pendulum())
        times = list(range(0, 14_000, 170))
        given = json.loads(json.dumps(builtins_of(performance, {})))
        read = self.page.evaluate(
            """async ([show, times]) => {
              const { captionIn, hasCaptions } = await import("/static/ritornel/player/captions.js");
              const { frameStateAt } = await import("/static/ritornel/player/frame-state.js");
              return [hasCaptions(show), times.map((ms) => captionIn(show, frameStateAt(show, ms, true)))];
            }""",
            [given, times],
        )
        self.assertEqual(read, [True, [caption_in(performance, frame_state_at(performance, ms)) for ms in times]])

    def test_a_clip_that_browsers_do_not_show_is_seen_as_its_lighter_copy_once_that_is_made(self) -> None:
        show = self.compose("esc-s")
        self.expected_complaints = ("404",)
        self.page.locator("#open-clips").click()
        old = footage(60, codec="mpeg4")
        self.page.locator('[aria-label="Choose pictures"]').set_input_files(
            {"name": "old.mp4", "mimeType": "video/mp4", "buffer": old}
        )
        expect(self.page.get_by_text("which browsers do not show: they get a lighter copy")).to_be_visible()
        video = "document.querySelector('[data-stage] video')"
        self.page.wait_for_function(f"() => {video}?.readyState > 1 && {video}.videoWidth === 64")
        self.assertTrue(self.clip(show))

    def test_a_pressed_clip_takes_as_long_as_the_core_says(self) -> None:
        stretches = [
            (begins, begins + lasts, rate)
            for begins in (0, 333)
            for lasts in (1, 999, 18_200)
            for rate in range(25, 401, 3)
        ]
        taken = self.page.evaluate(
            """async (stretches) => {
              const { passOf } = await import("/static/ritornel/player/pressed-clips.js");
              return stretches.map(([in_ms, out_ms, rate_pct]) => passOf({ in_ms, out_ms, rate_pct }));
            }""",
            stretches,
        )
        self.assertEqual(taken, [played_ms(ends - begins, rate) for begins, ends, rate in stretches])
