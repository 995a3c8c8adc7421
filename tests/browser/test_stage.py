"""The stage used as a person does: picking, lining up, places, groups, words, copying, themes and presses."""

import io
import re
from typing import Any

from PIL import Image
from playwright.sync_api import expect

from tests.browser.base import BrowserTest


def png(width: int, height: int, colour: str = "#204060") -> bytes:
    out = io.BytesIO()
    Image.new("RGB", (width, height), colour).save(out, "PNG")
    return out.getvalue()


class StageTest(BrowserTest):
    def objects(self, show: str, slide: str = "esc-s") -> dict[str, dict[str, Any]]:
        return {item["id"]: item for item in self.slide(show, slide)["objects"]}

    def at(self, selector: str) -> tuple[float, float]:
        box = self.until(lambda: self.page.locator(selector).first.bounding_box(), f"{selector} is not in view")
        return box["x"] + box["width"] / 2, box["y"] + box["height"] / 2

    def drag(self, selector: str, dx: float, dy: float, up: bool = True, keys: tuple[str, ...] = ()) -> None:
        """Drags by a way in px of the frame."""
        scale = self.page.evaluate(
            "document.querySelector('.theatre [data-stage]').getBoundingClientRect().width / 1280"
        )
        x, y = self.at(selector)
        for key in keys:
            self.page.keyboard.down(key)
        self.page.mouse.move(x, y)
        self.page.mouse.down()
        self.page.mouse.move(x + dx * scale / 2, y + dy * scale / 2)
        self.page.mouse.move(x + dx * scale, y + dy * scale)
        if up:
            self.page.mouse.up()
        for key in keys:
            self.page.keyboard.up(key)

    def pick(self, *ids: str) -> None:
        for number, object_id in enumerate(ids):
            self.page.locator(f'.theatre [data-object="{object_id}"]').locator("path, text, image").first.click(
                modifiers=["Shift"] if number else []
            )

    def drop_picture(self, place: str) -> None:
        """Drops a picture of 3000 by 900 px on a place of the stage."""
        x, y = self.at(place)
        files = self.page.evaluate_handle(
            """async (bytes) => {
              const transfer = new DataTransfer();
              transfer.items.add(new File([new Uint8Array(bytes)], "rope.png", { type: "image/png" }));
              return transfer;
            }""",
            list(png(3000, 900)),
        )
        self.page.locator(".theatre").dispatch_event("drop", {"dataTransfer": files, "clientX": x, "clientY": y})

    def add(self, show: str, edit: dict[str, Any], seen: bool = True) -> None:
        """Makes an edit as somebody else would; the page shows it before this returns, unless it cannot know."""
        token = self.page.locator("meta[name=csrf]").get_attribute("content") or ""
        body = {"revision": self.score(show)["revision"], "edit": edit}
        reply = self.page.request.post(
            f"{self.base}/shows/{show}/edit", data=body, headers={"X-CSRFToken": token, "Referer": self.base}
        )
        self.assertEqual(reply.status, 200, reply.text())
        if seen:
            self.page.wait_for_selector(f'#compose[data-revision="{reply.json()["revision"]}"]')

    def squares(self, show: str, *places: tuple[float, float], **more: Any) -> None:
        """Adds squares `s0`, `s1` ... of 60 px to the slide on the stage."""
        look = {"kind": "shape", "form": "rectangle", "fill": {"kind": "plain", "colour": "@second"}, **more}
        shapes = [
            {**look, "id": f"s{n}", "name": f"Square {n}", "box": {"x": x, "y": y, "width": 60, "height": 60}}
            for n, (x, y) in enumerate(places)
        ]
        self.add(show, {"do": "add objects", "slide_id": "esc-s", "objects": shapes})
        self.page.wait_for_selector(f'.theatre [data-object="s{len(places) - 1}"]')


