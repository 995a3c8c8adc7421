import os
import signal
from pathlib import Path
from typing import Any

from axe_playwright_python.sync_playwright import Axe
from playwright.sync_api import Locator, Page, expect

from tests.browser.base import NAME, PASSWORD, BrowserTest, Program

PULLED = """
  const real = navigator.mediaDevices;
  real.enumerateDevices = async () => [{ kind: "audioinput", deviceId: "desk", label: "Desk microphone" }];
  real.getUserMedia = async () => {
    const context = new AudioContext();
    const tone = context.createOscillator();
    const out = context.createMediaStreamDestination();
    tone.connect(out);
    tone.start();
    globalThis.pulled = out.stream.getAudioTracks()[0];
    return out.stream;
  };
"""


class RecordTest(BrowserTest):
    expected_complaints = ("ERR_INTERNET_DISCONNECTED", "ERR_CONNECTION_REFUSED", "507", "record/begin")

    def setUp(self) -> None:
        super().setUp()
        self.show = self.copy_of_demo()

    def record(self, section: str = "esc-s", page: Page | None = None, address: str = "", camera: bool = False) -> Page:
        """The Record page with the practice microphone, and no count-in."""
        page = page or self.page
        page.goto(f"{address or f'{self.base}/shows/{self.show}'}/record?section={section}")
        page.wait_for_selector(".record[data-ready]")
        page.get_by_label("Practice microphone").check()
        if camera:
            page.get_by_label("Practice camera").check()
        page.click("#count-in")
        page.click("#count-in")
        expect(page.locator("#count-in")).to_contain_text("None")
        return page

    def tenths(self, page: Page) -> float:
        minutes, seconds = page.inner_text("#take-time").split(":")
        return int(minutes) * 60 + float(seconds)

    def until_recorded(self, page: Page, seconds: float) -> None:
        reached = (
            "(s) => { const [m, rest] = document.querySelector('#take-time').textContent.split(':'); "
            "return m * 60 + Number(rest) >= s; }"
        )
        page.wait_for_function(reached, arg=seconds)

    def state(self, section: str = "esc-s") -> dict[str, Any]:
        return self.page.request.get(f"{self.base}/shows/{self.show}/record.json?section={section}").json()  # type: ignore[no-any-return]

    def edit(self, show: str, edit: dict[str, Any]) -> None:
        """Makes an edit as Compose would."""
        token = next(cookie["value"] for cookie in self.page.context.cookies() if cookie["name"] == "csrftoken")
        body = {"revision": self.score(show)["revision"], "edit": edit}
        reply = self.page.request.post(
            f"{self.base}/shows/{show}/edit", data=body, headers={"X-CSRFToken": token, "Referer": self.base}
        )
        self.assertTrue(reply.ok, reply.text())

    def test_a_section_is_recorded_picked_heard_and_kept_in_one_go(self) -> None:
        page = self.record(camera=True)
        expect(page.locator("#level-words")).to_have_text("Good level")
        # 42 words of notes at 2.2 a second.
        expect(page.locator("#spoken")).to_have_text("about 19 s spoken")
        page.click("#record-go")
        self.until_recorded(page, 1.2)
        for slide, beat in (("esc-s", 1), ("esc-s", 2), ("two-s", 0), ("two-s", 1), ("two-s", 2)):
            page.keyboard.press("ArrowRight")
            page.wait_for_selector(f'.record[data-slide="{slide}"][data-beat="{beat}"]')
            self.until_recorded(page, self.tenths(page) + 0.5)
        page.keyboard.press(" ")
        expect(page.locator("#sections [aria-current]")).to_contain_text("Recorded, not yet kept")
        take = self.state()["section"]["takes"][-1]
        first, second = take["pieces"]
        self.assertEqual((first["whole"], second["whole"], first["camera"], second["camera"]), (True, True, True, True))
        self.assertEqual(second["from_ms"], first["lasts_ms"])
        self.assertEqual(set(first["cues"]), {"q-esc-1", "q-esc-2"})
        expect(page.locator("#camera-place")).to_be_visible()
        page.click("#play-picked")
        # What was recorded is looked at: with its own camera and its own notes, and not with the camera as it is now.
        page.wait_for_selector('.record[data-looking] #record-picture [data-object="rec-esc-s"]')
        expect(page.locator("#camera-place")).to_be_hidden()
        page.wait_for_selector('.record[data-heard="two-s"]')
        expect(page.locator("#notes-of")).to_have_text("Notes, slide 4")
        expect(page.locator("#play-picked")).to_have_text("Play the selected takes")
        expect(page.locator("#camera-place")).to_be_visible()
        page.click("#keep-picked")
        expect(page.locator("#sections [aria-current]")).to_contain_text("Kept take 1")
        performed = page.request.get(f"{self.base}/shows/{self.show}/performance.json").json()
        escapement = performed["slides"][2]
        self.assertEqual(escapement["schedule"]["voice"], {"start_ms": 0, "end_ms": first["lasts_ms"]})
        self.assertEqual(self.slide(self.show, "esc-s")["objects"][-1]["name"], "Camera")
        page.get_by_role("button", name="Undo").click()
        expect(page.locator("#sections [aria-current]")).to_contain_text("Recorded, not yet kept")

    def test_it_pauses_goes_on_and_begins_a_slide_again(self) -> None:
        page = self.record("men-s")
        expect(page.locator("#record-go")).to_be_enabled()
        page.keyboard.press(" ")
        self.until_recorded(page, 1)
        page.keyboard.press(".")
        expect(page.locator("#record-from")).to_contain_text("on from")
        expect(page.locator("#kept-first")).to_contain_text("is kept on the server, even if this window closes.")
        stood = self.tenths(page)
        page.click("#record-go")
        self.until_recorded(page, stood + 0.6)
        page.click("#restart-slide")
        page.wait_for_function("() => document.querySelectorAll('.pieces[data-slide=men-s] .piece').length === 2")
        self.until_recorded(page, self.tenths(page) + 0.5)
        page.click("#stop")
        expect(page.locator("#take-now")).to_contain_text("Take 2, not begun")
        (take,) = self.state("men-s")["section"]["takes"]
        again = [piece for piece in take["pieces"] if piece["slide_id"] == "men-s"]
        self.assertEqual(len(again), 2)
        self.assertEqual(self.state("men-s")["section"]["picks"]["men-s"], [take["id"], 1])
        page.locator(".piece[data-piece='0'] input").check()
        expect(page.get_by_role("status").filter(has_text="Take 1 is picked for slide 5.")).to_be_visible()
        page.get_by_role("button", name="Undo").click()
        expect(page.locator(".piece[data-piece='1'][data-picked]")).to_be_visible()

    def test_a_window_that_is_closed_loses_two_seconds_at_most(self) -> None:
        page = self.new_page(self.context)
        self.record("bell-s", page)
        page.click("#record-go")
        self.until_recorded(page, 4)
        shown = self.tenths(page)
        page.close()
        page = self.record("bell-s")
        (take,) = self.state("bell-s")["section"]["takes"]
        self.assertGreater(take["length_ms"], shown * 1000 - 2000)
        expect(page.locator("#sections [aria-current]")).to_contain_text("Being recorded now")
        # Nothing comes from there any more: after six seconds the page tells so by itself.
        expect(page.locator("#sections [aria-current]")).to_contain_text("Interrupted at slide 7")
        expect(page.locator(".lines .take")).to_contain_text("interrupted")
        expect(page.locator("#record-from")).to_contain_text(f"on from {take['length_ms'] / 1000:.1f} s")
        page.click("#stop")
        expect(page.locator("#take-now")).to_contain_text("Take 2, not begun")

    def test_a_cut_line_is_told_and_what_waited_is_sent_when_it_is_back(self) -> None:
        page = self.record("noon-s")
        page.click("#record-go")
        self.until_recorded(page, 1.5)
        self.context.set_offline(True)
        expect(page.locator("#kept-first")).to_contain_text("The line is cut.")
        expect(page.locator("#kept-first")).to_contain_text("s kept here, waiting to send.")
        self.until_recorded(page, self.tenths(page) + 2)
        self.context.set_offline(False)
        expect(page.locator("#kept-first")).to_contain_text("is kept on the server, even if this window closes.")
        page.click("#pause")
        page.wait_for_function(
            "() => document.querySelector('#kept-second').textContent === 'Nothing is waiting to be sent.'"
        )
        shown = self.tenths(page)
        page.click("#stop")
        expect(page.locator("#take-now")).to_contain_text("not begun")
        self.assertAlmostEqual(self.state("noon-s")["section"]["takes"][0]["length_ms"], shown * 1000, delta=110)

    def test_two_who_wait_for_all_to_be_kept_do_not_stop_the_page(self) -> None:
        """One of them used to ask again and again for what the other had on its way, and nothing else on the page ever
        ran.
        """
        done = self.page.evaluate(
            """async () => {
              const { Courier } = await import("/static/ritornel/record/uploader.js");
              const asked = [];
              window.fetch = () => new Promise((done) => { asked.push((bytes) => done(new Response(JSON.stringify({ bytes, kept_ms: 1 })))); });
              const courier = new Courier("/shows/none", "window");
              courier.begin({ id: "take", bytes: 0, take: { events: [] } });
              clearInterval(courier.timer);
              courier.hear(new Int16Array(50));
              const next = () => new Promise((done) => { setTimeout(done, 0); });
              const both = [courier.flush(), courier.flush()];
              await next();
              courier.hear(new Int16Array(50));
              asked[0](100);
              while (asked.length < 2) await next();
              asked[1](200);
              return [...await Promise.all(both), courier.idle, asked.length];
            }"""
        )
        self.assertEqual(done, [True, True, True, 2])

    def test_a_server_that_is_killed_has_all_but_the_last_two_seconds(self) -> None:
        own = Program()
        self.addCleanup(own.stop)
        context = self.page.context.browser.new_context()  # type: ignore[union-attr]
        self.addCleanup(context.close)
        page = context.new_page()
        page.goto(f"{own.address}/sign-in/")
        page.fill("[name=username]", NAME)
        page.fill("[name=password]", PASSWORD)
        page.get_by_role("button", name="Sign in").click()
        page.wait_for_url(f"{own.address}/")
        self.record("esc-s", page, f"{own.address}/shows/orlmere")
        page.click("#record-go")
        self.until_recorded(page, 3.5)
        os.kill(own.server.pid, signal.SIGKILL)
        shown = self.tenths(page)
        expect(page.locator("#kept-first")).to_contain_text("The line is cut.")
        (sound,) = Path(own.folder.name).glob("recordings/*/sound.s16")
        self.assertGreater(sound.stat().st_size / 96, shown * 1000 - 2000)
        self.assertEqual(
            own.manage("from ritornel.web.takes.models import Recording; print(Recording.objects.get().state)"),
            "recording",
        )

    def test_a_microphone_that_is_refused_missing_or_pulled_out_is_told(self) -> None:
        page = self.new_page(self.context)
        page.add_init_script(
            "navigator.mediaDevices.enumerateDevices = async () => [{ kind: 'audioinput', deviceId: "
            "'desk', label: 'Desk microphone' }];"
            "navigator.mediaDevices.getUserMedia = async () => { throw new DOMException('no', "
            "globalThis.refused ?? 'NotAllowedError'); };"
        )
        page.goto(f"{self.base}/shows/{self.show}/record?section=esc-s")
        page.wait_for_selector(".record[data-ready]")
        page.get_by_label("Desk microphone").click()
        expect(page.get_by_role("alert")).to_contain_text("The browser was not allowed to use the microphone.")
        page.evaluate("() => { globalThis.refused = 'NotFoundError'; }")
        page.get_by_label("Desk microphone").click()
        expect(page.get_by_role("alert")).to_contain_text("There is no microphone on this computer.")
        expect(page.locator("#record-go")).to_be_disabled()
        page.close()
        page = self.new_page(self.context)
        page.add_init_script(PULLED)
        page.goto(f"{self.base}/shows/{self.show}/record?section=esc-s")
        page.wait_for_selector(".record[data-ready]")
        page.get_by_label("Desk microphone").check()
        page.click("#count-in")
        page.click("#count-in")
        page.click("#record-go")
        self.until_recorded(page, 1)
        page.evaluate("() => globalThis.pulled.dispatchEvent(new Event('ended'))")
        expect(page.get_by_role("alert")).to_contain_text(
            "The microphone was pulled out. What was recorded until then is kept"
        )
        expect(page.locator("#take-now")).to_contain_text("paused")
        page.get_by_label("Practice microphone").check()
        stood = self.tenths(page)
        page.click("#record-go")
        self.until_recorded(page, stood + 0.5)
        page.click("#stop")
        expect(page.locator("#take-now")).to_contain_text("not begun")

    def test_the_camera_is_placed_by_hand_by_keys_and_by_numbers(self) -> None:
        page = self.record(camera=True)
        picture = page.locator("#camera-place")
        page.locator("#camera-across").fill("30")
        page.locator("#camera-across").press("Enter")
        expect(page.locator("#camera-across")).to_have_value("30 %")
        picture.focus()
        page.keyboard.press("ArrowRight")
        page.keyboard.press("Shift+ArrowUp")
        expect(page.locator("#camera-across")).to_have_value("31 %")
        expect(page.locator("#camera-down")).to_have_value("64 %")
        stage, box = page.locator("#record-picture").bounding_box(), picture.bounding_box()
        assert stage and box
        page.mouse.move(box["x"] + box["width"] / 2, box["y"] + box["height"] / 2)
        page.mouse.down()
        page.mouse.move(stage["x"] + stage["width"] * 0.506, box["y"] + box["height"] / 2, steps=4)
        page.mouse.up()
        expect(page.locator("#camera-across")).to_have_value("50 %")
        page.get_by_role("button", name="Off", exact=True).click()
        expect(picture).to_be_hidden()

    def test_the_camera_is_seen_whole_and_on_the_slide_where_it_will_stand(self) -> None:
        page = self.record(camera=True)
        # All that is recorded is seen beside the round piece of it that stands on the slide.
        whole = page.get_by_label("All that the camera sees")
        expect(whole).to_be_visible()
        self.until(lambda: whole.evaluate("video => video.videoWidth / video.videoHeight") == 4 / 3)
        box = whole.bounding_box()
        assert box
        self.assertAlmostEqual(box["width"] / box["height"], 4 / 3, places=1)
        for name, value in (("across", 20), ("down", 15), ("size", 30)):
            page.locator(f"#camera-{name}").fill(str(value))
            page.locator(f"#camera-{name}").press("Enter")
        # There stands the heading of the slide: the picture steps aside, as it will when the take is used.
        told = page.get_by_text("Steps aside from words here.")
        expect(told).to_be_visible()
        picture = page.locator("#camera-place")
        words = page.locator("#record-picture svg.show").get_by_text("The escapement").first

        def beside() -> tuple[float, float] | None:
            over, heading = picture.bounding_box(), words.bounding_box()
            assert over and heading
            clear = over["y"] >= heading["y"] + heading["height"] or over["x"] >= heading["x"] + heading["width"]
            return (over["x"], over["y"]) if clear else None

        left, _ = self.until(beside)
        # What is moved is moved from where it is seen.
        across = page.locator("#camera-across").input_value()
        picture.focus()
        page.keyboard.press("ArrowLeft")
        self.assertNotIn(page.locator("#camera-across").input_value(), (across, "19 %"))
        expect(told).to_be_hidden()
        moved = picture.bounding_box()
        assert moved
        self.assertLess(left - moved["x"], 20)
        page.get_by_role("button", name="Off", exact=True).click()
        expect(whole).to_be_hidden()

    def serious(self, page: Page) -> list[Any]:
        """What axe-core finds that would keep somebody from using the page."""
        found = Axe().run(page).response["violations"]
        return [
            (entry["id"], [node["html"][:140] for node in entry["nodes"]][:3])
            for entry in found
            if entry["impact"] in ("serious", "critical")
        ]

    def test_the_last_cue_of_a_section_ends_its_take_however_long_it_was_waited_for(self) -> None:
        page = self.record("noon-s")
        page.click("#record-go")
        self.until_recorded(page, 0.5)
        for slide, beat in (("who-s", 0), ("who-s", 1), ("who-s", 2)):
            page.keyboard.press("ArrowRight")
            page.wait_for_selector(f'.record[data-slide="{slide}"][data-beat="{beat}"]')
        expect(page.locator("#waits")).to_contain_text("Waiting to go on")
        page.keyboard.press("ArrowRight")
        expect(page.locator("#take-now")).to_have_text("Take 2, not begun")
        piece = self.state("noon-s")["section"]["takes"][0]["pieces"][-1]
        self.assertTrue(piece["whole"])
        self.assertGreater(list(piece["waits"].values())[-1], 0)

    def test_a_camera_that_stops_before_the_voice_is_told_at_once_and_recorded_again(self) -> None:
        self.page = self.new_page(self.context)
        # The browser stops recording the first piece of the camera, as it may where the machine is too slow.
        script = """const start = MediaRecorder.prototype.start; let first = true;
            MediaRecorder.prototype.start = function (...given) {
              start.apply(this, given);
              if (first) { first = false; setTimeout(() => this.stop(), 1500); }
            };"""
        self.page.add_init_script(script)
        page = self.record("noon-s", camera=True)
        page.click("#record-go")
        self.until_recorded(page, 4)
        page.click("#stop")
        told = page.get_by_role("alert").filter(has_text="s before the voice.")
        expect(told).to_contain_text("Take 1: the camera's picture of slide 1 ends")
        expect(page.locator("#lines .piece .misfit")).to_contain_text("The camera stops")
        # A row is as high as what stands in it.
        cells = page.locator("#lines .pieces:has(.misfit)").evaluate_all(
            "cells => cells.map((cell) => [cell.getBoundingClientRect().bottom, "
            "cell.querySelector('.misfit').getBoundingClientRect().bottom])"
        )
        for bottom, words_bottom in cells:
            self.assertGreaterEqual(bottom, words_bottom)
        told.get_by_role("button", name="Record the slide again").click()
        expect(page.locator("#take-now")).to_contain_text("Take 2, recording")

    def test_a_device_is_asked_for_once_and_chosen_again_at_the_next_visit(self) -> None:
        self.page = self.new_page(self.context)
        self.page.add_init_script(
            PULLED
            + """
            const open = real.getUserMedia;
            real.getUserMedia = (...given) => { globalThis.asked = (globalThis.asked ?? 0) + 1; return open(...given); };
            navigator.permissions.query = async () => ({ state: "granted" });
            """
        )
        page = self.record()
        for name in ("Desk microphone", "Practice microphone", "Desk microphone"):
            page.get_by_label(name).check()
            expect(page.get_by_label(name)).to_be_checked()
        self.assertEqual(page.evaluate("globalThis.asked"), 1)
        # A choice is remembered once the device is open.
        remembered = "async () => (await import('/static/ritornel/record/opened-devices.js')).lastDevice('microphone')"
        self.until(lambda: page.evaluate(remembered) == "desk")
        page.goto(f"{self.base}/shows/{self.show}/record?section=esc-s")
        page.wait_for_selector(".record[data-ready]")
        cameras = page.locator("#cameras").bounding_box()
        page.locator("#notes-of").click()
        expect(page.get_by_label("Desk microphone")).to_be_checked()
        expect(page.locator("#level-words")).not_to_have_text("")
        self.assertEqual(page.locator("#cameras").bounding_box(), cameras, "nothing moved when the level came")

    def test_of_two_devices_chosen_quickly_the_last_stays_also_where_it_opens_first(self) -> None:
        self.page = self.new_page(self.context)
        self.page.add_init_script(
            PULLED
            + """
            const late = real.getUserMedia;
            const free = new Promise((done) => { globalThis.letOpen = done; });
            real.getUserMedia = async (...given) => { await free; globalThis.opened = await late(...given); return opened; };
            """
        )
        page = self.record()
        remembered = "localStorage.getItem('ritornel-microphone')"
        self.until(lambda: page.evaluate(remembered) == "practice")
        page.evaluate("localStorage.removeItem('ritornel-microphone')")
        page.get_by_label("Desk microphone").check()
        page.get_by_label("Practice microphone").check()
        self.until(lambda: page.evaluate(remembered) == "practice")
        page.evaluate("letOpen()")
        self.until(lambda: page.evaluate("globalThis.opened !== undefined"))
        page.evaluate("() => new Promise((done) => setTimeout(done))")
        expect(page.get_by_label("Practice microphone")).to_be_checked()
        self.assertEqual(page.evaluate(remembered), "practice", "the one that came late is not remembered")

    def test_it_can_be_used_by_everybody(self) -> None:
        page = self.record(camera=True)
        page.click("#record-go")
        self.until_recorded(page, 1)
        page.click("#pause")
        expect(page.locator("#kept-second")).to_have_text("Nothing is waiting to be sent.")
        page.get_by_role("button", name="Greeting").click()
        page.locator(".clip-recorder").wait_for()
        found = self.serious(page)
        page.keyboard.press("Escape")
        self.assertEqual(found + self.serious(page), [])

    def test_a_full_disk_pauses_the_take_and_loses_nothing(self) -> None:
        page = self.record("noon-s")
        page.click("#record-go")
        self.until_recorded(page, 1.2)
        words = (
            "The server's disk is full. What was recorded so far is safe; the rest is kept in this "
            "window until there is room."
        )
        page.route("**/more", lambda route: route.fulfill(status=507, json={"error": words, "full": True}))
        expect(page.get_by_role("alert")).to_contain_text("The server's disk is full.")
        expect(page.locator("#take-now")).to_contain_text("paused")
        expect(page.locator("#kept-second")).to_contain_text("s kept here, waiting for room.")
        page.unroute("**/more")
        expect(page.locator("#kept-second")).to_have_text("Nothing is waiting to be sent.")
        shown = self.tenths(page)
        self.assertAlmostEqual(self.state("noon-s")["section"]["takes"][0]["length_ms"], shown * 1000, delta=110)

    def test_two_windows_cannot_record_one_section_at_once(self) -> None:
        page = self.record("noon-s")
        page.click("#record-go")
        self.until_recorded(page, 1)
        other = self.record("noon-s", self.new_page(self.context))
        other.click("#record-go")
        expect(other.get_by_role("alert")).to_contain_text(
            "You are recording this section right now, in another window. Nothing was begun"
        )
        page.click("#stop")
        expect(page.locator("#take-now")).to_contain_text("not begun")
        other.click("#record-go:enabled")
        self.until_recorded(other, 0.5)

    def test_what_no_longer_fits_a_take_is_listed_beside_it(self) -> None:
        page = self.record()
        page.click("#record-go")
        self.until_recorded(page, 0.6)
        for beat in (1, 2):
            page.keyboard.press(" ")
            page.wait_for_selector(f'.record[data-beat="{beat}"]')
        page.click("#stop")
        expect(page.locator("#take-now")).to_contain_text("not begun")
        self.edit(self.show, {"do": "move slides", "slide_ids": ["esc-s"], "to": 0})
        for build in ("b-ticks", "b-rule", "b-tick"):
            self.edit(self.show, {"do": "remove build", "slide_id": "esc-s", "build_id": build})
        page.goto(f"{self.base}/shows/{self.show}/record?section=esc-s")
        expect(page.locator(".lines .take")).to_contain_text("1 cue of it is no longer on slide “The escapement”.")
        expect(page.locator('.pieces[data-slide="esc-s"] .piece')).to_be_visible()

    def test_sections_are_moved_and_begun(self) -> None:
        page = self.record("noon-s")
        page.get_by_role("button", name="Move “The restoration” up").click()
        expect(page.locator("#sections li").nth(1)).to_contain_text("The restoration")
        page.get_by_role("button", name="Undo").click()
        expect(page.locator("#sections li").nth(1)).to_contain_text("How it keeps time")
        page.get_by_role("button", name="New section").click()
        page.get_by_label("Name of the section").fill("The winders")
        page.get_by_role("button", name="Begin it here").click()
        expect(page.locator("#sections li")).to_have_count(5)

    def recorded_shortly(self) -> Locator:
        """The recorder that is open, once a second of the practice devices was recorded in it."""
        recorder = self.page.locator(".clip-recorder")
        recorder.get_by_label("Microphone").select_option("practice")
        recorder.get_by_label("Camera").select_option("practice")
        recorder.get_by_role("button", name="Record", exact=True).click()
        self.page.wait_for_function(
            "() => Number(document.querySelector('.clip-recorder [role=timer]').textContent.split(':')[1]) > 1.2"
        )
        recorder.get_by_role("button", name="Stop").click()
        self.page.wait_for_selector('.clip-recorder[data-state="recorded"]')
        return recorder

    def test_what_was_recorded_is_on_the_shelf_when_escape_closes_the_recorder(self) -> None:
        page = self.page
        page.goto(f"{self.base}/shows/{self.show}/record")
        page.wait_for_selector(".record[data-ready]")
        before = {asset["id"] for asset in self.score(self.show)["assets"]}
        page.get_by_role("button", name="Greeting").click()
        self.recorded_shortly()
        page.keyboard.press("Escape")
        expect(page.locator(".toast")).to_contain_text("shelf")
        added = self.until(lambda: [asset for asset in self.score(self.show)["assets"] if asset["id"] not in before])
        self.assertEqual([asset["kind"] for asset in added], ["clip"])

    def test_a_greeting_is_recorded_looked_at_and_put_before_the_show(self) -> None:
        page = self.page
        page.goto(f"{self.base}/shows/{self.show}/record")
        page.wait_for_selector(".record[data-ready]")
        page.get_by_role("button", name="Greeting").click()
        recorder = page.locator(".clip-recorder")
        recorder.get_by_label("Microphone").select_option("practice")
        expect(recorder.get_by_role("status")).to_contain_text("Choose a camera")
        recorder.get_by_label("Camera").select_option("practice")
        recorder.get_by_role("button", name="Record", exact=True).click()
        page.wait_for_selector('.clip-recorder[data-state="recording"]')
        page.wait_for_function(
            "() => Number(document.querySelector('.clip-recorder [role=timer]').textContent.split(':')[1]) > 1.5"
        )
        recorder.get_by_role("button", name="Stop").click()
        page.wait_for_selector('.clip-recorder[data-state="recorded"]')
        page.wait_for_function("() => document.querySelector('.clip-recorder .after video').duration > 1")
        recorder.get_by_role("button", name="Put it before the show").click()
        expect(page.locator("#sections li").first).to_contain_text("Greeting")
        slide = self.score(self.show)["order"][0]
        clip = self.slide(self.show, slide)["objects"][0]
        self.assertGreater(clip["out_ms"], 1000)
        page.get_by_role("button", name="Undo").click()
        expect(page.locator("#sections li").first).to_contain_text("The town")

    def test_a_clip_recorded_onto_a_slide_stands_where_no_words_are(self) -> None:
        page = self.page
        self.compose(show=self.show)
        page.locator("#bring-recorded").click()
        recorder = self.recorded_shortly()
        had = [item["id"] for item in self.slide(self.show, "esc-s")["objects"]]
        recorder.get_by_role("button", name="Put it on this slide").click()
        expect(recorder).to_be_hidden()
        fresh = self.until(
            lambda: [item for item in self.slide(self.show, "esc-s")["objects"] if item["id"] not in had]
        )
        drawn = page.locator(f'.theatre [data-object="{fresh[0]["id"]}"]')
        clip = self.until(drawn.bounding_box)
        texts = page.locator(".theatre svg text").evaluate_all(
            """nodes => nodes.map((node) => [node.textContent, node.getBoundingClientRect().toJSON()])"""
        )
        seen = {words: box for words, box in texts if words.strip() and box["width"]}
        self.assertIn("The escapement", seen)
        for words, box in seen.items():
            across = min(clip["x"] + clip["width"], box["right"]) - max(clip["x"], box["left"])
            down = min(clip["y"] + clip["height"], box["bottom"]) - max(clip["y"], box["top"])
            self.assertFalse(across > 2 and down > 2, f"{words} is covered: {box} by {clip}")
