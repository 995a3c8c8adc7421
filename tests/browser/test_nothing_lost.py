"""What somebody in a hurry has typed or pulled is kept: through a server that goes away, a refused edit, and a press
that comes early.
"""

import contextlib
import random
import re
from typing import Any

from playwright.sync_api import Error, Locator, Page, Route, expect

from tests.browser.test_stage import StageTest

OPEN_DIALOG = """() => {
  const dialog = Object.assign(document.createElement("dialog"), { id: "over" });
  document.body.append(dialog);
  dialog.showModal();
  document.activeElement.blur();
}"""


class OutageTest(StageTest):
    expected_complaints = ("Failed to load resource", "ERR_", "stream")

    def setUp(self) -> None:
        super().setUp()
        self.addCleanup(self.answering)

    def answering(self) -> None:
        """The tests after this one want a server."""
        if self.program.server.poll() is not None:
            self.program.server = self.program.start_server()

    def test_notes_typed_while_the_server_is_away_are_kept_in_their_field_and_sent_when_it_is_back(self) -> None:
        show = self.compose("esc-s")
        foot = self.page.locator("#kept")
        expect(foot).to_have_text("Saved")
        revision = self.score(show)["revision"]
        self.program.kill_server()
        self.at_tab("Notes")
        notes = self.page.get_by_label("Notes", exact=True)
        notes.fill("Say it slowly.")
        notes.press("Tab")
        expect(foot).to_have_text("Not saved yet: no answer. It is kept here and sent again by itself.")
        expect(notes).to_have_value("Say it slowly.")
        self.assertNotIn("nothing was changed", self.page.locator("body").inner_text().lower())
        self.program.server = self.program.start_server()
        expect(foot).to_have_text("Saved")
        self.assertEqual(
            (self.slide(show, "esc-s")["notes"], self.score(show)["revision"]), ("Say it slowly.", revision + 1)
        )

    def test_an_edit_whose_answer_was_lost_is_made_once(self) -> None:
        show = self.compose("esc-s")
        revision = self.score(show)["revision"]
        lost: list[int] = []

        def lose(route: Route) -> None:
            """The server makes the edit; its answer never comes."""
            if not lost:
                lost.append(route.fetch().status)
                route.abort()
            else:
                route.continue_()

        self.page.route("**/edit", lose)
        self.at_tab("Slide")
        name = self.page.get_by_label("Name of the slide")
        name.fill("Tick and tock")
        name.press("Tab")
        self.until(lambda: lost)
        expect(self.page.locator("#kept")).to_have_text("Saved")
        expect(name).to_have_value("Tick and tock")
        self.assertEqual(
            (lost, self.score(show)["slides"]["esc-s"]["name"], self.score(show)["revision"]),
            ([200], "Tick and tock", revision + 1),
        )
        self.page.locator("#undo").click()
        self.until(lambda: self.score(show)["slides"]["esc-s"]["name"] == "The escapement")

    def test_a_page_with_something_unsaved_asks_before_it_is_left(self) -> None:
        self.page = self.new_page(self.context)
        self.compose("esc-s")
        self.page.route("**/edit", lambda route: route.abort())
        self.at_tab("Slide")
        self.page.get_by_label("Name of the slide").fill("Tick")
        self.page.keyboard.press("Tab")
        expect(self.page.locator("#kept")).to_contain_text("Not saved yet")
        asked: list[str] = []
        self.page.on("dialog", lambda dialog: (asked.append(dialog.type), dialog.accept()))
        self.page.reload()
        self.assertEqual(asked, ["beforeunload"])