class PlacesTest(StageTest):
    def test_an_empty_place_is_filled_by_one_press_and_its_words_look_as_the_theme_says(self) -> None:
        show = self.compose("esc-s")
        self.page.locator('[data-tray="slide"]').click()
        self.page.locator('[data-layout="text and picture"]').click()
        self.page.locator('[data-place="heading"]').click()
        self.page.keyboard.type("The rope")  # at once: what is typed while the text is on its way is not lost
        expect(self.page.locator(".words-field")).to_have_text("The rope")
        self.page.keyboard.press("Escape")
        slide_id = self.score(show)["order"][3]
        heading = self.until(
            lambda: next(
                (
                    o
                    for o in self.slide(show, slide_id)["objects"]
                    if o["paragraphs"][0]["runs"][0]["text"] == "The rope"
                ),
                None,
            )
        )
        self.assertEqual(
            (heading["place"], heading["family"], heading["size_px"], heading["box"]["x"]),
            ("heading", "@heading", 52, 84),
        )
        expect(self.page.locator(".empty-place")).to_have_count(2)

    def test_a_picture_dropped_on_an_empty_place_fits_it(self) -> None:
        show = self.compose("esc-s")
        self.page.locator('[data-tray="slide"]').click()
        self.page.locator('[data-layout="text and picture"]').click()
        self.drop_picture('[data-place="picture"]')
        slide_id = self.score(show)["order"][3]
        item = self.until(lambda: next(iter(self.slide(show, slide_id)["objects"]), None))
        self.assertEqual(
            (item["place"], item["fit"], item["box"]["x"], item["box"]["width"]), ("picture", "contain", 666, 530)
        )
        self.page.locator("#undo").click()
        self.until(lambda: not self.slide(show, slide_id)["objects"])

    def test_an_emptied_new_text_leaves_nothing_behind(self) -> None:
        show = self.compose("esc-s")
        before = len(self.objects(show))
        self.page.locator('[data-add="text"]').click()
        expect(self.page.locator(".words-field")).to_be_focused()
        self.page.keyboard.press("Escape")
        self.until(lambda: len(self.objects(show)) == before)

    def test_the_layout_changes_and_nothing_is_lost(self) -> None:
        show = self.compose("esc-s")
        self.page.locator('[data-tray="slide"]').click()
        self.page.locator('[data-layout="heading and text"]').click()
        self.page.locator('[data-place="words"]').click()
        self.page.keyboard.type("31 metres of it")
        self.page.keyboard.press("Escape")
        slide_id = self.score(show)["order"][3]
        self.until(lambda: self.slide(show, slide_id)["objects"])
        self.page.keyboard.press("Escape")
        self.at_tab("Slide")
        self.page.get_by_label("Layout", exact=True).select_option("two columns")
        item = self.until(lambda: (o := self.slide(show, slide_id)["objects"][0])["box"]["width"] == 522 and o)
        self.assertEqual(item["paragraphs"][0]["runs"][0]["text"], "31 metres of it")


