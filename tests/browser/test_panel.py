"""The panel of Compose: its path, its width, and what it does for all slides at once."""

import re
from typing import Any

from playwright.sync_api import expect

from tests.browser.test_stage import StageTest


class PanelTest(StageTest):
    def test_each_step_of_the_path_opens_its_own_panel(self) -> None:
        self.compose("esc-s")
        path = self.page.locator(".path")
        expect(path).to_contain_text("no object picked")
        expect(path.locator('[data-level="slide"]')).to_have_text("3 The escapement")
        self.at_show()
        expect(self.page.get_by_role("group", name="How the show runs")).to_be_visible()
        path.locator('[data-level="slide"]').click()
        expect(self.page.get_by_role("list", name="Running order")).to_be_visible()
        self.page.locator('.order [data-build="b-pallets"] .who').click()
        expect(self.page.get_by_role("list", name="Running order")).to_be_visible()
        path.locator('[data-level="object"]').click()
        expect(self.page.get_by_label("Name of the object")).to_have_value("Pallets")
        expect(self.page.get_by_role("group", name="Effect")).to_be_visible()

    def test_at_1280_by_800_ten_rows_of_the_order_are_seen(self) -> None:
        self.compose("esc-s")
        seen = self.page.evaluate(
            """() => {
              const list = document.querySelector(".order");
              const box = list.getBoundingClientRect();
              const whole = (node) => { const r = node.getBoundingClientRect(); return r.top >= box.top - 1 && r.bottom <= box.bottom + 1; };
              list.scrollTo(0, 0);
              return [...list.children].filter(whole).length + document.querySelectorAll(".passage").length;
            }"""
        )
        self.assertGreaterEqual(seen, 10)

    def test_the_width_of_the_panel_is_pulled_and_remembered(self) -> None:
        self.compose("esc-s")
        handle = self.page.get_by_role("separator", name="Width of the panel")
        box = handle.bounding_box()
        assert box
        self.page.mouse.move(box["x"] + 4, 300)
        self.page.mouse.down()
        self.page.mouse.move(460, 300, steps=3)
        self.page.mouse.up()
        self.until(lambda: round((self.page.locator("#panel").bounding_box() or {})["width"]) == 460)
        self.page.reload()
        self.until(lambda: round((self.page.locator("#panel").bounding_box() or {})["width"]) == 460)
        handle.focus()
        self.page.keyboard.press("ArrowLeft")
        self.until(lambda: (self.page.locator("#panel").bounding_box() or {})["width"] < 460)

    def test_one_transition_is_given_to_all_slides_and_taken_back_by_one_undo(self) -> None:
        show = self.compose("two-s")
        before = {id: line["transition"] for id, line in self.score(show)["slides"].items()}
        self.at_passage("Transition")
        self.page.get_by_role("group", name="Transition").get_by_role("button", name="Push").click()
        self.until(lambda: self.slide(show, "two-s")["transition"]["name"] == "push")
        self.page.get_by_role("button", name="To all slides").click()
        own = self.slide(show, "two-s")["transition"]
        self.until(lambda: all(line["transition"] == own for line in self.score(show)["slides"].values()))
        self.page.locator("#undo").click()
        self.page.locator("#undo").click()
        self.until(lambda: {id: line["transition"] for id, line in self.score(show)["slides"].items()} == before)

    def test_what_is_written_names_its_text_and_its_slide(self) -> None:
        show = self.compose("esc-s")
        self.page.locator('[data-tray="slide"]').click()
        self.page.locator('[data-layout="heading and text"]').click()
        self.page.locator('[data-place="heading"]').click()
        self.page.keyboard.type("How it keeps time")
        self.page.keyboard.press("Escape")
        expect(self.opened()).to_contain_text("How it keeps time")
        expect(self.page.get_by_label("Name of the object")).to_have_value("How it keeps time")
        self.assertIn("How it keeps time", [line["name"] for line in self.score(show)["slides"].values()])

    def test_a_build_is_added_from_the_order_to_an_object_chosen_by_its_name(self) -> None:
        show = self.compose("esc-s")
        before = len(self.builds_of(show))
        self.page.locator(".order-foot summary").click()
        self.page.locator(".order-foot").get_by_role("button", name="Pallets").click()
        self.page.get_by_role("button", name="Another").or_(
            self.page.get_by_role("group", name="Effect")
        ).first.wait_for()
        self.page.get_by_role("group", name="Effect").get_by_role("button", name="Fade").click()
        self.until(lambda: len(self.builds_of(show)) == before + 1)

    def builds_of(self, show: str) -> list[dict[str, Any]]:
        return self.slide(show, "esc-s")["order"]  # type: ignore[no-any-return]

    def test_a_finger_that_rests_lifts_a_build_and_one_that_moves_at_once_scrolls(self) -> None:
        show = self.compose("esc-s")
        line = self.context.new_cdp_session(self.page)
        row = self.page.locator('.order [data-build="b-axle"]').bounding_box()
        goal = self.page.locator('.order [data-build="b-pallets"]').bounding_box()
        assert row and goal
        before = self.builds_of(show)

        def touch(kind: str, *at: float) -> None:
            points = [{"x": at[0], "y": at[1]}] if at else []
            line.send("Input.dispatchTouchEvent", {"type": kind, "touchPoints": points})

        touch("touchStart", row["x"] + 150, row["y"] + 14)
        self.page.locator(".order .dragged").wait_for()
        touch("touchMove", goal["x"] + 150, goal["y"] + 10)
        touch("touchMove", goal["x"] + 150, goal["y"] + 24)
        expect(self.page.locator(".order-tag")).to_have_text("together with Pallets")
        touch("touchEnd")
        self.until(lambda: self.builds_of(show) != before)
        self.assertEqual(self.builds_of(show)[2]["id"], "b-axle")
        touch("touchStart", row["x"] + 150, row["y"] + 60)
        touch("touchMove", row["x"] + 150, row["y"] + 30)
        touch("touchEnd")
        expect(self.page.locator(".order-tag")).to_have_count(0)

    def test_the_show_has_few_tabs_and_sets_what_new_builds_are_like(self) -> None:
        show = self.compose("esc-s")
        self.at_show()
        self.page.get_by_role("tab", name="Defaults").click()
        self.page.get_by_label("Default effect").select_option("enters fade")
        self.until(lambda: self.score(show)["settings"]["habits"]["effect"] == "enters fade")
        lasts = self.page.get_by_label("Builds last")
        lasts.fill("1.5")
        lasts.press("Enter")
        self.until(lambda: self.score(show)["settings"]["habits"]["lasts_ms"] == 1500)
        self.page.get_by_role("button", name="As each effect does by itself").click()
        self.until(lambda: self.score(show)["settings"]["habits"]["lasts_ms"] is None)
        self.page.get_by_role("tab", name="Frame and footer").click()
        footer = self.page.get_by_label("Footer")
        footer.fill("Orlmere, 1712")
        footer.press("Enter")
        self.until(lambda: self.score(show)["settings"]["furniture"]["footer"] == "Orlmere, 1712")

    def test_a_press_on_the_score_opens_the_transition_a_wait_the_notes_and_the_end(self) -> None:
        self.compose("noon-s")
        score = self.page.locator(".score")
        score.locator('[data-pick="transition"][data-slide="esc-s"]').first.click(position={"x": 25, "y": 8})
        expect(self.page.get_by_role("group", name="Transition")).to_be_visible()
        expect(self.page.locator(".path")).to_contain_text("3 The escapement")
        score.locator('[data-pick="wait"][data-slide="esc-s"][data-beat="2"]').first.click(position={"x": 6, "y": 8})
        expect(self.page.get_by_label("Hold before beat 2")).to_be_focused()
        score.locator('[data-pick="notes"][data-slide="esc-s"]').first.click()
        expect(self.page.get_by_label("Notes", exact=True)).to_be_visible()
        score.locator('[data-pick="end"]').first.click()
        expect(self.page.get_by_role("group", name="How the show runs")).to_be_visible()

    def test_music_is_put_under_one_slide_or_from_here_to_another_in_one_act(self) -> None:
        show = self.compose("esc-s")
        before = len(self.score(show)["spans"])
        self.page.locator('[data-tray="music"]').click()
        self.page.get_by_label("from this slide to").first.select_option(label="5 What we mended")
        self.until(lambda: len(self.score(show)["spans"]) == before + 1)
        span = self.score(show)["spans"][-1]
        self.assertEqual((span["start"]["slide_id"], span["end"]["slide_id"]), ("esc-s", "men-s"))
        tops = self.page.locator(".score [data-pick=span]").evaluate_all(
            "(spans) => spans.map((span) => span.querySelector('rect').getBoundingClientRect()).map((b) => [b.top, b.bottom])"
        )
        tops.sort()
        self.assertGreaterEqual(tops[1][0], tops[0][1], "stretches that sound at one time stand one under the other")
        self.page.get_by_role("button", name="Under this slide").click()
        self.until(lambda: self.score(show)["spans"][-1]["end"]["slide_id"] == "esc-s")

    def test_the_shelf_begins_anew_at_every_visit_and_offers_what_other_shows_have(self) -> None:
        self.compose("esc-s")
        self.page.locator("#open-shelf").click()
        self.page.get_by_label("Find on the shelf").fill("nothing like it")
        self.page.keyboard.press("Escape")
        self.page.get_by_role("button", name="Close the shelf").click()
        self.page.locator("#open-shelf").click()
        expect(self.page.get_by_label("Find on the shelf")).to_have_value("")
        expect(self.page.locator(".shelf-grid .tile").first).to_be_visible()

    def test_a_key_leads_from_region_to_region_and_a_link_skips_the_bar(self) -> None:
        self.compose("esc-s")
        self.page.keyboard.press("Tab")
        skip = self.page.get_by_role("link", name="Skip to the content")
        expect(skip).to_be_focused()
        skip.press("Enter")
        stage = self.page.locator(".theatre [data-stage]")
        expect(stage).to_be_focused()
        self.page.keyboard.press("F6")
        self.page.wait_for_function("() => document.querySelector('.score').contains(document.activeElement)")
        self.page.keyboard.press("Shift+F6")
        expect(stage).to_be_focused()
        self.page.keyboard.press("Shift+F6")
        self.page.wait_for_function("() => document.querySelector('#panel').contains(document.activeElement)")
        self.page.keyboard.press("?")
        expect(self.page.get_by_role("dialog", name="Keys of Compose")).to_be_visible()

    def test_the_sketches_of_layouts_show_their_places_and_the_dialog_of_keys_can_be_read(self) -> None:
        self.compose("esc-s")
        self.page.locator('[data-tray="slide"]').click()
        self.page.locator('.tray [data-layout="two columns"]').wait_for()
        self.assertNotIn("object", self.page.locator(".tray").inner_text())
        drawn = self.page.locator('.tray [data-layout="two columns"] svg rect').count()
        self.assertGreater(drawn, 3, "a heading and two columns of lines")
        self.page.keyboard.press("Escape")
        self.page.locator("body").press("?")
        close = self.page.get_by_role("dialog").get_by_role("button", name="Close")
        colours = close.evaluate("(node) => [getComputedStyle(node).color, getComputedStyle(node).backgroundColor]")
        self.assertNotEqual(*colours)
        words, ground = ([float(part) for part in re.findall(r"[\d.]+", colour)[:3]] for colour in colours)
        self.assertGreater(abs(sum(words) - sum(ground)), 300, colours)

    def test_while_a_build_is_pulled_the_rows_stand_in_the_new_order_and_escape_puts_them_back(self) -> None:
        show = self.compose("esc-s")
        before = self.builds_of(show)
        seen = """() => [...document.querySelectorAll(".order > li")].filter((row) => row.offsetParent)
          .sort((a, b) => a.getBoundingClientRect().top - b.getBoundingClientRect().top)
          .map((row) => row.dataset.build ?? "wait")"""
        own = self.page.evaluate(seen)
        row, goal = (
            self.page.locator(f'.order [data-build="{name}"]').bounding_box() for name in ("b-axle", "b-pallets")
        )
        assert row and goal
        for let_go in (False, True):
            self.page.mouse.move(row["x"] + 150, row["y"] + 14)
            self.page.mouse.down()
            self.page.mouse.move(goal["x"] + 150, goal["y"] + 10, steps=3)
            self.page.mouse.move(goal["x"] + 150, goal["y"] + 24)
            expect(self.page.locator(".order-tag")).to_have_text("together with Pallets")
            shown = self.until(
                lambda: (now := self.page.evaluate(seen)).index("b-axle") == now.index("b-pallets") + 1 and now
            )
            if not let_go:
                self.page.keyboard.press("Escape")
                self.until(lambda: self.page.evaluate(seen) == own)
                self.assertEqual(self.builds_of(show), before)
            self.page.mouse.up()
        self.until(lambda: self.builds_of(show) != before)
        self.until(lambda: self.page.evaluate(seen) == shown, "the drop does what was shown")