class KeptTest(StageTest):
    """What was not answered is kept on the device, and sent when the show is opened there again."""

    expected_complaints = ("Failed to load resource", "ERR_", "stream")

    def name(self, page: Page) -> Locator:
        return page.get_by_label("Name of the slide")

    def rename(self, page: Page, name: str) -> None:
        self.name(page).fill(name)
        self.name(page).press("Tab")

    def opened(self, show: str) -> Page:
        """A window of the same person on the same device."""
        page = self.new_page(self.context)
        page.goto(f"{self.base}/shows/{show}/?slide=esc-s")
        page.wait_for_selector(".score .build")
        page.locator('.path [data-level="slide"]').click()
        page.get_by_role("tab", name="Slide", exact=True).click()
        return page

    def test_a_window_closed_while_the_line_is_down_loses_nothing(self) -> None:
        show = self.copy_of_demo()
        page = self.opened(show)
        page.route("**/edit", lambda route: route.abort())
        self.rename(page, "Tick and tock")
        expect(page.locator("#kept")).to_have_text(
            "Not saved yet: no answer. It is kept here and sent again by itself."
        )
        page.get_by_role("tab", name="Notes").click()
        page.get_by_label("Notes", exact=True).fill("Say it slowly.")
        page.get_by_label("Notes", exact=True).press("Tab")
        revision = self.score(show)["revision"]
        page.close()
        again = self.opened(show)
        expect(again.locator(".toast")).to_contain_text("2 changes from before are saved now.")
        expect(self.name(again)).to_have_value("Tick and tock")
        self.assertEqual(self.slide(show, "esc-s")["notes"], "Say it slowly.")
        again.reload()
        again.wait_for_selector(".score .build")
        self.assertEqual(self.score(show)["revision"], revision + 2)

    def test_what_another_person_kept_on_this_device_is_not_sent(self) -> None:
        show = self.copy_of_demo()
        page = self.opened(show)
        page.evaluate(
            """async (show) => {
              const { keepEdit, store, answered } = await import(document.querySelector('script[src*="compose"]').src
                .replace("pages/compose.js", "editor/kept-edits.js"));
              const edit = { do: "change show", changes: { title: "Not mine" } };
              keepEdit({ show, person: -1, where: "edit", body: { revision: 0, edit } });
              const mine = { do: "change show", changes: { title: "Mine" } };
              keepEdit({ show, person: JSON.parse(document.getElementById("start").textContent).me, where: "edit",
                body: { revision: 0, edit: mine } });
              await answered((await store("readonly")).count());
            }""",
            show,
        )
        page.close()
        again = self.opened(show)
        expect(again.get_by_label("Title of the show")).to_have_value("Mine")

    def test_a_hundred_cuts_at_random_lose_nothing_and_make_nothing_twice(self) -> None:
        show = self.copy_of_demo()
        first = self.score(show)["revision"]
        chance = random.Random(7)

        def cut(route: Route) -> None:
            """The line is cut before the edit arrives, or before its answer does, or not at all."""
            how = chance.choice(("before", "after", "after", "not"))
            # The window may be gone by then.
            with contextlib.suppress(Error):
                if how == "not":
                    route.continue_()
                    return
                if how == "after":
                    route.fetch()
                route.abort()

        page = self.opened(show)
        page.route("**/edit", cut)
        for number in range(100):
            self.rename(page, f"Name {number}")
            if chance.random() < 0.06:
                page.close()
                page = self.opened(show)
                page.route("**/edit", cut)
            else:
                page.evaluate("dispatchEvent(new Event('online'))")
        page.unroute("**/edit")
        page.evaluate("dispatchEvent(new Event('online'))")
        expect(page.locator("#kept")).to_have_text("Saved")
        self.until(lambda: self.score(show)["slides"]["esc-s"]["name"] == "Name 99")
        self.assertEqual(self.score(show)["revision"], first + 100)


