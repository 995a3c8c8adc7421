import io
import re
from typing import Any

from PIL import Image
from playwright.sync_api import Route, expect

from tests.browser.base import BrowserTest


def words_of(item: dict[str, Any]) -> list[str]:
    """The words of an object, a string a paragraph."""
    return ["".join(run["text"] for run in paragraph["runs"]) for paragraph in item.get("paragraphs", [])]


class ComposeTest(BrowserTest):
    def panel(self, label: str):  # type: ignore[no-untyped-def]
        return self.page.get_by_label(label, exact=True)

    def builds(self, show: str, slide: str) -> list[dict]:
        return self.slide(show, slide)["order"]  # type: ignore[no-any-return]

    def test_an_object_gets_a_build_with_rule_and_times_and_undo_works_after_a_reload(self) -> None:
        show = self.compose("esc-s")
        page = self.page
        page.locator('.theatre [data-object="esc-t"] text').first.click()
        page.get_by_role("group", name="Effect").get_by_role("button", name="Rise").click()
        expect(page.get_by_role("button", name="On cue", exact=True)).to_have_attribute("aria-pressed", "true")
        page.get_by_role("button", name="Follows", exact=True).click()
        expect(page.get_by_role("button", name="Follows", exact=True)).to_have_attribute("aria-pressed", "true")
        self.panel("After").fill("0.25")
        self.panel("After").press("Enter")
        expect(self.panel("After")).to_have_value("0.25 s")
        self.panel("Lasts").fill("1,5")
        self.panel("Lasts").press("Enter")
        expect(self.panel("Lasts")).to_have_value("1.5 s")
        self.panel("Distance").fill("90")
        self.panel("Distance").press("Enter")
        expect(page.locator("#kept")).to_have_text("Saved")
        build = self.until(
            lambda: next((b for b in self.builds(show, "esc-s") if b["settings"] == {"distance_px": 90}), None)
        )
        self.assertEqual(
            (build["object_id"], build["effect"], build["starts"]["rule"], build["after_ms"], build["lasts_ms"]),
            ("esc-t", "enters rise", "follows", 250, 1500),
        )
        self.assertEqual(page.locator(f'.score [data-build="{build["id"]}"].build').count(), 1)
        page.reload()
        page.wait_for_selector(".score .build")
        for _ in range(5):
            page.keyboard.press("Control+z")
        self.until(lambda: build["id"] not in [b["id"] for b in self.builds(show, "esc-s")])
        for _ in range(5):
            page.keyboard.press("Control+Shift+z")
        self.until(lambda: build in self.builds(show, "esc-s"))

    def test_a_time_that_is_none_is_told_at_its_field_and_changes_nothing(self) -> None:
        show = self.compose("esc-s")
        before = self.score(show)["revision"]
        for wrong in ("soon", "-3", "99:00:00"):
            self.at_passage("Goes on")
            self.panel("Advances after").fill(wrong)
            self.panel("Advances after").press("Enter")
            expect(self.panel("Advances after")).to_have_attribute("aria-invalid", "true")
        self.assertEqual(self.score(show)["revision"], before)

    def test_the_keyboard_goes_through_the_panel_and_the_page_stays_where_it_is(self) -> None:
        self.page.set_viewport_size({"width": 1280, "height": 680})
        self.compose()
        self.at_tab("Slide")
        self.page.get_by_label("Name of the slide").focus()
        seen = self.page.evaluate(
            """() => {
              const details = document.querySelector(".panel .details");
              const gone = [];
              for (const node of details.querySelectorAll("button, input, select, textarea")) {
                node.focus();
                const [box, seen] = [node.getBoundingClientRect(), details.getBoundingClientRect()];
                const page = document.getElementById("compose").scrollTop + document.scrollingElement.scrollTop;
                const away = page || box.bottom < seen.top || box.top > seen.bottom;
                if (document.activeElement === node && away) gone.push(node.getAttribute("aria-label") ?? node.textContent);
              }
              return [gone, details.scrollTop];
            }"""
        )
        self.assertEqual(seen[0], [], "what has the focus is seen, and nothing but the panel has moved")
        self.assertGreater(seen[1], 100)

    def test_transition_and_advance_are_set_in_the_panel(self) -> None:
        show = self.compose("two-s")
        self.at_passage("Transition")
        self.page.get_by_role("group", name="Transition").get_by_role("button", name="Push").click()
        self.panel("Comes from").select_option("above")
        self.panel("Length of the transition").fill("1.2")
        self.panel("Length of the transition").press("Enter")
        self.at_passage("Goes on")
        self.page.get_by_role("group", name="Advances").get_by_role("button", name="After").click()
        slide = self.until(
            lambda: (
                (s := self.slide(show, "two-s"))["advance"]["rule"] == "after"
                and s["transition"]["lasts_ms"] == 1200
                and s
            )
        )
        self.assertEqual(
            (slide["transition"]["name"], slide["transition"]["settings"]), ("push", {"comes_from": "above"})
        )

    def test_what_is_marked_to_be_typed_over_still_is_when_the_edit_before_is_answered(self) -> None:
        show = self.compose()
        held: list[Any] = []
        self.page.route("**/edit", lambda route: route.continue_() if held else held.append(route))
        self.at_passage("Transition")
        self.panel("Pace of the transition").select_option("ease out")
        self.until(lambda: bool(held))
        self.panel("Pace of the transition").focus()
        self.page.keyboard.press("Shift+Tab")
        expect(self.panel("Length of the transition")).to_be_focused()
        before = self.panel("Length of the transition").element_handle()
        assert before
        held[0].continue_()
        self.page.wait_for_function("(field) => !field.isConnected", arg=before)
        self.page.keyboard.type("1.2")
        self.page.keyboard.press("Enter")
        self.until(lambda: self.slide(show, "esc-s")["transition"]["lasts_ms"] == 1200)

    def test_somebody_elses_change_takes_no_letter_from_what_is_being_typed(self) -> None:
        show = self.compose()
        self.at_passage("Transition")
        self.panel("Length of the transition").select_text()
        self.page.keyboard.type("1.")
        there = self.score(show)
        token = next(cookie["value"] for cookie in self.page.context.cookies() if cookie["name"] == "csrftoken")
        edit = {"do": "change slides", "slide_ids": ["two-s"], "changes": {"name": "Tick, tick"}}
        headers = {"X-CSRFToken": token, "Referer": self.base}
        reply = self.page.request.post(
            f"{self.base}/shows/{show}/edit", data={"revision": there["revision"], "edit": edit}, headers=headers
        )
        self.assertEqual(reply.status, 200)
        self.page.wait_for_function(
            "() => document.querySelector('.score .sheet:not([aria-hidden])').textContent.includes('Tick,')"
        )
        self.page.keyboard.type("2")
        self.page.keyboard.press("Enter")
        self.until(lambda: self.slide(show, "esc-s")["transition"]["lasts_ms"] == 1200)

    def test_a_part_of_the_panel_that_comes_while_a_number_is_typed_loses_no_letter(self) -> None:
        held: list[Route] = []
        self.page.route("**/carry-panel*", lambda route: held.append(route))
        show = self.copy_of_demo()
        self.page.goto(f"{self.base}/shows/{show}/?slide=two-s")
        self.at_passage("Transition")
        self.page.get_by_role("group", name="Transition").get_by_role("button", name="Carry").click()
        self.until(lambda: held)
        self.panel("Length of the transition").fill("1.2")
        held[0].continue_()
        come = """async () => {
          const { name } = performance.getEntriesByType("resource").find((entry) => entry.name.includes("/carry-panel"));
          await import(name);
          await new Promise(requestAnimationFrame);
        }"""
        self.page.wait_for_function(
            "() => performance.getEntriesByType('resource').some(({ name }) => name.includes('/carry-panel'))"
        )
        self.page.evaluate(come)
        expect(self.panel("Length of the transition")).to_have_value("1.2")
        self.panel("Length of the transition").press("Enter")
        self.until(
            lambda: (now := self.slide(show, "two-s")["transition"])["lasts_ms"] == 1200 and now["name"] == "carry"
        )

    def test_an_answer_that_comes_between_press_and_let_go_loses_no_click(self) -> None:
        show = self.compose("two-s")
        held: list[Route] = []
        self.page.route("**/edit", lambda route: route.continue_() if held else held.append(route))
        self.at_passage("Transition")
        self.page.get_by_role("group", name="Transition").get_by_role("button", name="Push").click()
        self.until(lambda: held)
        self.at_passage("Goes on")
        self.page.get_by_role("group", name="Advances").get_by_role("button", name="After").hover()
        self.page.mouse.down()
        with self.page.expect_response("**/edit") as answer:
            held[0].continue_()
        answer.value.finished()
        expect(self.page.get_by_text("Saved", exact=True)).to_be_visible()
        self.page.mouse.up()
        self.until(lambda: self.slide(show, "two-s")["advance"]["rule"] == "after")
        self.at_passage("Transition")
        expect(self.panel("Comes from")).to_be_visible()

    def drag(self, selector: str, dx: float, dy: float = 0) -> None:
        box = self.until(lambda: self.page.locator(selector).first.bounding_box(), f"{selector} is not in view")
        x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
        self.page.mouse.move(x, y)
        self.page.mouse.down()
        self.page.mouse.move(x + dx / 2, y + dy / 2)
        self.page.mouse.move(x + dx, y + dy)

    def test_a_build_a_hold_and_a_bar_line_are_dragged_with_their_number_shown(self) -> None:
        show = self.compose("esc-s")
        tag = self.page.locator(".number-tag")
        self.drag('.score [data-drag="build"][data-build="b-axle"]', 26)
        expect(tag).to_have_text(re.compile(r"^Axle: after \d+(\.\d+)? s$"))
        shown = float(re.findall(r"[\d.]+", tag.text_content() or "")[0])
        self.page.mouse.up()
        axle = self.until(
            lambda: next((b for b in self.builds(show, "esc-s") if b["id"] == "b-axle" and b["after_ms"] != 300), None)
        )
        self.assertEqual(axle["after_ms"], round(shown * 1000))

        self.drag('.score [data-drag="hold"][data-slide="esc-s"][data-beat="1"]', 30)
        expect(tag).to_have_text(re.compile(r"^Hold \d+(\.\d+)? s$"))
        shown = float(re.findall(r"[\d.]+", tag.text_content() or "")[0])
        self.page.mouse.up()
        self.until(
            lambda: (
                next(b for b in self.builds(show, "esc-s") if b["id"] == "b-pallets")["starts"]["hold_ms"]
                == round(shown * 1000)
            )
        )
        self.assertGreater(shown, 3.2)

        self.drag('.score [data-drag="bar"][data-slide="esc-s"]', 39)
        expect(tag).to_have_text(re.compile(r"^After \d+(\.\d+)? s"))
        shown = float(re.findall(r"[\d.]+", tag.text_content() or "")[0])
        self.page.mouse.up()
        self.until(lambda: self.slide(show, "esc-s")["advance"]["after_ms"] == round(shown * 1000))
        self.at_passage("Goes on")
        expect(self.panel("Advances after")).to_have_value(re.compile(str(shown)))

    def test_what_is_dragged_snaps_to_guides_with_the_line_shown_and_alt_moves_freely(self) -> None:
        show = self.compose("esc-s")
        ticks = self.object(show, "ticks")["box"]
        scale = self.page.evaluate(
            "document.querySelector('.theatre [data-stage]').getBoundingClientRect().width / 1280"
        )
        # The words' left edge, at 84, comes within a few px of the wheel's, at 700.
        self.drag('.theatre [data-object="ticks"] text', (700 - ticks["x"] + 3) * scale, -100 * scale)
        expect(self.page.locator(".frames .guides text").first).to_have_text("700")
        self.page.mouse.up()
        self.until(lambda: self.object(show, "ticks")["box"]["x"] == 700)
        expect(self.page.locator(".frames .guides")).to_have_count(0)
        self.page.keyboard.down("Alt")
        self.drag('.theatre [data-object="ticks"] text', 10 * scale, 10 * scale)
        self.page.mouse.up()
        self.page.keyboard.up("Alt")
        self.until(lambda: abs(self.object(show, "ticks")["box"]["x"] - 710) < 1)

    def test_escape_takes_a_drag_back(self) -> None:
        show = self.compose("esc-s")
        before = self.score(show)["revision"]
        self.drag('.score [data-drag="bar"][data-slide="esc-s"]', 60)
        self.page.keyboard.press("Escape")
        self.page.mouse.up()
        expect(self.page.locator(".number-tag")).to_be_hidden()
        self.assertEqual(self.score(show)["revision"], before)

    def test_a_text_is_added_and_edited_in_place(self) -> None:
        show = self.compose("esc-s")
        self.page.get_by_role("toolbar", name="Add").get_by_role("button", name="Text").click()
        field = self.page.locator(".words-field")
        expect(field).to_be_focused()
        self.page.keyboard.type("Wound by hand")
        self.page.keyboard.press("Enter")
        self.page.keyboard.type("every second evening")
        field.press("Control+Enter")
        item = self.until(
            lambda: next(
                (
                    o
                    for o in self.slide(show, "esc-s")["objects"]
                    if words_of(o) == ["Wound by hand", "every second evening"]
                ),
                None,
            )
        )
        self.page.locator(f'.theatre [data-object="{item["id"]}"] text').first.dblclick()
        expect(field.locator("p")).to_have_text(["Wound by hand", "every second evening"])
        self.page.keyboard.press("Control+End")
        for _ in range(len("second evening")):
            self.page.keyboard.press("Backspace")
        self.page.keyboard.type("evening")
        field.press("Escape")
        self.until(lambda: words_of(self.slide(show, "esc-s")["objects"][-1])[1] == "every evening")
        self.assertEqual(
            [p["id"] for p in self.slide(show, "esc-s")["objects"][-1]["paragraphs"]],
            [p["id"] for p in item["paragraphs"]],
        )

    def test_a_picture_is_chosen_another_is_dropped_and_a_shape_is_drawn(self) -> None:
        show = self.compose("esc-s")
        out = io.BytesIO()
        Image.new("RGB", (2000, 1000), "#204060").save(out, "PNG")
        picture = {"name": "weights.png", "mimeType": "image/png", "buffer": out.getvalue()}
        bring = self.page.get_by_role("toolbar", name="Add")
        bring.get_by_role("button", name="Picture").click()
        self.page.get_by_label("Choose pictures").set_input_files(picture)  # type: ignore[arg-type]
        item = self.until(
            lambda: next((o for o in self.slide(show, "esc-s")["objects"] if o["name"] == "weights"), None)
        )
        self.assertEqual(
            (item["box"]["width"], item["box"]["height"]),
            (1024, 512),
            "too large a picture comes fitted, its proportion kept",
        )

        handle = self.page.evaluate_handle(
            """async (bytes) => {
              const transfer = new DataTransfer();
              transfer.items.add(new File([new Uint8Array(bytes)], "rope.png", { type: "image/png" }));
              return transfer;
            }""",
            list(out.getvalue()),
        )
        theatre = self.page.locator(".theatre")
        theatre.dispatch_event("drop", {"dataTransfer": handle, "clientX": 800, "clientY": 300})
        self.until(lambda: any(o["name"] == "rope" for o in self.slide(show, "esc-s")["objects"]))

        bring.get_by_role("button", name="Shape").click()
        self.page.locator(".tray").get_by_role("button", name="Wheel", exact=True).click()
        wheel = self.until(
            lambda: next(
                (
                    o
                    for o in self.slide(show, "esc-s")["objects"]
                    if o.get("form") == "wheel" and o["name"] == "Wheel 2" and o["id"] != "wheel"
                ),
                None,
            )
        )
        self.assertEqual(wheel["points"], 18)

    def test_bad_files_are_told_in_place_and_nothing_changes(self) -> None:
        show = self.compose("esc-s")
        self.expected_complaints = ("400",)
        before = self.score(show)["revision"]
        self.page.get_by_role("toolbar", name="Add").get_by_role("button", name="Picture").click()
        for name, data, words in (
            ("notes.png", b"these are words", "neither a picture nor a sound"),
            ("empty.png", b"", "“empty.png” is empty"),
            ("large.png", b"x" * 3_000_001, "at most 3 MB can be added"),
        ):
            self.page.get_by_label("Choose pictures").set_input_files(
                {"name": name, "mimeType": "image/png", "buffer": data}
            )
            expect(self.page.get_by_role("alert")).to_contain_text(words)
        self.assertEqual(self.score(show)["revision"], before)

    def test_objects_are_moved_sized_and_nudged_on_the_stage(self) -> None:
        show = self.compose("esc-s")
        self.drag('.theatre [data-object="axle"] path', 60, 30)
        self.page.mouse.up()
        moved = self.until(lambda: (o := self.object(show, "axle"))["box"]["x"] > 880 and o)
        self.assertGreater(moved["box"]["y"], 365)
        self.drag('[data-handle="se"]', 40, 40)
        self.page.mouse.up()
        sized = self.until(lambda: (o := self.object(show, "axle"))["box"]["width"] > 85 and o)
        self.assertEqual((sized["box"]["x"], sized["box"]["y"]), (moved["box"]["x"], moved["box"]["y"]))
        self.page.keyboard.press("Shift+ArrowRight")
        self.page.keyboard.press("ArrowUp")
        self.until(
            lambda: (
                (b := self.object(show, "axle")["box"])["x"] == round(sized["box"]["x"] + 10, 1)
                and b["y"] == round(sized["box"]["y"] - 1, 1)
            )
        )
        self.page.keyboard.press("Delete")
        self.until(lambda: self.object(show, "axle") is None)
        self.assertNotIn("b-axle", [b["id"] for b in self.builds(show, "esc-s")], "its builds go with it")

    def object(self, show: str, object_id: str):  # type: ignore[no-untyped-def]
        return next((o for o in self.slide(show, "esc-s")["objects"] if o["id"] == object_id), None)

    def test_slides_are_added_moved_skipped_duplicated_and_removed(self) -> None:
        show = self.compose("esc-s")
        page = self.page
        page.get_by_role("toolbar", name="Add").get_by_role("button", name="Slide").click()
        page.locator('[data-layout="heading and text"]').click()
        expect(self.opened()).to_contain_text("Heading and text")
        order = self.score(show)["order"]
        self.assertEqual((len(order), order.index("esc-s")), (10, 2))
        new = order[3]
        self.at_tab("Slide")
        page.get_by_role("button", name="Move the slide earlier").click()
        self.until(lambda: self.score(show)["order"][2] == new)
        page.get_by_role("button", name="Skip").click()
        self.until(lambda: self.score(show)["slides"][new]["skipped"])
        page.get_by_role("button", name="Duplicate").click()
        self.until(lambda: len(self.score(show)["order"]) == 11)
        page.get_by_role("button", name="Remove slide").click()
        self.until(lambda: len(self.score(show)["order"]) == 10)
        page.locator("#undo").click()
        self.until(lambda: len(self.score(show)["order"]) == 11)

    def test_the_running_order_moves_by_keys_and_by_dragging(self) -> None:
        show = self.compose("esc-s")
        row = self.page.locator('.order [data-build="b-axle"]')
        row.locator(".who").focus()
        self.page.keyboard.press("Alt+ArrowUp")
        self.until(lambda: self.rules(show)[:2] == ["b-axle follows", "b-wheel together"])
        self.page.locator('.order [data-build="b-pin"]').drag_to(
            self.page.locator(".order .wait").first,
            source_position={"x": 60, "y": 14},
            target_position={"x": 60, "y": 24},
        )
        self.until(lambda: "b-pin cue" in self.rules(show))
        self.assertIn("b-pallets follows", self.rules(show))

    def test_a_whole_beat_moves_by_its_wait_and_by_keys(self) -> None:
        show = self.compose("esc-s")
        beats = lambda: [build["id"] for build in self.builds(show, "esc-s") if build["starts"]["rule"] == "cue"]  # noqa: E731
        self.assertEqual(beats(), ["b-pallets", "b-ticks"])
        self.page.locator(".order .wait .stop").first.focus()
        self.page.keyboard.press("Alt+ArrowDown")
        self.until(lambda: beats() == ["b-ticks", "b-pallets"])
        expect(self.page.locator(".order .wait").nth(1).locator(".stop")).to_be_focused()
        self.assertEqual([build["id"] for build in self.builds(show, "esc-s")][-2:], ["b-pallets", "b-pin"])
        self.page.locator(".order .wait").nth(1).drag_to(
            self.page.locator(".order .wait").first,
            source_position={"x": 80, "y": 14},
            target_position={"x": 80, "y": 3},
        )
        self.until(lambda: beats() == ["b-pallets", "b-ticks"])

    def rules(self, show: str) -> list[str]:
        return [f"{build['id']} {build['starts']['rule']}" for build in self.builds(show, "esc-s")]

    def lifted(self, build: str) -> None:
        """Takes hold of a build in the running order and pulls it a little."""
        row = self.page.locator(f'.order [data-build="{build}"]').bounding_box()
        assert row
        self.page.mouse.move(row["x"] + 150, row["y"] + 14)
        self.page.mouse.down()
        self.page.mouse.move(row["x"] + 150, row["y"] + 22, steps=3)

    def pulled_to(self, build: str, x: float, share: float) -> None:
        """Pulls on to a height over another build's row, `x` px from the list's left edge."""
        row = self.page.locator(f'.order [data-build="{build}"]').bounding_box()
        assert row
        self.page.mouse.move(row["x"] + x, row["y"] + row["height"] * share, steps=4)

    def test_what_a_drop_will_do_is_shown_before_it_is_let_go_and_then_done(self) -> None:
        show = self.compose("esc-s")
        tag = self.page.locator(".order-tag")
        self.lifted("b-axle")
        self.pulled_to("b-pallets", 150, 0.8)
        expect(tag).to_have_text("together with Pallets")
        self.page.mouse.up()
        self.until(lambda: "b-axle together" in self.rules(show))
        self.assertEqual(self.rules(show)[:3], ["b-wheel follows", "b-pallets cue", "b-axle together"])
        self.lifted("b-axle")
        self.pulled_to("b-pin", 20, 0.8)
        expect(tag).to_have_text("after Pin, by itself")
        self.page.mouse.up()
        self.until(lambda: self.rules(show)[1:4] == ["b-pallets cue", "b-pin together", "b-axle follows"])

    def test_below_the_last_row_a_build_gets_a_cue_of_its_own(self) -> None:
        show = self.compose("esc-s")
        self.page.evaluate("() => document.querySelector('.order').scrollTo(0, 0)")
        self.lifted("b-wheel")
        foot = self.page.locator(".order-foot").bounding_box()
        assert foot
        self.page.mouse.move(foot["x"] + 150, foot["y"] + 10, steps=4)
        expect(self.page.locator(".order-tag")).to_have_text("on a cue of its own, after all")
        self.page.mouse.up()
        self.until(lambda: self.rules(show)[-1] == "b-wheel cue")

    def test_escape_puts_a_lifted_build_back(self) -> None:
        show = self.compose("esc-s")
        before = (self.rules(show), self.score(show)["revision"])
        self.lifted("b-axle")
        self.pulled_to("b-pallets", 150, 0.8)
        self.page.keyboard.press("Escape")
        expect(self.page.locator(".order-tag")).to_have_count(0)
        self.page.mouse.up()
        self.assertEqual((self.rules(show), self.score(show)["revision"]), before)

    def test_alt_and_the_arrows_take_a_build_out_of_its_brace_past_it_and_into_the_next(self) -> None:
        show = self.compose("esc-s")
        self.page.locator('.order [data-build="b-axle"] .who').focus()
        for wanted in (
            ["b-wheel follows", "b-axle follows", "b-pallets cue"],
            ["b-wheel follows", "b-axle cue", "b-pallets follows"],
        ):
            self.page.keyboard.press("Alt+ArrowDown")
            self.until(lambda wanted=wanted: self.rules(show)[:3] == wanted)
            expect(self.page.locator('.order [data-build="b-axle"] .who')).to_be_focused()

    def test_two_windows_see_each_others_changes_and_an_edit_on_an_older_state_is_made(self) -> None:
        show = self.compose("esc-s")
        other = self.new_page(self.context)
        other.goto(f"{self.base}/shows/{show}/?slide=esc-s")
        other.wait_for_selector(".score .build")
        self.at_tab("Slide")
        self.at_tab("Slide", other)
        other.get_by_label("Name of the slide").fill("The ticking heart")
        other.get_by_label("Name of the slide").press("Enter")
        expect(self.opened()).to_contain_text("The ticking heart")
        edit = {"do": "change slides", "slide_ids": ["esc-s"], "changes": {"notes": "Slowly"}}
        made = self.page.request.post(
            f"{self.base}/shows/{show}/edit",
            data={"revision": 0, "edit": edit},
            headers={
                "X-CSRFToken": self.page.locator("meta[name=csrf]").get_attribute("content") or "",
                "Referer": self.base,
            },
        )
        self.assertEqual(made.status, 200, made.text())
        slide = self.slide(show, "esc-s")
        self.assertEqual((slide["name"], slide["notes"]), ("The ticking heart", "Slowly"))

    def test_music_is_placed_under_a_stretch_of_slides(self) -> None:
        show = self.compose("esc-s")
        self.page.locator('.score [data-pick="span"]').click(position={"x": 400, "y": 5})
        self.panel("From").select_option("who-s")
        self.panel("To the end of").select_option("bell-s")
        self.panel("Fade out").fill("2")
        self.panel("Fade out").press("Enter")
        span = self.until(lambda: (s := self.score(show)["spans"][0])["fade_out_ms"] == 2000 and s)
        self.assertEqual((span["start"]["slide_id"], span["end"]["slide_id"]), ("who-s", "bell-s"))
        self.page.locator(".score-place").first.focus()
        self.page.keyboard.press("ArrowDown")
        self.page.keyboard.press("ArrowDown")
        expect(self.page.locator(".score-place:focus")).to_have_attribute("aria-label", re.compile("waltz"))
        self.panel("From").focus()
        self.page.keyboard.press("Escape")
        self.page.locator('.score [data-pick="slide"][data-slide="noon-s"]').click(position={"x": 30, "y": 30})
        self.page.locator(".score-place[tabindex='0']").focus()
        self.page.keyboard.press("Delete")
        expect(self.page.locator(".number-tag")).to_have_text("Picked. Delete once more removes it.")
        self.assertEqual((len(self.score(show)["spans"]), len(self.score(show)["order"])), (1, 9))
        self.page.locator('.score [data-pick="span"]').click(position={"x": 400, "y": 5})
        self.page.locator('.score [data-pick="span"]').press("Delete")
        self.until(lambda: self.score(show)["spans"] == [])