class SeveralTest(StageTest):
    def test_a_frame_drawn_over_several_picks_what_is_wholly_inside(self) -> None:
        show = self.compose("esc-s")
        self.squares(show, (100, 300), (200, 300), (300, 420))
        scale = self.page.evaluate(
            "document.querySelector('.theatre [data-stage]').getBoundingClientRect().width / 1280"
        )
        box = self.page.locator(".theatre [data-stage]").bounding_box()
        assert box
        self.page.mouse.move(box["x"] + 80 * scale, box["y"] + 280 * scale)
        self.page.mouse.down()
        self.page.mouse.move(box["x"] + 280 * scale, box["y"] + 380 * scale, steps=4)
        self.page.mouse.up()
        expect(self.page.get_by_role("heading", name="2 objects")).to_be_visible()

    def test_a_group_is_picked_moved_and_lined_up_as_one(self) -> None:
        show = self.compose("esc-s")
        self.squares(show, (100, 300), (200, 330))
        self.pick("s0", "s1")
        self.page.get_by_role("button", name="Group", exact=True).click()
        self.until(
            lambda: (
                self.objects(show)["s0"]["group"]
                and self.objects(show)["s0"]["group"] == self.objects(show)["s1"]["group"]
            )
        )
        self.page.keyboard.press("Escape")
        self.pick("s1")
        expect(self.page.get_by_role("heading", name="Group of 2 objects")).to_be_visible()
        self.drag('.theatre [data-object="s0"] path', 37, 51, keys=("Alt",))
        moved = self.until(lambda: (o := self.objects(show))["s0"]["box"]["x"] != 100 and o)
        self.assertAlmostEqual(moved["s1"]["box"]["x"] - moved["s0"]["box"]["x"], 100)
        self.assertAlmostEqual(moved["s1"]["box"]["y"] - moved["s0"]["box"]["y"], 30)
        self.page.get_by_role("button", name="Centre across").click()
        centred = self.until(lambda: (o := self.objects(show))["s0"]["box"]["x"] == 560 and o)
        self.assertEqual(centred["s1"]["box"]["x"], 660)

    def test_sides_are_lined_up_and_gaps_made_equal(self) -> None:
        show = self.compose("esc-s")
        self.squares(show, (100, 300), (180, 340), (400, 380))
        self.pick("s0", "s1", "s2")
        self.page.get_by_role("button", name="Tops").click()
        self.until(lambda: [self.objects(show)[f"s{n}"]["box"]["y"] for n in range(3)] == [300, 300, 300])
        self.page.get_by_role("button", name="Equal gaps across").click()
        self.until(lambda: [self.objects(show)[f"s{n}"]["box"]["x"] for n in range(3)] == [100, 250, 400])

    def test_a_third_snaps_to_an_equal_gap_and_a_side_to_anothers_length_with_numbers_shown(self) -> None:
        show = self.compose("esc-s")
        self.squares(show, (100, 300), (200, 300), (330, 460))
        self.pick("s2")
        self.drag('.theatre [data-object="s2"] path', -28, -157, up=False)
        expect(self.page.locator(".frames .guides text").filter(has_text="40").first).to_be_visible()
        self.page.mouse.up()
        self.until(lambda: self.objects(show)["s2"]["box"]["x"] == 300)

    def test_where_the_same_object_stands_next_door_is_a_guide_and_one_press_goes_there(self) -> None:
        show = self.compose("esc-s")
        self.at_tab("Slide")
        self.page.get_by_role("button", name="Duplicate").click()
        self.until(lambda: len(self.score(show)["order"]) == 10)
        copy = self.score(show)["order"][3]
        self.page.wait_for_url(re.compile(f"slide={copy}"))
        ticks = next(o for o in self.slide(show, copy)["objects"] if o["name"] == "Ticks")
        expect(self.page.locator(f'.theatre [data-object="{ticks["id"]}"] text').first).to_be_visible()
        self.page.locator(f'.theatre [data-object="{ticks["id"]}"] text').first.click()
        self.page.keyboard.press("Shift+ArrowRight")
        self.page.keyboard.press("Shift+ArrowDown")
        self.until(
            lambda: next(o for o in self.slide(show, copy)["objects"] if o["name"] == "Ticks")["box"]["y"] == 570
        )
        self.drag(f'.theatre [data-object="{ticks["id"]}"] text', -7, 0, up=False)
        expect(self.page.locator(".frames .guides text").filter(has_text="on the slide before").first).to_be_visible()
        self.page.mouse.up()
        self.page.get_by_role("tab", name="Place").click()
        self.page.get_by_role("button", name="As on the slide before").click()
        self.until(
            lambda: next(o for o in self.slide(show, copy)["objects"] if o["name"] == "Ticks")["box"] == ticks["box"]
        )

    def test_a_handle_turns_in_steps_and_pulls_a_bubbles_tail(self) -> None:
        show = self.compose("esc-s")
        self.squares(show, (300, 380), form="bubble", corner_px=10)
        self.pick("s0")
        self.drag('[data-handle="turn"] .handle', 120, 40)
        self.until(
            lambda: (
                self.objects(show)["s0"]["box"]["turn_deg"] % 15 == 0
                and self.objects(show)["s0"]["box"]["turn_deg"] > 0
            )
        )
        self.page.keyboard.press("Control+z")
        self.until(lambda: self.objects(show)["s0"]["box"]["turn_deg"] == 0)
        # The page shows it too, before its handle is taken hold of.
        self.page.wait_for_selector(f'#compose[data-revision="{self.score(show)["revision"]}"]')
        self.drag('[data-handle="tail"] .handle', 90, -30)
        tail = self.until(lambda: (o := self.objects(show)["s0"])["tail_x"] != 0.2 and o)
        self.assertAlmostEqual(tail["tail_x"], 0.2 + 1.5, delta=0.05)

    def test_slides_picked_together_change_together(self) -> None:
        show = self.compose("esc-s")
        bars = self.page.locator('.score [data-pick="slide"]')
        bars.nth(1).click(modifiers=["Control"], position={"x": 40, "y": 30})
        bars.nth(3).click(modifiers=["Control"], position={"x": 40, "y": 30})
        expect(self.page.get_by_role("heading", name="3 slides")).to_be_visible()
        self.page.get_by_label("Transition", exact=True).select_option("push")
        slides = self.until(lambda: (s := self.score(show)["slides"])["two-s"]["transition"]["name"] == "push" and s)
        self.assertEqual([slides[key]["transition"]["name"] for key in ("who-s", "esc-s", "two-s")], ["push"] * 3)
        self.page.keyboard.press("Control+z")
        self.until(lambda: self.score(show)["slides"]["two-s"]["transition"]["name"] == "cut")

    def test_a_picture_is_cut_on_the_stage_and_shown_again(self) -> None:
        show = self.compose("two-s")
        self.page.locator('.theatre [data-object="train"] image').click()
        self.page.get_by_role("tab", name="Look").click()
        self.page.get_by_role("button", name="Cut on the stage").click()
        expect(self.page.locator(".frames .ghost image")).to_have_count(1)
        before = self.objects(show, "two-s")["train"]
        self.drag('[data-handle="w"] .handle', 160, 0)
        cut = self.until(lambda: (o := self.objects(show, "two-s")["train"])["crop"] != before["crop"] and o)
        self.assertAlmostEqual(cut["box"]["x"], before["box"]["x"] + 160, delta=1)
        self.assertAlmostEqual(cut["box"]["width"], before["box"]["width"] - 160, delta=1)
        self.page.keyboard.press("Control+z")
        self.until(lambda: self.objects(show, "two-s")["train"] == before)

    def test_slides_are_picked_together_from_the_keyboard(self) -> None:
        self.compose("esc-s")
        self.page.locator("[data-stage]").focus()
        self.page.keyboard.press("Shift+PageDown")
        self.page.keyboard.press("Shift+PageDown")
        expect(self.page.get_by_role("heading", name="3 slides")).to_be_visible()