class RefusedTest(StageTest):
    expected_complaints = ("the server responded with a status of 400",)

    def text(self, show: str) -> list[str]:
        item = self.slide(show, "esc-s")["objects"][-1]
        return ["".join(run["text"] for run in paragraph["runs"]) for paragraph in item.get("paragraphs", [])]

    def write(self, words: str) -> None:
        self.page.locator('[data-add="text"]').click()
        expect(self.page.locator(".words-field")).to_be_focused()
        self.page.keyboard.type(words)
        self.page.keyboard.press("Control+a")
        self.page.get_by_role("button", name="Link", exact=True).click()

    def test_a_link_that_is_no_address_is_told_at_its_field_and_the_words_stay(self) -> None:
        show = self.compose("esc-s")
        self.write("Rules of the plot")
        link = self.page.get_by_label("Link", exact=True).last
        link.fill("plot rules page")
        link.press("Enter")
        expect(self.page.get_by_text("A link leads to an address, such as")).to_be_visible()
        expect(self.page.locator(".words-field")).to_have_text("Rules of the plot")
        link.fill("plot.orlmere.example")
        link.press("Enter")
        self.page.keyboard.press("Escape")
        self.until(lambda: self.text(show) == ["Rules of the plot"])
        self.assertEqual(
            self.slide(show, "esc-s")["objects"][-1]["paragraphs"][0]["runs"][0]["link"], "https://plot.orlmere.example"
        )

    def test_done_confirms_a_link_that_was_typed(self) -> None:
        show = self.compose("esc-s")
        self.write("Our page")
        self.page.get_by_label("Link", exact=True).last.fill("tower.orlmere.example")
        self.page.get_by_role("button", name="Done").click()
        self.until(lambda: self.text(show) == ["Our page"])
        self.assertEqual(
            self.slide(show, "esc-s")["objects"][-1]["paragraphs"][0]["runs"][0]["link"],
            "https://tower.orlmere.example",
        )

    def test_words_that_the_server_refuses_stay_in_their_editor(self) -> None:
        show = self.compose("esc-s")
        self.page.locator('[data-add="text"]').click()
        expect(self.page.locator(".words-field")).to_be_focused()
        self.page.keyboard.type("Wind it daily")
        refusal = {"error": "The text was refused.", "field": "paragraphs"}
        self.page.route("**/edit", lambda route: route.fulfill(status=400, json=refusal))
        self.page.keyboard.press("Escape")
        expect(self.page.get_by_role("alert")).to_contain_text("The text was refused.")
        expect(self.page.locator(".words-field")).to_have_text("Wind it daily")
        self.page.unroute("**/edit")
        self.page.locator(".words-field").focus()
        self.page.keyboard.press("Escape")
        self.until(lambda: self.text(show) == ["Wind it daily"])


