from playwright.sync_api import Page, expect

from tests.browser.base import BrowserTest, Finger


class PlayTest(BrowserTest):
    def play(self, query: str, show: str = "orlmere") -> None:
        self.page.goto(f"{self.base}/shows/{show}/play?{query}")
        self.page.wait_for_selector(".house[data-ready]")

    def at(self, slide: str, beat: int | None = None) -> None:
        self.page.wait_for_selector(
            f'.house[data-slide="{slide}"]' + (f'[data-beat="{beat}"]' if beat is not None else "")
        )

    def test_on_cue_every_key_does_what_it_should(self) -> None:
        self.play("from=start&mode=on+cue")
        press = self.page.keyboard.press
        self.at("noon-s", 0)
        press("ArrowRight")
        self.at("who-s", 0)
        press(" ")
        self.at("who-s", 1)
        press("ArrowRight")
        self.at("who-s", 2)
        press("ArrowLeft")
        self.at("who-s", 1)
        press("End")
        self.at("thx-s")
        press("Home")
        self.at("noon-s")
        press("3")
        press("Enter")
        self.at("esc-s", 0)
        press("b")
        expect(self.page.locator(".house > svg > rect").last).to_have_attribute("opacity", "1")
        press("b")
        expect(self.page.locator(".house > svg > rect").last).to_have_attribute("opacity", "0")
        self.page.mouse.click(640, 300)
        self.at("esc-s", 1)

    def test_a_touch_is_a_press_and_a_swipe_goes_back(self) -> None:
        self.play("from=who-s&mode=on+cue")
        down = """(e) => document.querySelector('.house').dispatchEvent(
          new PointerEvent(e[0], { bubbles: true, clientX: e[1], clientY: 300, pointerType: 'touch' }))"""
        for event in (("pointerdown", 600), ("pointerup", 600)):
            self.page.evaluate(down, list(event))
        self.at("who-s", 1)
        for event in (("pointerdown", 400), ("pointerup", 600)):
            self.page.evaluate(down, list(event))
        self.at("who-s", 0)

    def test_swipes_step_both_ways_however_slow_and_slanted_and_up_and_down_is_none(self) -> None:
        self.play("from=who-s&mode=on+cue")
        self.at("who-s", 0)
        finger = Finger(self.page)

        def swipe(x1: float, y1: float, x2: float, y2: float) -> None:
            finger.down(x1, y1)
            finger.move(x2, y2, steps=20)
            finger.up()

        swipe(800, 300, 600, 300)
        self.at("who-s", 1)
        swipe(800, 300, 700, 390)
        self.at("who-s", 2)
        swipe(600, 200, 610, 500)
        swipe(600, 300, 800, 420)
        self.at("who-s", 1)

    def test_no_key_shows_the_bar_but_the_question_mark_and_the_foot_of_the_screen_does(self) -> None:
        self.play("from=who-s&mode=on+cue")
        self.page.mouse.move(640, 200)
        self.page.wait_for_selector(".house.idle")
        self.page.keyboard.press("ArrowRight")
        self.at("who-s", 1)
        self.page.mouse.move(660, 220)
        self.page.wait_for_selector(".house.idle")
        self.page.mouse.move(640, 780)
        self.page.wait_for_selector(".house:not(.idle)")
        self.page.keyboard.press("?")
        keys = self.page.get_by_role("dialog", name="Keys while it plays")
        expect(keys).to_be_visible()
        self.page.keyboard.press("ArrowRight")
        self.page.keyboard.press("Escape")
        expect(keys).to_have_count(0)
        self.at("who-s", 1)

    def test_the_pen_is_in_the_bar_and_a_number_and_enter_jump_from_a_button_too(self) -> None:
        self.play("from=who-s&mode=on+cue")
        pen = self.page.get_by_role("button", name="Pen", exact=True)
        pen.click()
        expect(pen).to_have_attribute("aria-pressed", "true")
        self.page.keyboard.press("3")
        self.page.keyboard.press("Enter")
        self.at("esc-s", 0)

    def test_fifty_presses_at_once_are_fifty_beats(self) -> None:
        self.play("from=start&mode=on+cue")
        show = self.page.request.get(self.base + "/shows/orlmere/performance.json").json()
        places = [(slide["id"], beat) for slide in show["slides"] for beat in range(len(slide["schedule"]["beats"]))]
        self.page.evaluate(
            "(n) => { for (let i = 0; i < n; i += 1) dispatchEvent(new KeyboardEvent('keydown', { key: "
            "'ArrowRight' })); }",
            12,
        )
        self.at(*places[12])
        self.page.evaluate(
            "() => { for (let i = 0; i < 50; i += 1) dispatchEvent(new KeyboardEvent('keydown', { key: "
            "'ArrowRight' })); }"
        )
        self.at(*places[-1])

    def test_it_begins_where_asked_and_leaves_to_where_one_was(self) -> None:
        self.compose("bell-s", "orlmere")
        self.page.get_by_role("button", name="Play from here").click()
        self.page.wait_for_selector(".house[data-ready]")
        self.at("bell-s")
        self.page.keyboard.press("Escape")
        self.page.wait_for_url("**/shows/orlmere/?slide=bell-s")
        self.page.get_by_label("Play another way").click()
        self.page.get_by_role("button", name="Play from the start, self-running").click()
        self.page.wait_for_selector(".house[data-ready]")
        self.at("noon-s")

    def test_self_running_it_goes_on_by_itself_with_music_on_the_audio_clock(self) -> None:
        self.page = self.new_page(self.context)
        self.page.add_init_script(
            """window.begun = []; const start = AudioBufferSourceNode.prototype.start;
               AudioBufferSourceNode.prototype.start = function (...given) {
                 window.begun.push(given); window.context = this.context; return start.apply(this, given);
               };"""
        )
        self.play("from=start&mode=self-running")
        self.at("noon-s")
        self.page.wait_for_function("() => window.begun.length > 0 && window.context.state === 'running'")
        self.page.keyboard.press("ArrowRight")
        self.at("who-s")
        self.at("who-s", 1)
        # The press moved the music with the playhead: the new source begins about 6 s into the waltz.
        offset = self.page.evaluate("Math.max(...window.begun.map((given) => given[1]))")
        self.assertGreater(offset, 5.9)
        self.page.keyboard.press(" ")
        expect(self.page.get_by_role("button", name="Go on")).to_be_attached()

    def test_full_screen_is_asked_for_by_a_button_and_a_key(self) -> None:
        self.play("from=start&mode=on+cue")
        self.page.evaluate(
            "() => { document.documentElement.requestFullscreen = async () => { window.asked = "
            "(window.asked ?? 0) + 1; }; }"
        )
        self.page.keyboard.press("f")
        self.page.mouse.move(600, 700)
        self.page.get_by_role("button", name="Full screen").click()
        self.assertEqual(self.page.evaluate("window.asked"), 2)