class ListTest(StageTest):
    def test_the_list_names_what_cannot_be_seen_and_picks_on_the_stage(self) -> None:
        show = self.compose("esc-s")
        self.squares(show, (2000, 100))
        self.page.locator(".fold-head").click()
        row = self.page.locator('[data-listed="s0"]')
        expect(row).to_contain_text("outside the frame")
        expect(self.page.locator('[data-listed="wheel"]')).to_contain_text("away at first")
        self.page.locator('[data-listed="axle"] .who').click()
        expect(self.page.locator('[data-listed="axle"]')).to_have_attribute("aria-current", "true")
        expect(self.page.get_by_label("Name of the object")).to_have_value("Axle")

    def test_locked_objects_stay_and_those_put_aside_are_out_of_the_way_but_play(self) -> None:
        show = self.compose("esc-s")
        self.page.locator(".fold-head").click()
        self.page.get_by_role("button", name="Lock Ticks").click()
        self.until(lambda: self.objects(show)["ticks"]["locked"])
        self.drag('.theatre [data-object="ticks"] text', 60, -80)
        self.page.get_by_role("button", name="Put Wheel aside").click()
        self.until(lambda: self.objects(show)["wheel"]["aside"])
        self.assertEqual(self.objects(show)["ticks"]["box"]["x"], 84)
        expect(self.page.locator('.theatre [data-object="wheel"]')).to_be_hidden()
        performance = self.page.request.get(f"{self.base}/shows/{show}/performance.json").json()
        self.assertIn("wheel", [item["object_id"] for item in performance["slides"][2]["drawing"]["objects"]])

    def test_the_stacking_moves_by_keys(self) -> None:
        show = self.compose("esc-s")
        self.page.locator(".fold-head").click()
        self.page.locator('[data-listed="esc-h"] .who').focus()
        self.page.keyboard.press("Alt+ArrowUp")
        self.until(lambda: list(self.objects(show))[:2] == ["esc-t", "esc-h"])
        expect(self.page.locator('[data-listed="esc-h"] .who')).to_be_focused()

    def test_arrows_on_the_stage_go_from_object_to_object(self) -> None:
        self.compose("esc-s")
        self.page.locator("[data-stage]").focus()
        self.page.keyboard.press("ArrowRight")
        expect(self.page.get_by_label("Name of the object")).to_have_value("Heading")
        self.page.keyboard.press("Alt+ArrowRight")
        expect(self.page.get_by_label("Name of the object")).to_have_value("Explanation")