class HurryTest(StageTest):
    def picture(self, show: str) -> tuple[str, dict[str, Any]]:
        """A slide with a picture, and the picture."""
        found = (
            (key, item)
            for key in self.score(show)["order"]
            for item in self.slide(show, key)["objects"]
            if item["kind"] == "picture"
        )
        return next(found)

    def test_each_paragraph_in_turn_is_not_remembered_for_a_picture(self) -> None:
        show = self.compose("esc-s")
        self.page.locator('.theatre [data-object="esc-t"] text').first.click()
        self.page.get_by_label("What moves", exact=True).select_option("*")
        self.page.keyboard.press("Escape")
        slide, item = self.picture(show)
        before = len(self.slide(show, slide)["order"])
        self.page.locator(f'.score [data-slide="{slide}"]').first.click()
        self.page.locator(f'.theatre [data-object="{item["id"]}"] image').first.click()
        self.page.get_by_role("group", name="Effect").get_by_role("button", name="Rise").click()
        self.until(lambda: len(self.slide(show, slide)["order"]) == before + 1)

    def test_a_press_on_another_slide_after_typing_notes_goes_there(self) -> None:
        show = self.compose("esc-s")
        self.at_tab("Notes")
        self.page.get_by_label("Notes", exact=True).fill("Tick.")
        self.page.locator('.score [data-slide="bell-s"]').first.click()
        expect(self.opened()).to_contain_text("The bell")
        self.at_tab("Notes")
        self.page.get_by_label("Notes", exact=True).fill("Dong.")
        self.page.keyboard.press("Tab")
        self.until(
            lambda: (self.slide(show, "esc-s")["notes"], self.slide(show, "bell-s")["notes"]) == ("Tick.", "Dong.")
        )

    def test_a_drag_right_after_undo_is_made(self) -> None:
        show = self.compose("esc-s")
        self.squares(show, (200, 300), (500, 300))
        self.add(show, {"do": "move objects", "slide_id": "esc-s", "object_ids": ["s0"], "dx": 40, "dy": 0})
        self.pick("s0")
        self.page.keyboard.press("Control+z")
        self.drag('.theatre [data-object="s1"] path', 60, 30)
        self.until(lambda: (o := self.objects(show)) and o["s0"]["box"]["x"] == 200 and o["s1"]["box"]["x"] > 540)

    def test_in_the_overview_keys_act_on_slides_and_never_on_what_is_hidden(self) -> None:
        show = self.compose("esc-s")
        before = self.slide(show, "esc-s")["objects"]
        self.page.get_by_role("button", name="Overview").click()
        expect(self.page.locator(".ov-bar")).to_have_count(9)
        self.page.locator('.ov-bar[data-slide="thx-s"]').click()
        self.page.keyboard.press("Control+a")
        expect(self.page.get_by_role("heading", name="9 slides")).to_be_visible()
        self.page.locator('.ov-bar[data-slide="thx-s"]').click()
        expect(self.page.get_by_role("heading", name="9 slides")).to_be_hidden()
        self.page.keyboard.press("Delete")
        self.until(lambda: "thx-s" not in self.score(show)["order"])
        self.assertEqual((len(self.score(show)["order"]), self.slide(show, "esc-s")["objects"]), (8, before))

    def test_behind_a_dialog_no_key_removes_what_is_picked(self) -> None:
        show = self.compose("esc-s")
        self.squares(show, (200, 300))
        self.pick("s0")
        self.page.evaluate(OPEN_DIALOG)
        self.page.keyboard.press("Delete")
        self.page.keyboard.press("Escape")
        expect(self.page.locator("#over")).to_be_hidden()
        expect(self.page.locator('.theatre [data-object="s0"]')).to_be_visible()
        self.page.keyboard.press("Delete")
        self.until(lambda: "s0" not in self.objects(show))

    def test_a_transition_for_several_slides_changes_only_what_was_chosen(self) -> None:
        show = self.compose("esc-s")
        self.add(
            show,
            {
                "do": "change slides",
                "slide_ids": ["esc-s"],
                "changes": {"transition": {"name": "wipe", "lasts_ms": 1700, "settings": {}}},
            },
        )
        self.add(
            show,
            {
                "do": "change slides",
                "slide_ids": ["two-s"],
                "changes": {"transition": {"name": "through black", "lasts_ms": 900}},
            },
            seen=False,
        )
        self.page.get_by_role("button", name="Overview").click()
        self.page.locator('.ov-bar[data-slide="esc-s"]').click()
        self.page.locator('.ov-bar[data-slide="two-s"]').click(modifiers=["Shift"])
        self.page.get_by_label("Transition", exact=True).select_option("cover")
        kept = [1700, 900]
        told = self.until(
            lambda: (
                (t := [self.slide(show, key)["transition"] for key in ("esc-s", "two-s")])
                and t[0]["name"] == "cover"
                and t
            )
        )
        self.assertEqual([entry["lasts_ms"] for entry in told], kept)


class FaultTest(StageTest):
    expected_complaints = ("a gear came off",)

    def test_an_exception_in_a_pages_script_is_told_and_comes_into_the_servers_log(self) -> None:
        self.compose("esc-s")
        with self.page.expect_response("**/faults") as answer:
            self.page.evaluate("setTimeout(() => { throw new Error('a gear came off'); }); null")
        self.assertEqual(answer.value.status, 200)
        expect(self.page.get_by_role("alert")).to_contain_text(
            re.compile("Something went wrong on this page. What is saved is safe")
        )
        self.program.log.flush()
        self.assertIn("a gear came off", self.logged())

    def logged(self) -> Any:
        return open(self.program.log.name).read()