class RehearseTest(BrowserTest):
    def test_a_run_becomes_a_take_whose_timing_is_used_and_taken_back(self) -> None:
        show = self.copy_of_demo()
        page = self.page
        before = self.score(show)
        page.goto(f"{self.base}/shows/{show}/rehearse")
        page.get_by_role("button", name="Start a run").click()
        page.wait_for_selector('.rehearse[data-slide="noon-s"]')
        page.keyboard.press(" ")
        page.wait_for_selector('.rehearse[data-slide="who-s"]')
        expect(page.locator("#notes")).to_contain_text("Ask the room first. Wait for a guess.")
        for beat in (1, 2):
            page.keyboard.press(" ")
            page.wait_for_selector(f'.rehearse[data-beat="{beat}"]')
        page.get_by_role("button", name="End the run").click()
        take = page.locator('[data-take="1"]')
        expect(take).to_contain_text("Take 1")
        expect(take.locator("tbody tr").nth(2)).to_contain_text("not run")
        take.get_by_text("Use this timing").click()
        take.get_by_role("button", name="As the show's own holds").click()
        expect(page.get_by_role("status").last).to_contain_text("The show now has the timing of take 1")
        after = self.score(show)
        self.assertNotEqual(after["slides"]["noon-s"]["advance"], before["slides"]["noon-s"]["advance"])
        self.assertEqual(after["slides"]["who-s"]["builds"][1]["starts"]["hold_ms"], 0)
        page.get_by_role("button", name="Undo").click()
        self.until(lambda: self.score(show)["slides"] == before["slides"])

    def test_a_take_thrown_away_can_be_put_back(self) -> None:
        show = self.copy_of_demo()
        page = self.page
        page.goto(f"{self.base}/shows/{show}/rehearse")
        page.get_by_role("button", name="Start a run").click()
        page.wait_for_selector('.rehearse[data-slide="noon-s"]')
        page.get_by_role("button", name="End the run").click()
        page.get_by_role("button", name="Throw take 1 away").click()
        expect(page.locator("[data-take]")).to_have_count(0)
        page.get_by_role("button", name="Put it back").click()
        expect(page.locator("[data-take]")).to_have_count(1)