class CopyTest(StageTest):
    def test_a_copy_goes_the_same_step_on_when_duplicated_again(self) -> None:
        show = self.compose("esc-s")
        self.squares(show, (100, 300))
        self.pick("s0")
        self.page.keyboard.press("Control+d")
        first = self.until(lambda: next((o for o in self.objects(show).values() if o["lineage"] == "s0"), None))
        self.page.wait_for_selector(f'.theatre [data-object="{first["id"]}"]')
        self.page.keyboard.press("Shift+ArrowRight")
        self.page.keyboard.press("Shift+ArrowRight")
        self.until(lambda: self.objects(show)[first["id"]]["box"]["x"] == 140)
        self.page.keyboard.press("Control+d")
        second = self.until(
            lambda: next(
                (o for o in self.objects(show).values() if o["lineage"] == "s0" and o["id"] != first["id"]), None
            )
        )
        self.assertEqual((second["box"]["x"], second["box"]["y"]), (180, 340))

    def test_objects_are_pasted_on_another_slide_in_the_same_place_and_in_another_show_with_their_picture(self) -> None:
        show = self.compose("two-s")
        self.page.locator('.theatre [data-object="train"] image').click()
        self.page.keyboard.press("Control+c")
        self.page.keyboard.press("PageDown")
        expect(self.opened()).to_contain_text("What we mended")
        self.page.keyboard.press("Control+v")
        copy = self.until(
            lambda: next((o for o in self.slide(show, "men-s")["objects"] if o["kind"] == "picture"), None)
        )
        self.assertEqual((copy["box"]["x"], copy["box"]["y"]), (560, 84))
        self.page.goto(self.base + "/shows/start")
        self.page.get_by_label("Title of the new show").fill("Borrowed")
        self.page.get_by_role("button", name="A self-running show").click()
        self.page.wait_for_selector(".theatre [data-object]")
        other = self.page.url.split("/shows/")[1].split("/")[0]
        self.page.keyboard.press("Control+v")
        self.until(lambda: any(o["kind"] == "picture" for o in self.slide(other, "opening")["objects"]))
        self.assertEqual([asset["name"] for asset in self.score(other)["assets"]], ["The going train"])

    def test_slides_are_copied_between_shows(self) -> None:
        self.compose("esc-s")
        self.page.locator('.score [data-pick="slide"]').nth(1).click(modifiers=["Control"], position={"x": 40, "y": 30})
        self.page.keyboard.press("Control+c")
        other = self.copy_of_demo()
        self.page.goto(f"{self.base}/shows/{other}/?slide=noon-s")
        self.page.wait_for_selector(".theatre [data-object]")
        self.page.keyboard.press("Control+v")
        score = self.until(lambda: (s := self.score(other)) and len(s["order"]) == 11 and s)
        self.assertEqual(
            [score["slides"][key]["name"] for key in score["order"][:3]],
            ["Orlmere at noon", "Who winds it?", "The escapement"],
        )

    def test_a_look_is_carried_to_another_object(self) -> None:
        show = self.compose("esc-s")
        self.pick("ticks")
        self.page.get_by_role("tab", name="Look").click()
        self.page.get_by_role("button", name="Copy the look").click()
        self.pick("esc-t")
        self.page.get_by_role("button", name="Look of Ticks").click()
        self.until(
            lambda: self.objects(show)["esc-t"]["colour"] == "@accent" and self.objects(show)["esc-t"]["size_px"] == 40
        )

    def paste(self, kinds: dict[str, str]) -> None:
        self.page.evaluate(
            """(kinds) => {
              const data = new DataTransfer();
              for (const [kind, text] of Object.entries(kinds)) data.setData(kind, text);
              document.body.dispatchEvent(new ClipboardEvent("paste", { clipboardData: data, bubbles: true, cancelable: true }));
            }""",
            kinds,
        )

    def test_a_whole_web_page_comes_in_as_clean_lines_and_lists(self) -> None:
        show = self.compose("esc-s")
        html = (
            "<html><body><script>alert(1)</script><h1 style='color:red'>The "
            "tower</h1><ul><li>Oil</li></ul></body></html>"
        )
        self.paste({"text/html": html, "text/plain": "The tower\r\n\r\n• Oil\r\n  • and tallow\r\n1. Wind it\r\n"})
        item = self.until(
            lambda: next((o for o in self.objects(show).values() if o["name"].startswith("The tower")), None)
        )
        found = [(p["runs"], p.get("list", "none"), p.get("level", 0)) for p in item["paragraphs"]]
        self.assertEqual(
            found,
            [
                ([{"text": "The tower"}], "none", 0),
                ([{"text": ""}], "none", 0),
                ([{"text": "Oil"}], "bullets", 0),
                ([{"text": "and tallow"}], "bullets", 1),
                ([{"text": "Wind it"}], "numbers", 0),
            ],
        )

    def test_too_much_text_is_refused_with_the_limit_and_nothing_changes(self) -> None:
        show = self.compose("esc-s")
        before = self.score(show)["revision"]
        self.paste({"text/plain": "x" * 100_001})
        expect(self.page.get_by_role("alert")).to_contain_text("100,001 characters; a text holds up to 100,000")
        self.assertEqual(self.score(show)["revision"], before)


