"""Compose by finger, with the browser's own touch events."""

from typing import Any

from playwright.sync_api import expect

from tests.browser.base import Finger
from tests.browser.test_stage import StageTest


class FingerTest(StageTest):
    def hold(self, show: str) -> int:
        wait = self.score(show)["slides"]["esc-s"]["schedule"]["beats"][1]["wait"]
        return int(wait["hold_ms"])

    def middle(self, selector: str) -> tuple[float, float]:
        box: Any = self.until(self.page.locator(selector).first.bounding_box)
        return box["x"] + box["width"] / 2, box["y"] + box["height"] / 2

    HOLD = '.score [data-drag="hold"][data-slide="esc-s"][data-beat="1"]'

    def test_a_hold_is_pulled_by_a_finger_that_rests_and_is_saved(self) -> None:
        show = self.compose("esc-s")
        before = self.hold(show)
        x, y = self.middle(self.HOLD)
        finger = Finger(self.page)
        finger.down(x, y)
        expect(self.page.locator(".number-tag")).to_contain_text("Hold")
        finger.move(x + 40, y)
        finger.up()
        self.until(lambda: self.hold(show) > before)
        expect(self.page.locator(".number-tag")).to_be_hidden()

    def test_a_finger_that_moves_at_once_scrolls_and_neither_it_nor_the_next_tap_writes_anything(self) -> None:
        show = self.compose("esc-s")
        before = self.score(show)
        x, y = self.middle(self.HOLD)
        finger = Finger(self.page)
        finger.down(x, y)
        finger.move(x - 120, y)
        finger.up()
        finger.tap(x + 200, y + 60)
        expect(self.page.locator(".number-tag")).to_be_hidden()
        self.assertEqual(self.score(show)["revision"], before["revision"])

    def test_a_pull_that_the_browser_takes_away_puts_things_back(self) -> None:
        show = self.compose("esc-s")
        before = self.score(show)["revision"]
        x, y = self.middle(self.HOLD)
        self.page.mouse.move(x, y)
        self.page.mouse.down()
        self.page.mouse.move(x + 60, y, steps=3)
        expect(self.page.locator(".number-tag")).to_contain_text("Hold")
        self.page.evaluate(
            "() => window.dispatchEvent(new PointerEvent('pointercancel', { pointerId: 1, pointerType: 'mouse' }))"
        )
        expect(self.page.locator(".number-tag")).to_be_hidden()
        self.page.mouse.move(x + 200, y, steps=3)
        self.page.mouse.up()
        self.page.locator(".score").click(position={"x": 300, "y": 20})
        self.assertEqual(self.score(show)["revision"], before)

    def test_an_object_is_moved_on_the_stage_by_a_finger_without_waiting(self) -> None:
        show = self.compose("esc-s")
        before = self.objects(show)["axle"]["box"]
        x, y = self.at('.theatre [data-object="axle"] path')
        finger = Finger(self.page)
        finger.down(x, y)
        finger.move(x + 60, y + 20)
        finger.up()
        self.until(lambda: self.objects(show)["axle"]["box"]["x"] > before["x"])

    def test_slides_change_places_in_the_overview_by_a_finger_that_rests(self) -> None:
        show = self.compose("esc-s")
        self.page.get_by_role("button", name="Overview").click()
        before = self.score(show)["order"]
        x, y = self.middle(f'.ov-bar[data-slide="{before[0]}"]')
        to_x, to_y = self.middle(f'.ov-bar[data-slide="{before[2]}"]')
        finger = Finger(self.page)
        finger.down(x, y)
        self.page.locator(".ov-bar.dragged").wait_for()
        finger.move(to_x + 30, to_y)
        finger.up()
        self.until(lambda: self.score(show)["order"] == [before[1], before[2], before[0], *before[3:]])

    def test_objects_change_their_place_in_depth_by_a_finger_that_rests(self) -> None:
        show = self.compose("esc-s")
        self.page.locator(".fold-head").click()
        ids = [item["id"] for item in self.slide(show, "esc-s")["objects"]]
        x, y = self.middle(f'[data-listed="{ids[-1]}"]')
        to_x, to_y = self.middle(f'[data-listed="{ids[-2]}"]')
        finger = Finger(self.page)
        finger.down(x, y)
        self.page.locator(".objects .dragged").wait_for()
        finger.move(to_x, to_y + 10)
        finger.up()
        self.until(
            lambda: [item["id"] for item in self.slide(show, "esc-s")["objects"]] == [*ids[:-2], ids[-1], ids[-2]]
        )

    def test_a_finger_that_rests_on_an_object_opens_its_menu_and_one_that_moves_carries_it(self) -> None:
        show = self.compose("esc-s")
        before = self.objects(show)["ticks"]["box"]
        x, y = self.at('.theatre [data-object="ticks"] text')
        finger = Finger(self.page)
        finger.down(x, y)
        menu = self.page.get_by_role("menu")
        expect(menu.get_by_role("menuitem", name="Remove Ticks")).to_be_visible()
        finger.move(x + 60, y)
        finger.up()
        expect(menu).to_be_visible()
        self.assertEqual(self.objects(show)["ticks"]["box"], before)
        menu.get_by_role("menuitem", name="Place and size").click()
        expect(self.page.get_by_role("tab", name="Place")).to_have_attribute("aria-selected", "true")
        finger.down(x, y)
        finger.move(x + 60, y)
        finger.up()
        self.until(lambda: self.objects(show)["ticks"]["box"]["x"] > before["x"] + 30)
        expect(menu).to_have_count(0)