class ReleaseTest(BrowserTest):
    def release(self) -> tuple[str, str]:
        show = self.copy_of_demo()
        self.page.goto(f"{self.base}/shows/{show}/release")
        self.page.get_by_role("button", name="Make edition 1").click()
        self.page.get_by_role("button", name="Anyone with the address").click()
        address = self.page.get_by_role("textbox", name="Address").input_value()
        return show, address

    def stranger(self, address: str, autoplay: bool) -> Page:
        page = self.new_page(self.new_context(autoplay))
        page.goto(address)
        return page

    def test_a_stranger_sees_it_start_by_itself_with_sound(self) -> None:
        _, address = self.release()
        page = self.stranger(address, autoplay=True)
        page.wait_for_selector(".house[data-running]")
        expect(page.locator(".plate")).to_be_hidden()
        page.wait_for_selector('.house[data-slide="noon-s"]')
        page.keyboard.press("ArrowRight")
        page.wait_for_selector('.house[data-slide="who-s"]')

    def test_where_the_browser_wants_a_press_a_plate_says_so(self) -> None:
        _, address = self.release()
        page = self.stranger(address, autoplay=False)
        expect(page.get_by_text("Press anywhere to begin, with sound.")).to_be_visible()
        page.mouse.click(30, 30)  # the whole plate is a button
        page.wait_for_selector('.house[data-running][data-slide="noon-s"]')
        other = self.stranger(address, autoplay=False)
        other.get_by_role("button", name="Begin in silence").click()
        other.wait_for_selector(".house[data-running]")

    def test_who_asks_for_less_motion_sees_what_came_flying_fade(self) -> None:
        _, address = self.release()
        context = self.new_context(reduced_motion="reduce")
        stranger = self.new_page(context)
        with stranger.expect_response("**/calm.json") as answer:
            stranger.goto(address)
        calm = answer.value.json()
        lively = self.page.request.get(answer.value.url.replace("calm.json", "performance.json")).json()
        self.assertEqual(
            [slide["schedule"] for slide in calm["slides"]], [slide["schedule"] for slide in lively["slides"]]
        )
        expect(stranger.locator(".house")).to_have_attribute("data-running", "yes")
        moved = stranger.evaluate(
            """async () => {
              const found = [];
              for (const end = performance.now() + 2500; performance.now() < end;) {
                await new Promise(requestAnimationFrame);
                for (const node of document.querySelectorAll(".slide-layer, [data-object] > g")) {
                  const way = node.getAttribute("transform") ?? "";
                  if (/translate\\(|scale\\(/.test(way)) found.push(way);
                }
              }
              return found;
            }"""
        )
        self.assertEqual(moved, [])

    def controls(self, page: Page) -> list[str]:
        """What the bar under a show has, in order, without the presenter's own tools."""
        page.wait_for_selector(".slim")
        return page.locator(".slim > :is(button, span:not([role]))").evaluate_all(  # type: ignore[no-any-return]
            "nodes => nodes.map(n => n.getAttribute('aria-label') ?? (n.tagName === 'SPAN' ? 'time' : n.textContent))"
        )

    def test_the_bar_under_a_show_is_the_same_in_play_and_in_a_release(self) -> None:
        show, address = self.release()
        released = self.controls(self.stranger(address, autoplay=True))
        self.page.goto(f"{self.base}/shows/{show}/play")
        played = self.controls(self.page)
        self.assertEqual(played, [*released, "Leave"])
        self.assertEqual(released[:3], ["Pause", "One beat back", "Next beat"])
        tools = self.page.get_by_role("group", name="For the presenter")
        expect(tools.get_by_role("button", name="Pen")).to_be_visible()

    def test_it_stays_as_it_was_and_a_withdrawn_address_shows_nothing(self) -> None:
        show, address = self.release()
        self.page.goto(f"{self.base}/shows/{show}/")
        self.page.get_by_label("Title of the show").fill("Another title")
        self.page.get_by_label("Title of the show").press("Tab")
        self.until(lambda: self.score(show)["settings"]["title"] == "Another title")
        self.assertEqual(self.stranger(address, autoplay=True).title(), "The Orlmere clock")
        self.page.goto(f"{self.base}/shows/{show}/release")
        self.page.get_by_role("button", name="Withdraw").click()
        expect(self.page.get_by_text("Withdrawn. Nobody can open it now.")).to_be_visible()
        self.expected_complaints = ("404",)
        self.assertEqual(self.new_page(self.new_context()).goto(address).status, 404)  # type: ignore[union-attr]

    def test_a_film_is_made_with_progress_saved_and_another_cancelled(self) -> None:
        show, _ = self.release()
        # Three slides are film enough.
        changes = {"skipped": True}
        self.edit(show, {"do": "change slides", "slide_ids": self.score(show)["order"][3:], "changes": changes})
        page = self.page
        page.goto(f"{self.base}/shows/{show}/release")
        page.get_by_label("Size").select_option("640x360")
        expect(page.get_by_label("Name of the film")).to_have_value("The Orlmere clock")
        page.get_by_label("Name of the film").fill("The clock, for the town hall")
        page.get_by_label("Name of the film").press("Tab")
        page.get_by_role("button", name="Make the film").click()
        expect(page.get_by_role("progressbar")).to_be_visible(timeout=20_000)
        expect(page.locator("[data-film]")).to_contain_text("s left", timeout=60_000)
        expect(page.locator('[data-state="ready"]')).to_be_visible(timeout=120_000)
        with page.expect_download() as download:
            page.get_by_role("link", name="Save").click()
        self.assertEqual(download.value.suggested_filename, "the-clock-for-the-town-hall-640x360.mp4")
        self.hand_in_to_one_of_two()
        page.get_by_label("Size").select_option("1920x1080")
        page.get_by_role("button", name="Make the film").click()
        expect(page.locator('[data-state="running"]')).to_be_visible(timeout=20_000)
        page.get_by_role("button", name="Cancel").click()
        expect(page.locator('[data-state="cancelled"]')).to_be_visible()
        expect(page.get_by_role("button", name="Start again")).to_be_visible()

    def hand_in_to_one_of_two(self) -> None:
        """Two people share a name: the one that is meant is pressed; then it is taken back."""
        for name in ("roake-1", "roake-2"):
            self.program.manage(
                "from django.contrib.auth.models import User; "
                f"User.objects.create_user('{name}', first_name='Tamsin', last_name='Roake')"
            )
        page = self.page
        page.get_by_text("Hand it in", exact=True).click()
        page.get_by_label("To whom").fill("tamsin roake")
        page.get_by_role("button", name="Hand in", exact=True).click()
        page.get_by_role("button", name="signs in as roake-2").click()
        handed = page.locator("[data-hand-in]")
        expect(handed).to_contain_text("to Tamsin Roake")
        handed.get_by_role("button", name="Withdraw").click()
        expect(handed).to_have_count(0)

    def test_a_film_whose_worker_is_killed_in_the_middle_says_so_and_goes_on_with_the_next(self) -> None:
        self.release()
        page = self.page
        page.get_by_label("Size").select_option("1920x1080")
        page.get_by_role("button", name="Make the film").click()
        expect(page.locator('[data-state="running"]')).to_be_visible(timeout=60_000)
        self.program.worker.kill()
        self.program.worker.wait()
        expect(page.locator('[data-state="interrupted"]')).to_contain_text(
            "The worker stopped in the middle of this film"
        )
        self.program.worker = self.program.start_worker()
        expect(page.locator('[data-state="running"]')).to_be_visible(timeout=60_000)
        page.get_by_role("button", name="Cancel").click()
        expect(page.locator('[data-state="cancelled"]')).to_be_visible()


