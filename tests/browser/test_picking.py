"""The stage under a hand: what a press picks, the menu, copies with their builds, and what a layout leaves over."""

from typing import Any

from playwright.sync_api import expect

from tests.browser.test_stage import StageTest


class PickingTest(StageTest):
    def picked(self) -> list[str]:
        return self.page.evaluate(  # type: ignore[no-any-return]
            "() => [...document.querySelectorAll('.objects [aria-current]')].map((node) => node.dataset.listed)"
        )

    def open_list(self) -> None:
        self.page.locator(".fold-head").click()

    def test_a_press_on_one_of_several_picks_that_one_and_a_pull_moves_all(self) -> None:
        show = self.compose("esc-s")
        self.squares(show, (900, 560), (1000, 560))
        self.open_list()
        self.pick("s0", "s1")
        self.assertEqual(set(self.picked()), {"s0", "s1"})
        self.page.locator('.theatre [data-object="s1"] path').first.click()
        self.until(lambda: self.picked() == ["s1"])
        self.pick("s0", "s1")
        self.drag('.theatre [data-object="s1"] path', 0, -60, keys=("Alt",))
        self.until(lambda: {self.objects(show)[name]["box"]["y"] for name in ("s0", "s1")} == {500})

    def test_a_press_inside_the_picked_frame_picks_what_is_seen_there(self) -> None:
        show = self.compose("esc-s")
        self.add(
            show,
            {
                "do": "add objects",
                "slide_id": "esc-s",
                "objects": [
                    {
                        "kind": "shape",
                        "form": "ring",
                        "id": "ring",
                        "name": "Ring",
                        "fill": {"kind": "plain", "colour": "@accent"},
                        "box": {"x": 880, "y": 500, "width": 200, "height": 200},
                    }
                ],
            },
        )
        self.squares(show, (950, 570))
        self.open_list()
        self.page.locator('[data-listed="ring"] .who').click()
        self.page.locator('.theatre [data-object="s0"] path').first.click()
        self.until(lambda: self.picked() == ["s0"])

    def test_the_frame_itself_moves_what_is_in_it(self) -> None:
        show = self.compose("esc-s")
        self.squares(show, (900, 560))
        self.pick("s0")
        edge: Any = self.page.locator(".frames .edge").bounding_box()
        x, y = edge["x"] + edge["width"] / 4, edge["y"] + 3
        self.page.mouse.move(x, y)
        self.page.mouse.down()
        self.page.mouse.move(x + 40, y, steps=3)
        self.page.mouse.up()
        self.until(lambda: self.objects(show)["s0"]["box"]["x"] > 900)

    def test_ten_new_squares_step_aside_from_each_other(self) -> None:
        show = self.compose("esc-s")
        for count in range(4):
            self.page.locator('[data-tray="shape"]').click()
            self.page.locator(".tray").get_by_role("button", name="Rectangle", exact=True).click()
            self.until(lambda: len(self.objects(show)) == 9 + count)  # noqa: B023
        new = [item for item in self.objects(show).values() if item["name"].startswith("Rectangle")]
        self.assertEqual(len({(item["box"]["x"], item["box"]["y"]) for item in new}), 4)
        self.assertEqual(len({item["name"] for item in new}), 4, "each has a name of its own")

    def test_a_duplicate_takes_its_builds_along(self) -> None:
        show = self.compose("esc-s")
        before = len(self.slide(show, "esc-s")["order"])
        self.page.locator('.order [data-build="b-pallets"] .who').click()
        self.page.locator(".theatre [data-stage]").focus()
        self.page.keyboard.press("Control+d")
        self.until(lambda: len(self.slide(show, "esc-s")["order"]) == before + 1)
        copies = [item for item in self.objects(show).values() if item["name"] == "Pallets 2"]
        build = next(entry for entry in self.slide(show, "esc-s")["order"] if entry["object_id"] == copies[0]["id"])
        self.assertEqual((build["starts"], build["effect"]), ({"rule": "together"}, "enters settle"))

    def test_a_typed_width_keeps_the_proportion_where_that_is_wanted(self) -> None:
        show = self.compose("esc-s")
        self.squares(show, (900, 560))
        self.pick("s0")
        self.page.get_by_role("tab", name="Place").click()
        width = self.page.get_by_label("Width", exact=True)
        width.fill("90")
        width.press("Enter")
        self.until(lambda: self.objects(show)["s0"]["box"]["width"] == 90)
        self.assertEqual(self.objects(show)["s0"]["box"]["height"], 60)
        expect(width).to_be_focused()
        self.page.get_by_label("Keep its proportion").check()
        width.fill("180")
        width.press("Enter")
        self.until(lambda: self.objects(show)["s0"]["box"]["height"] == 120)