class WordsTest(StageTest):
    def written(self, show: str) -> list[dict[str, Any]]:
        return self.slide(show, "esc-s")["objects"][-1].get("paragraphs", [])  # type: ignore[no-any-return]

    def test_looks_are_given_to_what_is_marked_and_lists_by_typing(self) -> None:
        show = self.compose("esc-s")
        self.page.locator('[data-add="text"]').click()
        expect(self.page.locator(".words-field")).to_be_focused()
        type_ = self.page.keyboard.type
        type_("Wind it every evening")
        for _ in range(len("evening")):
            self.page.keyboard.press("Shift+ArrowLeft")
        self.page.keyboard.press("Control+b")
        self.page.get_by_label("Highlight", exact=True).select_option("@raised")
        self.page.locator(".words-field").focus()
        self.page.keyboard.press("Control+End")
        self.page.keyboard.press("Enter")
        type_("- Oil")
        self.page.keyboard.press("Enter")
        self.page.keyboard.press("Tab")
        type_("and tallow")
        self.page.get_by_role("button", name="Done").click()
        paragraphs = self.until(lambda: (p := self.written(show)) and len(p) == 3 and p)
        self.assertEqual(
            paragraphs[0]["runs"],
            [{"text": "Wind it every "}, {"text": "evening", "weight": 700, "highlight": "@raised"}],
        )
        self.assertEqual([(p.get("list"), p.get("level", 0)) for p in paragraphs[1:]], [("bullets", 0), ("bullets", 1)])

    def test_a_link_leads_out_of_the_show_when_it_is_pressed(self) -> None:
        show = self.compose("esc-s")
        self.page.locator('[data-add="text"]').click()
        expect(self.page.locator(".words-field")).to_be_focused()
        self.page.keyboard.type("our page")
        self.page.keyboard.press("Control+a")
        self.page.get_by_role("button", name="Link", exact=True).click()
        self.page.get_by_label("Link", exact=True).last.fill("tower.orlmere.example")
        self.page.keyboard.press("Enter")
        self.page.keyboard.press("Escape")
        self.until(lambda: (p := self.written(show)) and p[0]["runs"][0].get("link") == "https://tower.orlmere.example")
        self.page.goto(f"{self.base}/shows/{show}/play?from=esc-s&mode=on cue")
        self.page.wait_for_selector(".house[data-ready]")
        self.page.evaluate("window.opened = []; window.open = (address) => { window.opened.push(address); }; null")
        self.page.locator(".house [data-link]").click()
        self.assertEqual(self.page.evaluate("window.opened"), ["https://tower.orlmere.example"])

    def test_words_are_written_inside_a_shape(self) -> None:
        show = self.compose("esc-s")
        self.squares(show, (300, 380), size_px=14)
        self.page.locator('.theatre [data-object="s0"] path').dblclick()
        self.page.keyboard.type("Oil")
        self.page.keyboard.press("Escape")
        self.until(
            lambda: (
                self.objects(show)["s0"]["paragraphs"]
                and self.objects(show)["s0"]["paragraphs"][0]["runs"][0]["text"] == "Oil"
            )
        )
        expect(self.page.locator('.theatre [data-object="s0"] text')).to_have_text("Oil")

    def test_a_text_too_long_shrinks_and_says_when_it_can_no_longer_be_read(self) -> None:
        show = self.compose("esc-s")
        self.pick("esc-t")
        words = " ".join(["tick tock"] * 120)
        self.add(show, {"do": "change text", "slide_id": "esc-s", "object_id": "esc-t", "text": words, "stem": "n"})
        self.page.get_by_role("tab", name="Look").click()
        self.page.get_by_role("button", name="Shrinks").click()
        expect(self.page.locator(".wrong")).to_contain_text("too small to read from afar")