class ShowsTest(BrowserTest):
    def setUp(self) -> None:
        super().setUp()
        self.page.goto(self.base + "/")

    def test_a_show_is_begun_blank_removed_brought_back_and_removed_for_good_after_asking(self) -> None:
        page = self.page
        self.expected_complaints = ("thumbs",)  # its small picture may still be on its way when it is gone
        page.get_by_role("link", name="New show").click()
        page.get_by_label("Title of the new show").fill("The bell frame")
        page.get_by_role("button", name="A self-running show").click()
        page.wait_for_selector(".theatre [data-object=title]")
        expect(page.get_by_label("Title of the show")).to_have_value("The bell frame")
        page.goto(self.base + "/")
        for back in (True, False):
            page.get_by_label("More for The bell frame").click()
            page.get_by_role("button", name="Remove The bell frame").click()
            page.get_by_role("link", name="Open the bin").click()
            if back:
                page.get_by_role("button", name="Bring The bell frame back").click()
                expect(page.get_by_text("“The bell frame” is back, as it was.")).to_be_visible()
        row = page.locator("li", has_text="The bell frame")
        row.get_by_role("button", name="Remove The bell frame for good").click()
        row.get_by_role("button", name="Keep").click()
        row.get_by_role("button", name="Remove The bell frame for good").click()
        row.get_by_role("button", name="Yes, for good").click()
        expect(page.get_by_text("“The bell frame” is gone for good.")).to_be_visible()

    def test_a_show_is_found_by_its_words_copied_and_put_into_a_folder(self) -> None:
        page = self.page
        show = self.copy_of_demo()
        self.put(show, "Weathercock")
        page.get_by_label("Find shows").fill("weathercock")
        page.get_by_label("Find shows").press("Enter")
        expect(page.locator(".shows li")).to_have_count(1)
        page.get_by_label("More for Weathercock").click()
        page.get_by_role("button", name="Duplicate").click()
        expect(page.get_by_role("link", name="Weathercock, copy", exact=True)).to_be_focused()
        page.get_by_label("More for Weathercock, copy").click()
        page.get_by_label("Folder of Weathercock, copy").fill("Roofs")
        page.get_by_label("Folder of Weathercock, copy").press("Enter")
        expect(page.get_by_role("region", name="Roofs").locator("li")).to_have_count(1)
        page.get_by_label("Order").select_option("By title")
        page.wait_for_url("**sort=title*")
        page.get_by_label("More for Weathercock, copy").click()
        page.keyboard.press("Escape")
        expect(page.get_by_label("Folder of Weathercock, copy")).to_be_hidden()

    def put(self, show: str, title: str) -> None:
        """Calls a show otherwise."""
        self.program.manage(
            f"from ritornel.web.shows.models import Show; Show.objects.filter(pk={show!r}).update(title={title!r})"
        )

    def test_a_wrong_password_is_told(self) -> None:
        page = self.new_page(self.new_context())
        page.goto(self.base + "/sign-in/")
        page.fill("[name=username]", "winder")
        page.fill("[name=password]", "wrong")
        page.get_by_role("button", name="Sign in").click()
        expect(page.get_by_role("alert")).to_have_text("This name and password do not belong together.")