class MenuTest(StageTest):
    def right_press(self, object_id: str) -> None:
        """On what is painted of it: its middle may lie behind something else."""
        x, y = self.until(
            lambda: self.page.evaluate(
                """(id) => {
                  const box = document.querySelector(`.theatre [data-object="${id}"]`).getBoundingClientRect();
                  for (let n = 1; n < 400; n += 1) {
                    const [x, y] = [box.left + (box.width * (n % 20)) / 20, box.top + (box.height * (n / 20)) / 20];
                    if (document.elementFromPoint(x, y)?.closest("[data-object]")?.dataset.object === id) return [x, y];
                  }
                  return null;
                }""",
                object_id,
            )
        )
        self.page.mouse.click(x, y, button="right")

    def test_the_right_button_opens_what_can_be_done_and_keys_choose(self) -> None:
        show = self.compose("esc-s")
        self.right_press("pallets")
        menu = self.page.get_by_role("menu")
        expect(menu.get_by_role("menuitem").first).to_be_focused()
        self.page.keyboard.press("End")
        expect(menu.get_by_role("menuitem", name="Remove Pallets")).to_be_focused()
        self.page.keyboard.press("Enter")
        self.until(lambda: "pallets" not in self.objects(show))
        expect(menu).to_have_count(0)

    def test_it_opens_a_tab_of_the_panel_and_escape_closes_it(self) -> None:
        self.compose("esc-s")
        self.right_press("pallets")
        self.page.get_by_role("menuitem", name="Place and size").click()
        expect(self.page.get_by_role("tab", name="Place")).to_have_attribute("aria-selected", "true")
        self.right_press("pallets")
        self.page.keyboard.press("Escape")
        expect(self.page.get_by_role("menu")).to_have_count(0)
        expect(self.page.get_by_label("Name of the object")).to_have_value("Pallets")

    def test_while_a_show_plays_the_right_button_is_no_cue(self) -> None:
        self.page.goto(f"{self.base}/shows/orlmere/play?from=who-s&mode=on+cue")
        self.page.wait_for_selector('.house[data-slide="who-s"][data-beat="0"]')
        self.page.mouse.click(640, 300, button="right")
        self.page.mouse.click(640, 300)
        self.page.wait_for_selector('.house[data-slide="who-s"][data-beat="1"]')


class LeftOverTest(StageTest):
    def new_slide(self, show: str, layout: str) -> str:
        before = self.score(show)["order"]
        self.page.locator('[data-tray="slide"]').click()
        self.page.locator(f'[data-layout="{layout}"]').click()
        return str(
            self.until(lambda: next((slide for slide in self.score(show)["order"] if slide not in before), None))
        )

    def test_what_a_layout_has_no_place_for_lies_beside_the_slide_and_comes_back(self) -> None:
        show = self.compose("esc-s")
        slide_id = self.new_slide(show, "two columns")
        self.page.locator('[data-place="words 2"]').click()
        self.page.keyboard.type("31 metres of rope")
        self.page.keyboard.press("Escape")
        self.until(lambda: self.slide(show, slide_id)["objects"])
        self.page.locator('.path [data-level="slide"]').click()
        self.at_tab("Slide")
        self.page.get_by_label("Layout", exact=True).select_option("heading and text")
        strip = self.page.get_by_role("group", name="Beside the slide")
        expect(strip).to_contain_text("31 metres of rope")
        self.assertEqual(self.slide(show, slide_id)["objects"], [])
        strip.get_by_role("button", name="31 metres of rope").first.click()
        self.until(lambda: self.slide(show, slide_id)["objects"])
        expect(strip).to_have_count(0)

    def test_a_picture_arrives_whole_and_fills_its_place_at_one_press(self) -> None:
        show = self.compose("esc-s")
        slide_id = self.new_slide(show, "text and picture")
        self.drop_picture('[data-place="picture"]')
        self.page.get_by_role("button", name="Fill the place").click()
        self.until(lambda: self.slide(show, slide_id)["objects"][0]["fit"] == "cover")


