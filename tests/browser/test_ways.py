"""How a show runs: asked once, said everywhere."""

from playwright.sync_api import expect

from tests.browser.base import BrowserTest


class WaysTest(BrowserTest):
    def begin(self, answer: str) -> str:
        self.page.goto(self.base + "/shows/start")
        self.page.get_by_label("Title of the new show").fill("The bell frame")
        self.page.get_by_role("button", name=answer).click()
        self.page.wait_for_selector(".theatre [data-object=title]")
        return self.page.url.split("/shows/")[1].split("/")[0]

    def advances(self, show: str) -> list[str]:
        score = self.score(show)
        return [score["slides"][id]["advance"]["rule"] for id in score["order"]]

    def add_slide(self) -> None:
        self.page.get_by_role("button", name="Slide", exact=True).first.click()
        self.page.locator("#tray").get_by_role("button", name="Blank").click()

    def test_a_spoken_show_waits_at_every_slide_and_new_slides_are_on_cue(self) -> None:
        show = self.begin("A spoken show")
        expect(self.page.locator("#play")).to_have_text("Play from here, on cue")
        self.add_slide()
        self.until(lambda: self.advances(show) == ["cue", "cue"])
        self.at_show()
        self.page.locator(".panel").get_by_role("button", name="A self-running show").click()
        expect(self.page.locator("#play")).to_have_text("Play from here, self-running")
        self.add_slide()
        self.until(lambda: self.advances(show) == ["cue", "cue", "after"])

    def test_a_self_running_show_goes_on_by_itself(self) -> None:
        show = self.begin("A self-running show")
        self.assertEqual(self.advances(show), ["after"])
        expect(self.page.locator("#play")).to_have_text("Play from here, self-running")

    def test_the_score_shows_what_happens_as_the_show_runs_and_the_other_way_on_request(self) -> None:
        show = self.compose("noon-s")
        way = self.page.locator("#score-names .way")
        expect(way).to_have_text("self-running")
        waits = self.page.locator("#score-scroll [data-waits]")
        expect(waits).to_have_count(0)
        way.click()
        expect(way).to_have_text("shown on cue")
        expect(self.page.locator('#score-scroll [data-waits="noon-s"]').first).to_be_attached()
        # It is only looked at: the show still runs as it did.
        self.assertEqual(self.score(show)["settings"]["runs"], "self-running")
        self.edit(show, {"do": "change show", "changes": {"runs": "on cue"}})
        self.page.goto(f"{self.base}/shows/{show}/?slide=noon-s")
        expect(way).to_have_text("on cue")
        expect(self.page.locator('#score-scroll [data-waits="noon-s"]').first).to_be_attached()
        self.at_passage("Goes on")
        self.page.get_by_label("Goes on by itself, also live").check()
        expect(self.page.locator('#score-scroll [data-waits="noon-s"]')).to_have_count(0)

    def test_play_says_what_it_does_and_keeps_what_was_chosen_for_the_show(self) -> None:
        show = self.compose("esc-s")
        expect(self.page.locator("#play")).to_have_text("Play from here, self-running")
        self.page.get_by_label("Play another way").click()
        self.page.get_by_role("button", name="Play from the start, on cue").click()
        self.page.wait_for_selector('.house[data-ready][data-slide="noon-s"]')
        self.page.keyboard.press("Escape")
        self.page.wait_for_url(f"**/shows/{show}/?slide=esc-s")
        expect(self.page.locator("#play")).to_have_text("Play from the start, on cue")
        self.page.goto(f"{self.base}/shows/{self.copy_of_demo()}/?slide=esc-s")
        expect(self.page.locator("#play")).to_have_text("Play from here, self-running")

    def test_a_slide_with_a_time_waits_on_cue_unless_it_goes_on_also_live(self) -> None:
        show = self.copy_of_demo()
        self.edit(
            show,
            {
                "do": "change slides",
                "slide_ids": ["noon-s"],
                "changes": {"advance": {"rule": "after", "after_ms": 100}},
            },
        )
        self.page.goto(f"{self.base}/shows/{show}/play?from=start&mode=on+cue")
        self.page.wait_for_selector('.house[data-slide="noon-s"][data-phase="wait"]')
        self.edit(show, {"do": "change slides", "slide_ids": ["noon-s"], "changes": {"also_live": True}})
        self.page.goto(f"{self.base}/shows/{show}/play?from=start&mode=on+cue")
        self.page.wait_for_selector('.house[data-slide="who-s"]')
        self.edit(show, {"do": "change show", "changes": {"runs": "on cue"}})
        self.page.goto(f"{self.base}/shows/{show}/")
        expect(self.page.locator('[data-goes-on="noon-s"]')).to_have_count(1)
        expect(self.page.locator('[data-waits="noon-s"]')).to_have_count(0)
        expect(self.page.locator('[data-goes-on="who-s"]')).to_have_count(0)

    def test_a_timing_is_followed_or_written_and_the_score_says_which(self) -> None:
        show = self.copy_of_demo()
        self.edit(
            show,
            {
                "do": "change slides",
                "slide_ids": ["noon-s"],
                "changes": {"advance": {"rule": "cue", "cue_id": "noon-out", "hold_ms": None}},
            },
        )
        page = self.page
        token = page.locator("meta[name=csrf]").get_attribute("content") or ""
        events = [
            {"event": "arrived", "slide_id": "noon-s", "at_ms": 0},
            {"event": "cued", "cue_id": "noon-out", "at_ms": 9000, "waited_ms": 4300},
            {"event": "arrived", "slide_id": "who-s", "at_ms": 9000},
        ]
        take = {"events": events, "ended_ms": 12_000}
        page.request.post(f"{self.base}/shows/{show}/takes", data=take, headers={"X-CSRFToken": token})
        page.goto(f"{self.base}/shows/{show}/rehearse")
        page.get_by_text("Use this timing").click()
        page.get_by_role("button", name="As the take this show follows").click()
        expect(page.get_by_text("The waits follow take 1.")).to_be_visible()
        wait = self.score(show)["slides"]["noon-s"]["schedule"]["last_wait"]
        self.assertEqual((wait["hold_ms"], wait["source"]), (4300, "take"))
        page.goto(f"{self.base}/shows/{show}/?slide=noon-s")
        expect(page.locator("#score-names")).to_contain_text("follow take 1")
        expect(page.locator(".panel .passage").last).to_contain_text("take 1")
        page.goto(f"{self.base}/shows/{show}/rehearse")
        page.get_by_role("button", name="Follow none").click()
        expect(page.get_by_text("The waits follow take 1.")).to_have_count(0)
        page.get_by_text("Use this timing").click()
        page.get_by_role("button", name="As the show's own holds").click()
        self.until(lambda: self.score(show)["slides"]["noon-s"]["schedule"]["last_wait"]["source"] == "own hold")

    def test_takes_that_were_compared_are_followed(self) -> None:
        show = self.copy_of_demo()
        self.edit(
            show,
            {
                "do": "change slides",
                "slide_ids": ["noon-s"],
                "changes": {"advance": {"rule": "cue", "cue_id": "noon-out", "hold_ms": None}},
            },
        )
        page = self.page
        token = page.locator("meta[name=csrf]").get_attribute("content") or ""
        for waited_ms in (3000, 4600):
            events = [
                {"event": "arrived", "slide_id": "noon-s", "at_ms": 0},
                {"event": "cued", "cue_id": "noon-out", "at_ms": 9000, "waited_ms": waited_ms},
                {"event": "arrived", "slide_id": "who-s", "at_ms": 9000},
            ]
            page.request.post(
                f"{self.base}/shows/{show}/takes",
                data={"events": events, "ended_ms": 12_000},
                headers={"X-CSRFToken": token},
            )
        page.goto(f"{self.base}/shows/{show}/rehearse")
        page.get_by_role("button", name="Compare the takes").click()
        page.get_by_label("How the show takes it").select_option("as the take this show follows")
        expect(page.get_by_label("Target length")).to_have_count(0)
        page.get_by_role("button", name="Take this timing for all slides").click()
        expect(page.get_by_text("The show follows the median of 2 takes")).to_be_visible()
        wait = self.score(show)["slides"]["noon-s"]["schedule"]["last_wait"]
        self.assertEqual((wait["hold_ms"], wait["source"]), (3800, "take"))