class ChecksTest(BrowserTest):
    def test_a_finding_is_fixed_and_the_fix_taken_back_where_it_is_released(self) -> None:
        show = self.copy_of_demo()
        self.page.goto(f"{self.base}/shows/{show}/release")
        finding = self.page.locator('[data-finding="reading:thx-s"]')
        expect(finding).to_contain_text("reading takes about 12.5 s (estimate)")
        before = self.score(show)["slides"]["thx-s"]["advance"]
        finding.get_by_role("button", name="Lengthen slide 9").hover()
        expect(finding.get_by_role("status")).to_have_text(
            "Slide 9 lasts 13.3 s instead of 8.0 s. The show lasts 1:28.1 instead of 1:22.8."
        )
        self.page.get_by_role("heading", name="Readiness check").hover()
        expect(finding.get_by_role("status")).to_be_hidden()
        self.assertEqual(self.score(show)["slides"]["thx-s"]["advance"], before)
        finding.get_by_role("button", name="Lengthen slide 9").click()
        expect(finding).to_have_count(0)
        self.assertNotEqual(self.score(show)["slides"]["thx-s"]["advance"], before)
        self.page.get_by_role("button", name="Undo").click()
        expect(finding).to_have_count(1)
        self.assertEqual(self.score(show)["slides"]["thx-s"]["advance"], before)
        finding.get_by_role("button", name="See slide 9 at").click()
        seen = self.page.frame_locator(".seen iframe").locator(".house[data-ready]")
        expect(seen).to_have_attribute("data-slide", "night-s")
        self.page.get_by_role("button", name="As a stranger sees it").click()
        finding.get_by_role("link").click()
        self.page.wait_for_url("**slide=thx-s")

    def test_a_finding_is_set_aside_with_a_reason_in_place_and_brought_back(self) -> None:
        show = self.copy_of_demo()
        self.page.goto(f"{self.base}/shows/{show}/release")
        finding = self.page.locator('[data-finding="reading:thx-s"]')
        finding.get_by_role("button", name="Set aside").click()
        self.page.keyboard.press("Escape")
        finding.get_by_role("button", name="Set aside").click()
        self.page.keyboard.type("We read it aloud")
        self.page.keyboard.press("Enter")
        aside = self.page.locator('[data-severity="aside"]')
        expect(aside).to_contain_text("“We read it aloud”")
        expect(finding).to_have_count(1)
        aside.get_by_role("button", name="Bring it back").click()
        expect(aside).to_have_count(0)
        expect(finding.get_by_role("button", name="Lengthen slide 9")).to_be_visible()

    def test_findings_of_one_kind_stand_together_with_one_fix_for_all(self) -> None:
        show = self.copy_of_demo()
        self.page.goto(f"{self.base}/shows/{show}/")
        for slide in ("men-s", "bell-s"):
            advance = {"rule": "after", "after_ms": 3500}
            self.edit(show, {"do": "change slides", "slide_ids": [slide], "changes": {"advance": advance}})
        self.page.goto(f"{self.base}/shows/{show}/release")
        group = self.page.locator(".finding-group", has_text="Too short to be read")
        expect(group.locator("summary")).to_have_text("Too short to be read · 3")
        expect(group.locator(".finding")).to_have_count(3)
        group.get_by_role("button", name="Fix all 3").click()
        expect(group).to_have_count(0)
        self.page.get_by_role("button", name="Undo").click()
        expect(group.locator(".finding")).to_have_count(3)
