"""The shelf, starters and shows from pictures, as a person uses them."""

import io
from typing import Any

from PIL import Image
from playwright.sync_api import expect

from tests.browser.base import BrowserTest


def picture(name: str, colour: str = "#204060", size: tuple[int, int] = (60, 40)) -> dict[str, Any]:
    out = io.BytesIO()
    Image.new("RGB", size, colour).save(out, "PNG")
    return {"name": name, "mimeType": "image/png", "buffer": out.getvalue()}


class ShelfTest(BrowserTest):
    def open_shelf(self, slide: str = "esc-s") -> str:
        show = self.compose(slide)
        self.page.locator("#open-shelf").click()
        expect(self.page.get_by_label("Find on the shelf")).to_be_focused()
        return show

    def test_a_tile_stays_where_it_is_while_its_picture_comes(self) -> None:
        """What is drawn anew under a finger or a pointer loses the press."""
        page, held = self.page, []
        page.route("**/shelf/smalls.json*", lambda route: held.append(route))
        page.route(
            "**/small", lambda route: route.fulfill(body=picture("small.png")["buffer"], content_type="image/png")
        )
        self.open_shelf()
        tiles = page.locator("#shelf .tile")
        self.until(lambda: bool(held))
        ids = tiles.evaluate_all("(all) => all.map((tile) => (tile.dataset.stood = '1', tile.dataset.asset))")
        for route in held:
            route.fulfill(json={"ready": ids, "missing": 0})
        page.wait_for_selector("#shelf .tile img")
        page.unroute("**/shelf/smalls.json*")
        expect(page.locator("#shelf .tile[data-stood]")).to_have_count(len(ids))
        tiles.first.click()
        expect(tiles.first).to_have_attribute("aria-pressed", "true")
        expect(page.locator("#shelf .tile[data-stood]")).to_have_count(len(ids))

    def choose(self, *files: dict[str, Any]) -> None:
        self.page.get_by_label("Choose pictures").set_input_files(list(files))  # type: ignore[arg-type]

    def test_many_files_come_in_one_broken_one_is_named_and_undo_takes_all_off_again(self) -> None:
        show = self.open_shelf()
        files = [picture(f"tooth-{n}.png", f"#{n:02x}4060") for n in range(16)]
        files.insert(7, {"name": "broken.png", "mimeType": "image/png", "buffer": b"\x89PNG\r\n\x1a\nnothing"})
        # The broken one is refused; and a small picture that is on its way when all are taken off again finds nothing.
        self.expected_complaints = ("400", "/small")
        self.choose(*files)
        expect(self.page.locator(".coming-in")).to_contain_text("of 17 on the shelf")
        # Seventeen files: on a busy machine longer than other conditions are awaited.
        expect(self.page.get_by_role("alert")).to_contain_text("broken.png", timeout=120_000)
        expect(self.page.get_by_role("alert")).to_contain_text("16 came in.")
        self.assertEqual(len(self.score(show)["assets"]), 22)
        expect(self.page.locator(".tile img")).to_have_count(21)
        self.page.locator("#undo").click()
        self.until(lambda: len(self.score(show)["assets"]) == 6)

    def test_things_are_found_by_words_kind_and_use_and_each_visit_begins_with_all(self) -> None:
        show = self.open_shelf()
        tiles = self.page.locator(".tile")
        expect(tiles).to_have_count(6)
        self.page.get_by_role("group", name="Kind").get_by_role("button", name="Sounds").click()
        expect(tiles).to_have_count(1)
        self.page.get_by_role("group", name="Kind").get_by_role("button", name="Pictures").click()
        self.page.get_by_label("Find on the shelf").fill("bell")
        expect(tiles).to_have_count(1)
        self.page.goto(f"{self.base}/shows/{show}/?slide=esc-s")
        self.page.wait_for_selector(".score .build")
        self.page.locator("#open-shelf").click()
        expect(tiles).to_have_count(6)
        self.page.get_by_label("Use", exact=True).select_option("unused")
        expect(self.page.locator(".shelf-grid")).to_contain_text("Nothing on the shelf answers to this.")

    def test_a_picture_is_looked_at_named_credited_and_replaced_everywhere(self) -> None:
        show = self.open_shelf()
        self.choose(picture("new-bell.png", "#c08020", (400, 500)))
        self.until(lambda: len(self.score(show)["assets"]) == 7)
        new = self.score(show)["assets"][-1]["id"]
        self.page.locator('[data-asset="bell"]').click()
        detail = self.page.get_by_label("Details on the shelf")
        expect(detail).to_contain_text("Used on")
        expect(detail.get_by_role("button", name="7 The bell")).to_be_visible()
        expect(detail.get_by_role("button", name="Take it off the shelf")).to_be_disabled()
        detail.get_by_label("Licence").fill("CC BY 4.0")
        detail.get_by_label("Licence").press("Enter")
        self.until(lambda: next(a for a in self.score(show)["assets"] if a["id"] == "bell")["licence"] == "CC BY 4.0")
        before = next(o for o in self.slide(show, "bell-s")["objects"] if o["kind"] == "picture")
        detail.get_by_label("Replace it everywhere by").select_option(new)
        after = self.until(
            lambda: (
                (o := next(o for o in self.slide(show, "bell-s")["objects"] if o["kind"] == "picture"))["asset_id"]
                == new
                and o
            )
        )
        self.assertEqual({**after, "asset_id": "bell"}, before)
        detail.get_by_role("button", name="Take it off the shelf").click()
        self.until(lambda: "bell" not in [a["id"] for a in self.score(show)["assets"]])

    def test_a_picture_takes_anothers_place_on_the_slide(self) -> None:
        show = self.compose("two-s")
        self.page.locator('.theatre [data-object="train"] image').click()
        self.page.get_by_role("tab", name="Look").click()
        self.page.get_by_role("button", name="Replace").click()
        expect(self.page.locator("#shelf h2")).to_have_text("Another picture for “Going train”")
        self.page.locator('[data-asset="dial"]').dblclick()
        item = self.until(lambda: (o := self.slide(show, "two-s")["objects"][0])["asset_id"] == "dial" and o)
        self.assertEqual((item["box"]["x"], item["corner_px"]), (560, 10))
        expect(self.page.locator("#shelf")).to_be_hidden()

    def test_a_hostile_svg_is_redrawn_and_told(self) -> None:
        show = self.open_shelf()
        shape = b'<rect width="40" height="20" fill="#8a2456"/>'
        svg = (
            b'<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 40 20" onload="alert(1)"><script>alert(1)</script>'
            + shape
            + b"</svg>"
        )
        self.choose({"name": "mark.svg", "mimeType": "image/svg+xml", "buffer": svg})
        expect(self.page.get_by_role("status").filter(has_text="redrawn without a script")).to_be_visible()
        asset = self.until(lambda: next((a for a in self.score(show)["assets"] if a["name"] == "mark"), None))
        self.assertEqual((asset["media_type"], asset["width_px"]), ("image/png", 2400))

    def test_a_font_is_refused_in_a_sentence(self) -> None:
        show = self.open_shelf()
        self.expected_complaints = ("400",)
        self.choose({"name": "own.otf", "mimeType": "font/otf", "buffer": b"OTTO0000"})
        expect(self.page.get_by_role("alert")).to_contain_text("“own.otf” is a font.")
        self.assertEqual(len(self.score(show)["assets"]), 6)