class ThemeTest(StageTest):
    def test_a_theme_reaches_what_follows_and_tells_how_many_and_one_press_returns_to_it(self) -> None:
        show = self.compose("esc-s")
        self.page.locator("#open-themes").click()
        self.page.locator('[data-theme="Night watch"]').click()
        expect(self.page.locator(".toast")).to_contain_text(
            re.compile(
                r"“Night watch”: \d+ slides and \d+ objects follow the theme; \d+ backgrounds and \d+ "
                r"objects set by hand stay"
            )
        )
        self.assertEqual(self.score(show)["settings"]["theme"]["name"], "Night watch")
        self.page.get_by_label("Close the themes").click()
        heading = self.page.locator('.theatre [data-object="esc-h"] text')
        expect(heading).to_have_attribute("fill", "#f4efe2")
        self.pick("esc-h")
        self.page.get_by_role("tab", name="Look").click()
        self.page.get_by_label("Font", exact=True).select_option("Fira Sans")
        expect(self.page.locator(".differs")).to_contain_text("Differs from the theme: font")
        self.page.get_by_role("button", name="Return to it").click()
        self.until(lambda: self.objects(show)["esc-h"]["family"] == "@body")

    def test_a_theme_of_ones_own_warns_of_weak_contrast(self) -> None:
        show = self.compose("esc-s")
        self.page.locator("#open-themes").click()
        field = self.page.get_by_label("Softer words of the theme")
        field.evaluate("(node) => { node.value = '#d8d0bd'; node.dispatchEvent(new Event('change')); }")
        expect(self.page.locator(".theme-own .wrong")).to_contain_text("Hard to read: soft on")
        self.assertEqual(self.score(show)["settings"]["theme"]["palette"]["soft"], "#d8d0bd")

    def test_another_frame_keeps_everything(self) -> None:
        show = self.compose("esc-s")
        before = len(self.objects(show))
        self.page.locator("#open-themes").click()
        self.page.get_by_label("Shape of the frame").select_option("720x1280")
        self.until(lambda: self.score(show)["settings"]["frame"] == {"width_px": 720, "height_px": 1280})
        self.assertEqual(len(self.objects(show)), before)
        self.page.get_by_label("Slide numbers").check()
        self.until(lambda: self.score(show)["settings"]["furniture"]["numbers"])


class WritingTest(StageTest):
    def test_a_double_press_anywhere_in_a_text_edits_it(self) -> None:
        self.compose("esc-s")
        words = self.page.locator('.theatre [data-object="esc-t"] text').first.bounding_box()
        assert words
        self.page.mouse.dblclick(words["x"] + words["width"] + 30, words["y"] + words["height"] / 2)
        expect(self.page.locator(".words-field")).to_be_focused()


class RightToLeftTest(StageTest):
    def test_text_right_to_left_is_edited_and_named_from_right_to_left(self) -> None:
        self.compose("esc-s")
        self.page.locator('[data-add="text"]').click()
        expect(self.page.locator(".words-field")).to_be_focused()
        self.page.keyboard.type("שעון המגדל\nThe tower clock")
        runs = "(nodes) => nodes.map((node) => [getComputedStyle(node).direction, getComputedStyle(node).textAlign])"
        paragraphs = self.page.locator(".words-field p")
        expect(paragraphs).to_have_count(2)
        self.assertEqual(paragraphs.evaluate_all(runs), [["rtl", "start"], ["ltr", "start"]])
        self.page.keyboard.press("Escape")
        name = self.page.get_by_label("Name of the object")
        expect(name).to_have_value(re.compile("^שעון המגדל"))
        self.assertEqual(name.evaluate("(node) => getComputedStyle(node).direction"), "rtl")