class KeysTest(BrowserTest):
    """Compose without a mouse, and the keys everybody knows."""

    def names(self, show: str) -> list[str]:
        return [item["name"] for item in self.slide(show, "esc-s")["objects"]]

    def test_copy_paste_cut_duplicate_and_pick_all(self) -> None:
        show = self.compose("esc-s")
        press = self.page.keyboard.press

        def pins() -> list[str]:
            return sorted(name for name in self.names(show) if name.startswith("Pin"))

        self.page.locator('.theatre [data-object="pin"] path').click()
        press("Control+c")
        press("Control+v")
        self.until(lambda: pins() == ["Pin", "Pin 2"])
        press("Control+d")
        self.until(lambda: pins() == ["Pin", "Pin 2", "Pin 3"])
        press("Control+x")
        self.until(lambda: len(pins()) == 2)
        press("Control+a")
        expect(self.page.get_by_role("heading", name=re.compile(r"^\d+ objects$"))).to_be_visible()
        before = {item["id"]: item["box"]["x"] for item in self.slide(show, "esc-s")["objects"]}
        press("ArrowRight")
        self.until(
            lambda: (
                {item["id"]: round(item["box"]["x"] - 1, 1) for item in self.slide(show, "esc-s")["objects"]} == before
            )
        )
        press("Control+z")
        self.until(lambda: {item["id"]: item["box"]["x"] for item in self.slide(show, "esc-s")["objects"]} == before)

    def test_a_build_is_given_from_the_keyboard_alone(self) -> None:
        show = self.compose("esc-s")
        self.page.locator(".fold-head").press("Enter")
        self.page.locator('[data-listed="esc-t"] .who').focus()
        self.page.keyboard.press("Enter")
        effect = self.page.get_by_role("group", name="Effect").get_by_role("button", name="Fade")
        effect.focus()
        self.page.keyboard.press("Enter")
        build = self.until(
            lambda: next((b for b in self.slide(show, "esc-s")["order"] if b["object_id"] == "esc-t"), None)
        )
        self.assertEqual((build["effect"], build["starts"]["rule"]), ("enters fade", "cue"))
        self.page.keyboard.press("Escape")
        self.page.keyboard.press("PageDown")
        expect(self.opened()).to_contain_text("Two wheels, two jobs")

    def test_a_list_is_built_paragraph_by_paragraph_in_one_act(self) -> None:
        show = self.compose("esc-s")
        self.page.locator('.theatre [data-object="esc-t"] text').first.click()
        self.page.get_by_label("What moves", exact=True).select_option("*")
        self.page.get_by_role("group", name="Effect").get_by_role("button", name="Rise").click()
        builds = self.until(
            lambda: (
                (b := [b for b in self.slide(show, "esc-s")["order"] if b["object_id"] == "esc-t"])
                and len(b) == 2
                and b
            )
        )
        self.assertEqual([build["part"] for build in builds], ["esc-t-1", "esc-t-2"])
        self.page.keyboard.press("Control+z")
        self.until(lambda: not [b for b in self.slide(show, "esc-s")["order"] if b["object_id"] == "esc-t"])

    def test_the_scores_height_changes_by_keys(self) -> None:
        self.compose("esc-s", "orlmere")
        score = self.page.locator("#score")
        before = score.evaluate("(node) => node.clientHeight")
        self.page.get_by_role("button", name="Height of the score").focus()
        for _ in range(3):
            self.page.keyboard.press("ArrowUp")
        self.until(lambda: score.evaluate("(node) => node.clientHeight") > before + 40)


class SecondVisitTest(BrowserTest):
    def test_at_the_second_visit_nothing_of_the_program_is_fetched_again(self) -> None:
        self.page = self.new_page(self.context)
        line = self.context.new_cdp_session(self.page)
        line.send("Network.enable")
        first: list[str] = []
        line.on("Network.requestWillBeSent", lambda event: first.append(event["request"]["url"]))
        show = self.compose()
        self.page.goto(self.base + "/shows/start")
        known = set(first)
        asked: dict[str, str] = {}
        kept: set[str] = set()
        line.on("Network.requestWillBeSent", lambda event: asked.update({event["requestId"]: event["request"]["url"]}))
        line.on("Network.requestServedFromCache", lambda event: kept.add(event["requestId"]))
        self.compose(show=show)
        fetched = [url for key, url in asked.items() if key not in kept and "/static/" in url and url in known]
        self.assertEqual(fetched, [])
        self.assertTrue(any("/static/" in url for url in asked.values()), "they are asked for, and lie there")
