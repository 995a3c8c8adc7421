import json

from playwright.sync_api import Page, Route, expect

from tests.browser.base import BrowserTest

SHOW = "orlmere"


class LecternTest(BrowserTest):
    def lectern(
        self, query: str = "from=start", page: Page | None = None, begun: bool = True, show: str = SHOW
    ) -> Page:
        page = page or self.page
        page.goto(f"{self.base}/shows/{show}/lectern?{query}")
        page.wait_for_selector(".lectern[data-ready]")
        if begun and page.locator(".lectern[data-phase=ready]").count():
            page.keyboard.press(" ")
            page.wait_for_selector(".lectern[data-phase=running]")
        return page

    def house(self, address: str | None = None) -> Page:
        page = self.new_page(self.context)
        page.goto(address or f"{self.base}/shows/{SHOW}/house")
        return page

    def at(self, page: Page, slide: str, beat: int) -> None:
        kind = ".lectern" if page.locator(".lectern").count() else ".house"
        page.wait_for_selector(f'{kind}[data-slide="{slide}"][data-beat="{beat}"]')

    def test_in_the_dialog_of_keys_no_key_reaches_the_run(self) -> None:
        page = self.lectern("from=who-s")
        self.at(page, "who-s", 0)
        page.keyboard.press("?")
        keys = page.get_by_role("dialog", name="Keys of the Lectern")
        expect(keys).to_be_visible()
        page.keyboard.press("ArrowRight")
        page.keyboard.press("Escape")
        expect(keys).to_have_count(0)
        page.keyboard.press("ArrowRight")
        self.at(page, "who-s", 1)

    def test_the_end_of_the_slot_is_typed_as_a_length_and_space_then_cues(self) -> None:
        page = self.lectern("from=who-s")
        page.get_by_label("Slot ends").fill("20 min")
        page.keyboard.press("Enter")
        expect(page.locator("#slot-left")).to_contain_text("in 19:5")
        page.keyboard.press(" ")
        self.at(page, "who-s", 1)
        page.get_by_label("Slot ends").fill("soon")
        page.keyboard.press("Enter")
        expect(page.get_by_label("Slot ends")).to_have_attribute("aria-invalid", "")
        expect(page.locator("#slot-left")).to_have_text("")

    def test_the_house_follows_every_press_and_shows_nothing_else(self) -> None:
        lectern, house = self.lectern("from=who-s"), self.house()
        self.at(house, "who-s", 0)
        expect(house.locator(".waiting")).to_be_hidden()
        expect(lectern.locator("#connected")).to_contain_text("House connected. It shows slide 2, beat 0")
        presses = (
            (" ", "who-s", 1),
            ("PageDown", "who-s", 2),
            ("ArrowRight", "esc-s", 0),
            ("ArrowLeft", "who-s", 2),
            ("End", "thx-s", 0),
            ("Home", "noon-s", 0),
        )
        for key, slide, beat in presses:
            lectern.keyboard.press(key)
            self.at(lectern, slide, beat)
            self.at(house, slide, beat)
        lectern.keyboard.press("b")
        expect(house.locator(".house > svg.show > rect").last).to_have_attribute("opacity", "1")
        lectern.keyboard.press("b")
        expect(house.locator(".house > svg.show > rect").last).to_have_attribute("opacity", "0")

    def test_it_stands_ready_until_somebody_begins(self) -> None:
        lectern = self.lectern("from=who-s", begun=False)
        house = self.house()
        self.at(house, "who-s", 0)
        house.locator(".house").click()
        expect(lectern.locator("#next-cue")).to_have_text("Begin Space")
        expect(lectern.locator("#pace")).to_have_text("Ready")
        expect(lectern.locator("#after-title")).to_have_text("When you begin")
        expect(lectern.locator("#arrivals")).to_contain_text("Nothing runs yet. Begin starts the clock.")
        lectern.reload()
        self.at(lectern, "who-s", 0)
        second = self.house()
        self.at(second, "who-s", 0)
        lectern.keyboard.press("3")
        lectern.keyboard.press("Enter")
        self.at(house, "esc-s", 0)
        self.assertEqual(house.locator(".house").get_attribute("data-phase"), "ready")
        expect(lectern.locator("#elapsed")).to_have_text("0:00")
        lectern.keyboard.press(" ")
        expect(lectern.locator("#next-cue")).to_have_text("Next cue Space")
        expect(lectern.locator("#elapsed")).not_to_have_text("0:00")
        house.wait_for_selector(".house:not([data-phase=ready])")
        self.at(house, "esc-s", 0)
        # The clock began with the press, and so did the plan it is held against.
        expect(lectern.locator("#pace")).to_have_text("On tempo")

    def test_a_paused_run_stands_and_goes_on_from_there(self) -> None:
        lectern, house = self.lectern("from=who-s"), self.house()
        self.at(house, "who-s", 0)
        expect(lectern.locator("#elapsed")).not_to_have_text("0:00")
        lectern.keyboard.press(".")
        expect(lectern.locator("#pause")).to_contain_text("Go on")
        clock = lectern.locator("#clock")
        expect(clock).not_to_have_text(clock.text_content() or "")
        stood = lectern.locator("#elapsed").text_content()
        # The clock on the wall goes on, the run's does not.
        lectern.wait_for_function(
            "(then) => document.getElementById('clock').textContent > then.replace(/.$/, '9')",
            arg=clock.text_content() or "",
        )
        self.assertEqual(lectern.locator("#elapsed").text_content(), stood)
        lectern.keyboard.press(".")
        expect(lectern.locator("#elapsed")).not_to_have_text(stood or "")

    def test_a_run_that_never_began_leaves_no_take(self) -> None:
        lectern = self.lectern(begun=False)
        expect(lectern.locator("#pace")).to_have_text("Ready")
        lectern.keyboard.press("Escape")
        lectern.wait_for_url(f"**/shows/{SHOW}/")

    def test_it_says_what_the_next_press_does_and_that_the_show_has_ended(self) -> None:
        show = self.copy_of_demo()
        self.edit(show, {"do": "change show", "changes": {"end": "black"}})
        lectern = self.lectern("from=who-s", show=show)
        waiting = lectern.locator(".waiting-for")
        expect(waiting).to_contain_text("Cue planned at")
        lectern.keyboard.press("End")
        self.at(lectern, "thx-s", 0)
        expect(waiting).to_contain_text("A cue goes to black")
        lectern.keyboard.press(" ")
        expect(lectern.locator("#pace")).to_have_text("The show is over")
        expect(waiting).to_contain_text("The show is over. Back one returns to it.")
        lectern.keyboard.press("ArrowLeft")
        expect(waiting).to_contain_text("A cue goes to black")

    def test_a_press_storm_lands_exactly_as_many_beats_on_in_both(self) -> None:
        lectern, house = self.lectern("from=who-s"), self.house()
        self.at(house, "who-s", 0)
        show = lectern.request.get(f"{self.base}/shows/{SHOW}/performance.json").json()
        places = [(slide["id"], beat) for slide in show["slides"] for beat in range(len(slide["schedule"]["beats"]))][
            1:
        ]
        lectern.evaluate(
            "() => { for (let n = 0; n < 12; n += 1) dispatchEvent(new KeyboardEvent('keydown', { key: "
            "'ArrowRight' })); }"
        )
        self.at(lectern, *places[12])
        self.at(house, *places[12])

    def test_it_tells_what_comes_before_it_comes(self) -> None:
        lectern = self.lectern("from=who-s")
        expect(lectern.locator("#after-beat")).to_have_text("1")
        expect(lectern.locator("#arrivals")).to_contain_text("Now eleven of us take turns: enters")
        expect(lectern.locator("#notes [aria-current]")).to_have_text("1Eleven of us, in turn, every second evening.")
        seen = lectern.locator("#after-picture [data-object]").count()
        self.assertGreater(seen, 0)
        lectern.keyboard.press(" ")
        expect(lectern.locator("#notes [aria-current]")).to_have_text("2Let somebody try the crank.")
        lectern.locator("#beat-stops button").first.click()
        self.at(lectern, "who-s", 0)
        lectern.keyboard.press("/")
        lectern.keyboard.type("bell")
        lectern.keyboard.press("Enter")
        self.at(lectern, "bell-s", 0)
        lectern.locator("#go").fill("nothing like it")
        lectern.locator("#go").press("Enter")
        expect(lectern.get_by_role("alert")).to_contain_text("No slide is called “nothing like it”, and there are 9.")
        self.at(lectern, "bell-s", 0)

    def test_a_look_at_a_coming_bar_does_not_touch_the_house(self) -> None:
        lectern, house = self.lectern("from=who-s"), self.house()
        self.at(house, "who-s", 0)
        lectern.locator('#coming [data-number="4"]').focus()
        expect(lectern.locator("#after-title")).to_have_text("A look at 5  What we mended")
        self.at(house, "who-s", 0)
        lectern.keyboard.press("Enter")
        self.at(house, "men-s", 0)

    def test_either_may_be_closed_and_opened_again_while_the_other_goes_on(self) -> None:
        lectern, house = self.lectern("from=who-s"), self.house()
        lectern.keyboard.press("ArrowRight")
        self.at(house, "who-s", 1)
        house.close()
        expect(lectern.locator("#connected")).to_have_text("No House on this computer")
        lectern.keyboard.press("ArrowRight")
        house = self.house()
        self.at(house, "who-s", 2)
        lectern.goto("about:blank")
        house.keyboard.press("ArrowRight")
        self.at(house, "esc-s", 0)
        again = self.lectern(page=self.page)
        self.at(again, "esc-s", 0)
        again.keyboard.press("ArrowRight")
        self.at(house, "esc-s", 1)

    def test_a_press_in_the_house_goes_through_the_lectern(self) -> None:
        lectern, house = self.lectern("from=who-s"), self.house()
        self.at(house, "who-s", 0)
        expect(lectern.locator("#connected")).to_contain_text("House connected")
        house.keyboard.press("ArrowRight")
        self.at(lectern, "who-s", 1)
        self.at(house, "who-s", 1)

    def test_they_find_each_other_with_no_server_to_be_reached(self) -> None:
        lectern, house = self.lectern("from=who-s"), self.house()
        self.at(house, "who-s", 0)
        self.page.context.set_offline(True)
        lectern.keyboard.press("ArrowRight")
        self.at(house, "who-s", 1)
        lectern.keyboard.press("ArrowRight")
        self.at(house, "who-s", 2)

    def test_spot_and_pen_are_seen_in_the_house_in_the_same_place(self) -> None:
        lectern, house = self.lectern("from=who-s"), self.house()
        self.at(house, "who-s", 0)
        box = lectern.locator("#now-picture svg.board").bounding_box()
        assert box is not None
        lectern.keyboard.press("p")
        lectern.mouse.move(box["x"] + box["width"] / 4, box["y"] + box["height"] / 2)
        lectern.mouse.down()
        lectern.mouse.move(box["x"] + box["width"] / 2, box["y"] + box["height"] / 2, steps=4)
        lectern.mouse.up()
        line = house.locator("svg.board g path").last
        expect(line).to_have_attribute("stroke", "#8a2456")
        words = (line.get_attribute("d") or "").replace("M", "").replace("L", "").split()
        self.assertAlmostEqual(float(words[0]), 320, delta=4)
        self.assertAlmostEqual(float(words[-2]), 640, delta=4)
        lectern.keyboard.press("e")
        lectern.mouse.click(box["x"] + box["width"] / 3, box["y"] + box["height"] / 2)
        expect(house.locator("svg.board g path")).to_have_count(0)
        lectern.keyboard.press("s")
        lectern.mouse.move(box["x"] + box["width"] / 2, box["y"] + box["height"] / 2)
        expect(house.locator("svg.board circle")).to_be_visible()
        self.assertAlmostEqual(float(house.locator("svg.board circle").get_attribute("cx") or 0), 640, delta=4)
        lectern.keyboard.press("Escape")
        expect(house.locator("svg.board circle")).to_be_hidden()

    def test_the_run_becomes_a_take_with_its_drawings_unless_it_is_thrown_away(self) -> None:
        lectern = self.lectern("from=who-s")
        lectern.keyboard.press("ArrowRight")
        lectern.keyboard.press("p")
        box = lectern.locator("#now-picture svg.board").bounding_box()
        assert box is not None
        lectern.mouse.move(box["x"] + 50, box["y"] + 50)
        lectern.mouse.down()
        lectern.mouse.move(box["x"] + 150, box["y"] + 90, steps=3)
        lectern.mouse.up()
        lectern.keyboard.press("Shift+T")
        expect(lectern.locator("#timed")).to_have_text("Not kept as a take")
        lectern.get_by_role("button", name="Put it back").click()
        expect(lectern.locator("#timed")).to_contain_text("Timed as take")
        lectern.locator("#end-run").click()
        lectern.wait_for_url("**/rehearse")
        expect(lectern.locator("[data-take]").first).to_contain_text("Take")
        with lectern.expect_download() as download:
            lectern.get_by_role("link", name="drawings").first.click()
        self.assertTrue(download.value.suggested_filename.endswith(".zip"))

    def test_other_devices_follow_by_an_address_and_a_phone_is_the_remote(self) -> None:
        lectern = self.lectern("from=who-s")
        lectern.locator("#devices").click()
        links = lectern.locator("#devices-panel a")
        expect(links).to_have_count(2)
        addresses = [link.get_attribute("href") or "" for link in links.all()]
        stranger = self.new_context()
        # Its clock is an hour wrong: no clock of one device is ever held against another's.
        stranger.add_init_script("const told = Date.now; Date.now = () => told() + 3_600_000;")
        house, remote = stranger.new_page(), stranger.new_page()
        house.goto(addresses[0])
        self.at(house, "who-s", 0)
        remote.goto(addresses[1])
        expect(remote.locator("#name")).to_have_text("2  Who winds it?")
        remote.get_by_role("button", name="Next cue").click()
        self.at(lectern, "who-s", 1)
        self.at(house, "who-s", 1)
        expect(lectern.locator("#connected")).to_contain_text("2 devices follow")
        # A line that was cut heals by itself, and the House finds its place again.
        stranger.set_offline(True)
        lectern.keyboard.press("Escape")
        lectern.keyboard.press("ArrowRight")
        self.at(lectern, "who-s", 2)
        stranger.set_offline(False)
        self.at(house, "who-s", 2)
        lectern.locator("#devices").click()
        lectern.get_by_role("button", name="Let nobody follow any more").click()
        expect(house.locator(".waiting")).to_contain_text("The show is over.")
        self.assertEqual(stranger.request.get(addresses[0]).status, 404)

    def test_what_is_still_on_its_way_is_said_before_nobody_can_follow_any_more(self) -> None:
        self.page = self.new_page(self.context)
        lectern = self.lectern("from=who-s")
        lectern.locator("#devices").click()
        expect(lectern.locator("#devices-panel a")).to_have_count(2)
        lectern.keyboard.press("Escape")
        # It listens before it holds: what is on its way already may be the first that is held.
        asked: list[str] = []
        lectern.on("request", lambda request: asked.append(request.url.rsplit("/", 1)[-1]))
        held: list[Route] = []
        lectern.route("**/run/say", lambda route: held.append(route))
        lectern.keyboard.press("ArrowRight")
        self.until(lambda: bool(held))
        lectern.locator("#devices").click()
        lectern.get_by_role("button", name="Let nobody follow any more").click()
        lectern.evaluate("() => new Promise(requestAnimationFrame)")
        self.assertEqual(asked[-1], "say")
        held[0].continue_()
        expect(lectern.get_by_text("The addresses lead nowhere now.")).to_be_visible()

    def test_a_show_that_is_changed_meanwhile_is_fetched_again_by_the_house(self) -> None:
        self.lectern("from=who-s")
        house = self.house()
        self.at(house, "who-s", 0)
        token = self.page.locator("meta[name=csrf]").get_attribute("content") or ""
        revision = self.page.request.get(f"{self.base}/shows/{SHOW}/score.json").json()["revision"]
        edit = {"do": "change slides", "slide_ids": ["who-s"], "changes": {"name": "Who does?"}}
        headers = {"X-CSRFToken": token, "Content-Type": "application/json"}
        self.addCleanup(lambda: self.page.request.post(f"{self.base}/shows/{SHOW}/undo", data="{}", headers=headers))
        self.page.request.post(
            f"{self.base}/shows/{SHOW}/edit", data=json.dumps({"revision": revision, "edit": edit}), headers=headers
        )
        lectern = self.lectern("from=who-s")
        expect(lectern.locator("#now-name")).to_have_text("2  Who does?")
        lectern.keyboard.press("ArrowRight")
        self.at(house, "who-s", 1)