class StartTest(BrowserTest):
    def test_a_starter_is_looked_through_and_begun_in_three_presses(self) -> None:
        self.page.goto(self.base + "/")
        self.page.get_by_role("link", name="New show").click()
        self.page.locator('[data-starter="year"]').click()
        expect(self.page.locator(".stills img")).to_have_count(4)
        self.page.get_by_role("button", name="Start with this").click()
        self.page.wait_for_selector(".score .build")
        expect(self.page.get_by_label("Title of the show")).to_have_value("Our year in numbers")

    def test_pictures_become_slides_in_the_order_of_their_names(self) -> None:
        self.page.goto(self.base + "/shows/start")
        self.expected_complaints = ("400",)
        files = [picture(f"{n}.png", f"#{n:02x}4060", (320, 200)) for n in (10, 2, 1)]
        files.append({"name": "bad.png", "mimeType": "image/png", "buffer": b"nothing"})
        self.page.get_by_label("Choose pictures").set_input_files(files)  # type: ignore[arg-type]
        expect(self.page.locator("#chosen")).to_have_text("4 pictures")
        self.page.get_by_label("Each lasts").fill("4")
        self.page.get_by_label("Title of the picture show").fill("Teeth")
        self.page.get_by_role("button", name="Make the slides").click()
        self.page.wait_for_selector(".theatre [data-object]")
        expect(self.page.get_by_role("alert")).to_contain_text("bad.png")
        show = self.page.url.split("/shows/")[1].split("/")[0]
        score = self.score(show)
        self.assertEqual([score["slides"][key]["name"] for key in score["order"]], ["1", "2", "10"])
        self.assertEqual({score["slides"][key]["advance"]["after_ms"] for key in score["order"]}, {4000})

    def test_a_length_that_is_none_is_told_at_the_field(self) -> None:
        self.page.goto(self.base + "/shows/start")
        self.page.get_by_label("Choose pictures").set_input_files([picture("1.png")])  # type: ignore[list-item]
        self.page.get_by_label("Each lasts").fill("soon")
        self.page.get_by_role("button", name="Make the slides").click()
        expect(self.page.get_by_role("alert")).to_contain_text("Write how long each picture lasts")


