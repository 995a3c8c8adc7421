"""What those who listen are told: what is picked and where, what an edit did, what a show says."""

from playwright.sync_api import expect

from tests.browser.test_stage import StageTest


class AnnouncedTest(StageTest):
    def test_picking_moving_sizing_timing_removing_and_undoing_say_what_happened(self) -> None:
        show = self.compose("esc-s")
        said = self.page.locator("#announced")
        self.pick("ticks")
        expect(said).to_have_text("Ticks, text, 2 of 8")
        self.page.keyboard.press("ArrowRight")
        self.page.keyboard.press("Shift+ArrowDown")
        expect(said).to_have_text("Ticks at 85, 570")
        self.page.get_by_role("tab", name="Place").click()
        self.page.get_by_label("Width", exact=True).fill("400")
        self.page.get_by_label("Width", exact=True).press("Enter")
        expect(said).to_have_text("Ticks 400 wide, 60 high")
        self.page.locator(".path [data-level=slide]").click()
        self.page.locator('.order [data-build="b-ticks"] .who').click()
        expect(said).to_contain_text("Ticks, rise, ")
        expect(said).to_contain_text("build 5 of 7")
        lasts = self.page.get_by_label("Ticks: lasts")
        lasts.fill("2")
        lasts.press("Enter")
        expect(said).to_contain_text("Ticks, rise, ")
        self.until(lambda: self.builds_of(show)["b-ticks"] == 2000)
        self.page.locator("#undo").click()
        expect(self.page.get_by_role("status").filter(has_text="Undone: ")).to_be_visible()
        self.pick("pin")
        self.page.keyboard.press("Delete")
        expect(said).to_contain_text("Remove Pin")

    def test_the_slide_is_a_list_with_names_places_and_states_that_picks(self) -> None:
        show = self.compose("esc-s")
        rows = self.page.get_by_role("list", name="Objects on the slide").get_by_role("button")
        expect(rows).to_have_count(8)
        names = [item["name"] for item in reversed(self.slide(show, "esc-s")["objects"])]
        told = rows.all_text_contents()
        self.assertEqual([words.split(", ")[0] for words in told], names)
        ticks = rows.filter(has_text="Ticks, text")
        expect(ticks).to_contain_text("at 84, 560")
        expect(ticks).to_contain_text("comes on cue 2")
        ticks.focus()
        self.page.keyboard.press("Enter")
        expect(self.page.locator("#announced")).to_have_text("Ticks, text, 2 of 8")
        expect(ticks).to_have_attribute("aria-pressed", "true")
        self.add(
            show,
            {
                "do": "change objects",
                "slide_id": "esc-s",
                "object_ids": ["ticks"],
                "changes": {"locked": True, "aside": True},
            },
        )
        expect(ticks).to_contain_text("locked, put aside")

    def test_a_show_that_plays_says_each_slide_and_then_what_each_beat_brings(self) -> None:
        show = self.copy_of_demo()
        given = self.page.request.get(f"{self.base}/shows/{show}/performance.json").json()
        at = next(index for index, slide in enumerate(given["slides"]) if slide["id"] == "two-s")
        there, *new = given["slides"][at]["beat_words"]
        self.assertTrue(all(new[:2]), "each press brings words")
        self.page.goto(f"{self.base}/shows/{show}/play?from=two-s&runs=on+cue")
        said = self.page.locator("[data-words]")
        expect(said).to_have_text(f"Slide {at + 1}. {there}")
        for words in new[:2]:
            self.page.keyboard.press("ArrowRight")
            expect(said).to_have_text(words)
        self.page.keyboard.press("ArrowLeft")
        expect(said).to_contain_text(f"Slide {at + 1}. {there}")
        expect(said).not_to_contain_text(new[1])

    def builds_of(self, show: str) -> dict[str, int]:
        return {build["id"]: build["lasts_ms"] for build in self.slide(show, "esc-s")["order"]}

    def test_a_slide_that_opens_says_its_number_its_name_and_what_is_on_it(self) -> None:
        self.compose("esc-s")
        self.page.keyboard.press("PageDown")
        expect(self.page.locator("#announced")).to_have_text("Slide 4 Two wheels, two jobs, 3 objects, 3 waits")