class PlayToolsTest(BrowserTest):
    def test_playing_has_spot_and_pen_too(self) -> None:
        self.page.goto(f"{self.base}/shows/{SHOW}/play?from=start&mode=on+cue")
        self.page.wait_for_selector(".house[data-ready]")
        self.page.keyboard.press("p")
        self.page.mouse.move(300, 300)
        self.page.mouse.down()
        self.page.mouse.move(400, 330, steps=3)
        self.page.mouse.up()
        expect(self.page.locator("svg.board g path")).to_have_count(2)
        self.page.wait_for_selector('.house[data-slide="noon-s"]')
        self.page.keyboard.press("ArrowRight")
        self.page.wait_for_selector('.house[data-slide="who-s"]')
        expect(self.page.locator("svg.board g path")).to_have_count(0)
        self.page.keyboard.press("ArrowLeft")
        expect(self.page.locator("svg.board g path")).to_have_count(2)


class CompareTest(BrowserTest):
    def test_takes_are_compared_and_the_median_is_taken_for_some_slides(self) -> None:
        show = self.copy_of_demo()
        page = self.page
        page.goto(f"{self.base}/shows/{show}/rehearse")
        headers = {
            "X-CSRFToken": page.locator("meta[name=csrf]").get_attribute("content") or "",
            "Content-Type": "application/json",
        }
        for stay in (7000, 9000):
            events = [
                {"event": "arrived", "slide_id": "noon-s", "at_ms": 0},
                {"event": "arrived", "slide_id": "who-s", "at_ms": stay},
            ]
            page.request.post(
                f"{self.base}/shows/{show}/takes",
                data=json.dumps({"events": events, "ended_ms": stay + 12_000}),
                headers=headers,
            )
        page.reload()
        page.get_by_role("button", name="Compare the takes").click()
        noon = page.locator("#compare tr.slide").first
        expect(noon).to_contain_text("8.0")
        expect(noon.get_by_role("img")).to_have_attribute("aria-label", "7.0 to 9.0 s, planned 6.0 s")
        told = page.locator("#compare .told")
        expect(told).to_contain_text("The show would last 1:24.8, +2.0 s against the plan.")
        page.get_by_label("Target length").fill("soon")
        page.get_by_label("Target length").press("Enter")
        expect(told).to_have_text("Write the target as minutes and seconds, such as 5:00.")
        expect(page.get_by_role("button", name="Take this timing for all slides")).to_be_disabled()
        page.get_by_label("Target length").fill("1:20")
        page.get_by_label("Target length").press("Enter")
        expect(told).to_contain_text(
            "The show would last 1:20.0, −2.8 s against the plan. For the target these would have to give:"
        )
        page.get_by_label("Target length").fill("")
        page.get_by_label("Target length").press("Enter")
        page.get_by_label("All slides").uncheck()
        expect(told).to_have_text("Pick at least one slide.")
        page.get_by_label("Take the timing of slide 1").check()
        page.get_by_role("button", name="Take this timing for 1 slide").click()
        expect(noon.locator("td").nth(1)).to_have_text("8.0")
        self.assertEqual(self.score(show)["length_ms"], 84_800)
        page.get_by_role("button", name="Undo").click()
        expect(noon.locator("td").nth(1)).to_have_text("6.0")