class EscapeTest(StageTest):
    def test_it_closes_what_is_open_from_wherever_the_keyboard_is(self) -> None:
        self.compose("esc-s")
        opened = {
            "#open-overview": "#overview",
            "#open-shelf": "#shelf",
            "#open-themes": "#themes",
            "[data-tray=shape]": "#tray",
        }
        for button, over in opened.items():
            with self.subTest(over):
                self.page.locator(button).click()
                expect(self.page.locator(over)).to_be_visible()
                self.page.locator(".fold-head").focus()
                self.page.keyboard.press("Escape")
                expect(self.page.locator(over)).to_be_hidden()

    def test_an_empty_place_keeps_the_focus_while_an_edit_is_answered(self) -> None:
        self.compose("esc-s")
        self.page.locator('[data-tray="slide"]').click()
        self.page.locator('[data-layout="heading and text"]').click()
        place = self.page.locator('[data-place="words"]')
        place.wait_for()
        before = self.page.locator("#compose").get_attribute("data-revision") or ""
        held: list[Any] = []
        self.page.route("**/edit", lambda route: held.append(route))
        title = self.page.get_by_label("Title of the show")
        title.fill("The clock of Orlmere")
        title.press("Enter")
        self.until(lambda: held)
        place.focus()
        held[0].continue_()
        expect(self.page.locator("#compose")).not_to_have_attribute("data-revision", before)
        expect(place).to_be_focused()

    def test_a_space_typed_before_there_is_a_field_presses_nothing(self) -> None:
        show = self.compose("esc-s")
        self.page.locator('[data-tray="slide"]').click()
        self.page.locator('[data-layout="heading and text"]').click()
        place = self.page.locator('[data-place="words"]')
        place.wait_for()
        held: list[Any] = []
        self.page.route("**/edit", lambda route: route.continue_() if held else held.append(route))
        self.page.evaluate("addEventListener('keyup', (event) => { window.spaceKept = event.defaultPrevented; })")
        place.click()
        self.until(lambda: held)
        self.page.keyboard.press("Space")
        self.assertTrue(self.page.evaluate("window.spaceKept"))
        held[0].continue_()
        expect(self.page.locator(".words-field")).to_be_focused()
        new = self.page.url.split("slide=")[1]
        self.assertEqual(len(self.slide(show, new)["objects"]), 1)