class WordsLinkTest(StageTest):
    def test_marked_words_lead_to_a_slide_and_a_press_on_them_goes_there(self) -> None:
        show = self.compose("esc-s")
        self.page.locator('.theatre [data-object="ticks"] text').first.dblclick()
        self.page.locator(".words-field").wait_for()
        self.page.keyboard.press("Control+a")
        self.page.get_by_role("button", name="Link", exact=True).click()
        self.page.get_by_label("Or to a slide").select_option(label="7 The bell")
        self.page.keyboard.press("Escape")
        self.until(
            lambda: self.objects(show)["ticks"]["paragraphs"][0]["runs"][0].get("link") == "#bell-s",
        )
        self.page.goto(f"{self.base}/shows/{show}/play?from=esc-s&mode=on+cue")
        self.page.wait_for_selector('.house[data-slide="esc-s"]')
        for beat in (1, 2):
            self.page.keyboard.press("ArrowRight")
            self.page.wait_for_selector(f'.house[data-slide="esc-s"][data-beat="{beat}"]')
        self.page.locator('[data-link="#bell-s"]').first.click()
        self.page.wait_for_selector('.house[data-slide="bell-s"]')


class TogetherTest(StageTest):
    def test_builds_for_several_objects_ask_once_how_they_start(self) -> None:
        show = self.compose("esc-s")
        self.squares(show, (900, 560), (1000, 560), (1100, 560))
        self.pick("s0", "s1", "s2")
        self.page.get_by_role("group", name="How they start").get_by_role("button", name="One by one").click()
        self.page.get_by_role("group", name="Effect for all").get_by_role("button", name="Fade").click()
        self.until(
            lambda: (
                [entry["starts"]["rule"] for entry in self.slide(show, "esc-s")["order"][-3:]]
                == ["cue", "follows", "follows"]
            )
        )
        self.page.get_by_role("group", name="How they start").get_by_role("button", name="Together").click()
        self.page.get_by_role("button", name="Start the 3 they have together").click()
        self.until(
            lambda: (
                [entry["starts"]["rule"] for entry in self.slide(show, "esc-s")["order"][-3:]]
                == ["cue", "together", "together"]
            )
        )

    def test_letters_of_several_texts_are_sized_at_once(self) -> None:
        show = self.compose("who-s")
        texts = [item["id"] for item in self.objects(show, "who-s").values() if item["kind"] == "text"]
        self.pick(*texts[:2])
        size = self.page.get_by_label("Size of all letters")
        size.fill("31")
        size.press("Enter")
        self.until(lambda: {self.objects(show, "who-s")[name]["size_px"] for name in texts[:2]} == {31})

    def test_a_text_is_built_by_paragraphs_afterwards_and_as_a_whole_again(self) -> None:
        show = self.compose("esc-s")
        lines = [{"id": f"l-{n}", "runs": [{"text": words}]} for n, words in enumerate(("one", "two", "three"))]
        self.add(
            show,
            {
                "do": "add objects",
                "slide_id": "esc-s",
                "objects": [
                    {
                        "kind": "text",
                        "id": "l",
                        "name": "Lines",
                        "box": {"x": 20, "y": 500, "width": 200, "height": 160},
                        "paragraphs": lines,
                    }
                ],
            },
        )
        self.pick("l")
        self.page.get_by_role("group", name="Effect").get_by_role("button", name="Fade").click()
        self.until(lambda: self.slide(show, "esc-s")["order"][-1]["object_id"] == "l")
        how = self.page.get_by_role("group", name="Builds all of it, or each paragraph")
        how.get_by_role("button", name="Each paragraph").click()
        self.until(
            lambda: [entry["part"] for entry in self.slide(show, "esc-s")["order"][-3:]] == ["l-0", "l-1", "l-2"]
        )
        how.get_by_role("button", name="All of it").click()
        self.until(lambda: self.slide(show, "esc-s")["order"][-1]["part"] is None)