class CatalogueTest(BrowserTest):
    def open(self) -> None:
        self.page.locator("#open-shelf").click()
        self.page.get_by_role("button", name="Catalogue", exact=True).click()

    def test_a_sound_is_found_by_words_and_brought_with_its_credit(self) -> None:
        show = self.compose("esc-s")
        self.open()
        self.page.get_by_label("Find in the catalogue").fill("winding")
        found = self.page.locator(".found")
        expect(found).to_have_count(1)
        expect(found).to_contain_text("by Tibor Hale")
        found.get_by_role("button", name="Add to the shelf").click()
        expect(found.get_by_role("button", name="On the shelf")).to_be_visible()
        self.until(
            lambda: "“Ratchet” by Tibor Hale, CC0 1.0" in [asset["credit"] for asset in self.score(show)["assets"]]
        )
        self.page.get_by_role("button", name="Shelf", exact=True).last.click()
        expect(self.page.locator(".tile[data-fresh] b")).to_have_text("Ratchet")

    def test_a_video_comes_by_its_address_and_a_wrong_one_is_told(self) -> None:
        show = self.compose("esc-s")
        self.expected_complaints = ("400",)
        self.open()
        address = self.page.get_by_label("Address of a video")
        address.fill("https://clips.orlmere.example/watch/nothing-here")
        address.press("Enter")
        expect(self.page.get_by_role("alert")).to_contain_text(
            "There is no video at “https://clips.orlmere.example/watch/nothing-here”"
        )
        address.fill("https://clips.orlmere.example/watch/pendulum-swings")
        self.page.get_by_role("button", name="Bring the video").click()
        self.until(lambda: "Pendulum swings" in [asset["name"] for asset in self.score(show)["assets"]])

    def test_a_catalogue_that_fails_says_so_and_can_be_asked_again(self) -> None:
        self.compose("esc-s")
        self.expected_complaints = ("503", "400")
        sentence = (
            "The catalogue cannot be asked now: It answered with an error (503). Nothing was changed; "
            "try again in a while."
        )
        self.page.route("**/catalogue?*", lambda route: route.fulfill(status=400, json={"error": sentence}))
        self.open()
        expect(self.page.locator(".catalogue").get_by_role("alert")).to_contain_text("cannot be asked now")
        self.page.unroute("**/catalogue?*")
        self.page.get_by_role("button", name="Try again").click()
        expect(self.page.locator(".found")).to_have_count(16)