class ThumbnailTest(StageTest):
    def test_the_small_picture_of_an_edited_slide_stays_until_the_new_one_is_there(self) -> None:
        show = self.compose("esc-s")
        picture = self.page.locator('.score image[href*="/thumbs/esc-s/"]').first
        old = picture.get_attribute("href")
        self.page.wait_for_load_state("networkidle")
        held: list[Any] = []
        self.page.route("**/thumbs/esc-s/*", lambda route: held.append(route))
        self.add(show, {"do": "remove objects", "slide_id": "esc-s", "object_ids": ["ticks"]})
        self.until(lambda: held, "the new one is asked for")
        expect(picture).to_have_attribute("href", old or "")
        for route in held:
            route.continue_()
        expect(picture).not_to_have_attribute("href", old or "")


class PressTest(StageTest):
    def test_a_press_on_an_object_goes_to_its_slide_with_mouse_and_keyboard(self) -> None:
        show = self.compose("esc-s")
        self.pick("ticks")
        self.page.get_by_role("tab", name="When pressed").click()
        self.page.get_by_label("When pressed", exact=True).select_option("slide")
        self.page.get_by_label("Slide to go to").select_option("bell-s")
        self.until(lambda: self.objects(show)["ticks"]["press"] == {"do": "slide", "slide_id": "bell-s"})
        expect(self.page.locator(".press-badge")).to_have_count(1)
        for way in ("mouse", "keyboard"):
            self.page.goto(f"{self.base}/shows/{show}/play?from=esc-s&mode=on cue")
            self.page.wait_for_selector(".house[data-ready]")
            self.page.keyboard.press("ArrowRight")
            self.page.keyboard.press("ArrowRight")
            self.page.wait_for_selector('.house[data-beat="2"]')
            target = self.page.locator('.house [data-press="slide"]')
            expect(target).to_be_visible()
            if way == "mouse":
                target.locator("text").click()
            else:
                target.focus()
                self.page.keyboard.press("Enter")
            self.page.wait_for_selector('.house[data-slide="bell-s"]')


class PenTest(StageTest):
    def test_a_line_drawn_by_hand_becomes_a_shape(self) -> None:
        show = self.compose("esc-s")
        self.page.locator('[data-tray="shape"]').click()
        self.page.locator(".tray").get_by_role("button", name="Freehand").click()
        box = self.page.locator("[data-stage]").bounding_box()
        assert box
        self.page.mouse.move(box["x"] + 60, box["y"] + 200)
        self.page.mouse.down()
        for step in range(12):
            self.page.mouse.move(box["x"] + 60 + step * 12, box["y"] + 200 + (step % 4) * 9)
        self.page.mouse.up()
        item = self.until(lambda: next((o for o in self.objects(show).values() if o.get("form") == "path"), None))
        self.assertTrue(item["path"].startswith("M 0 0") or item["path"].startswith("M "))
        self.assertIn(" C ", item["path"])

    def test_an_object_that_was_moved_elsewhere_meanwhile_goes_where_it_was_moved_last(self) -> None:
        show = self.compose("esc-s")
        self.squares(show, (100, 300), (300, 300))
        self.expected_complaints = ("events",)
        self.page.route("**/events*", lambda route: route.abort())
        self.page.reload()
        self.page.wait_for_selector('.theatre [data-object="s0"]')
        for name in ("s0", "s1"):
            move = {"do": "move objects", "slide_id": "esc-s", "object_ids": [name], "dx": 0, "dy": 40}
            self.add(show, move, seen=False)
        self.drag('.theatre [data-object="s0"] path', 120, 0, keys=("Alt",))
        moved = self.until(lambda: (o := self.objects(show)) and o["s0"]["box"]["x"] > 150 and o)
        self.assertEqual((moved["s0"]["box"]["y"], moved["s1"]["box"]["y"]), (300, 340))
        expect(self.page.get_by_role("alert")).to_have_count(0)
        expect(self.page.locator('.theatre [data-object="s1"]')).to_be_visible()