class HintsTest(StageTest):
    """Every control that is not plain by its own words has one sentence, on hover and on focus."""

    maxDiff = None

    LACKING = """async () => {
      const { hintFor } = await import("/static/ritornel/ui/hint-words.js");
      const controls = [...document.querySelectorAll("#panel :is(button, input, select, textarea, summary)")];
      return controls
        .filter((one) => one.offsetParent && !(one.title || hintFor(one)))
        .filter((one) => !/\\p{L}{3}/u.test(one.matches("button, summary") ? one.textContent : ""))
        .map((one) => one.getAttribute("aria-label") ?? one.labels?.[0]?.textContent ?? one.outerHTML);
    }"""

    def test_no_field_and_no_button_without_words_lacks_its_sentence(self) -> None:
        self.compose("esc-s")
        lacking: dict[str, list[str]] = {}

        def look(where: str, has_tabs: bool = True) -> None:
            tabs = self.page.locator("#panel [role=tab]")
            if has_tabs:
                expect(tabs.first).to_be_visible()
            for number in range(tabs.count() if has_tabs else 1):
                if has_tabs:
                    tabs.nth(number).click()
                    expect(tabs.nth(number)).to_have_attribute("aria-selected", "true")
                if found := self.page.evaluate(self.LACKING):
                    lacking[f"{where} {number}"] = found

        self.page.locator(".order .entry .who").first.click()
        look("slide")
        for row in ("Transition", "Goes on"):
            self.at_passage(row)
            expect(self.page.locator("#panel [role=tab]")).to_have_count(0)
            look(row, has_tabs=False)
        self.at_show()
        look("show")
        for object_id in ("ticks", "pin"):
            self.pick(object_id)
            look(object_id)
        self.pick("ticks", "pin")
        look("several objects", has_tabs=False)
        self.page.keyboard.press("Escape")
        self.page.locator('[data-add="table"]').click()
        expect(self.page.locator(".words-field")).to_be_focused()
        self.page.keyboard.type("Bell")
        self.page.keyboard.press("Escape")
        look("table")
        self.page.locator(".score [data-pick=span]").first.click()
        look("music", has_tabs=False)
        self.assertEqual(lacking, {})

    def test_the_sentence_is_seen_beside_what_the_keyboard_is_on(self) -> None:
        self.compose("esc-s")
        self.page.locator(".order .hold-field").first.focus()
        self.page.keyboard.press("Shift+Tab")
        self.page.keyboard.press("Tab")
        tip = self.page.get_by_role("tooltip")
        expect(tip).to_have_text("How long it waits here when nobody presses.")
        self.page.keyboard.press("Tab")
        expect(tip).not_to_have_text("How long it waits here when nobody presses.")
