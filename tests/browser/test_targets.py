"""What is pressed is at least 24 px wide and high, and 44 px by finger where somebody plays, records or trims; no words
are smaller than 12 px; fields, their edges and what stands in them while they are empty can be seen.
"""

from typing import Any

from tests.browser.test_stage import StageTest

SEEN = """
  const isSeen = (node) => node.getClientRects().length && getComputedStyle(node).visibility !== "hidden";
  const named = (node) => (node.getAttribute("aria-label") ?? node.textContent).trim().slice(0, 40);
"""
CONTROLS = (
    "button, a[href].push, select, textarea, summary, input[type=range], input.field, [role=button], [role=slider]"
)
# A handle between two regions is as long as they are; what takes hold of it is a wider strip over it.
SMALL = (
    "([selector, least]) => {"
    + SEEN
    + """
  const size = (node) => {
    const { width, height } = node.getBoundingClientRect();
    const { width: w, height: h } = node.querySelector(":scope > .halo")?.getBoundingClientRect() ?? {};
    const { inset, content } = getComputedStyle(node, "::after");
    const more = content !== "none" && inset ? inset.split(" ").map((way) => -parseFloat(way)) : [0];
    const [top, right = top, bottom = top, left = right] = more;
    return [Math.max(width, w ?? 0) + Math.max(left + right, 0), Math.max(height, h ?? 0) + Math.max(top + bottom, 0)];
  };
  return [...document.querySelectorAll(selector)]
    .filter(isSeen)
    .filter((node) => !node.closest(".sr-only, [disabled], label"))
    // As wide as a build is long: what is too short for a finger has its row in the running order.
    .filter((node) => !node.matches(".score .build") || size(node)[1] < least)
    .map((node) => [named(node), ...size(node).map(Math.round)])
    .filter(([, width, height]) => Math.min(width, height) < least);
}"""
)
TINY = (
    "() => {"
    + SEEN
    + """
  return [...document.querySelectorAll("body *")]
    .filter((node) => [...node.childNodes].some((one) => one.nodeType === 3 && one.textContent.trim()))
    .filter((node) => isSeen(node) && !node.closest(".theatre, .picture, .house > svg, [data-stage], option"))
    .filter((node) => parseFloat(getComputedStyle(node).fontSize) < 12)
    .map((node) => [node.tagName, node.textContent.trim().slice(0, 40)]);
}"""
)
EMPTY = (
    "() => {"
    + SEEN
    + """
  const part = (value) => (value / 255 <= 0.04045 ? value / 255 / 12.92 : ((value / 255 + 0.055) / 1.055) ** 2.4);
  const light = (colour) => {
    const [r, g, b] = colour.match(/[\\d.]+/g).map(Number);
    return 0.2126 * part(r) + 0.7152 * part(g) + 0.0722 * part(b);
  };
  const contrast = (a, b) => {
    const [x, y] = [light(a), light(b)].sort((m, n) => n - m);
    return (x + 0.05) / (y + 0.05);
  };
  return [...document.querySelectorAll("input.field, textarea.field, select.field")].filter(isSeen).flatMap((node) => {
    const { backgroundColor: ground, borderTopColor: edge } = getComputedStyle(node);
    const words = getComputedStyle(node, "::placeholder").color;
    const found = [];
    if (contrast(edge, ground) < 3) found.push([named(node), "edge", contrast(edge, ground)]);
    if (node.placeholder && contrast(words, ground) < 4.5) found.push([named(node), "empty", contrast(words, ground)]);
    return found;
  });
}"""
)
PAGES = (
    ("/shows/{show}/?slide=esc-s", ".score .build"),
    ("/shows/{show}/record", ".record[data-ready]"),
    ("/shows/{show}/lectern", ".lectern[data-ready]"),
    ("/shows/{show}/release", ".finding"),
    ("/shows/{show}/people", "#invite"),
    ("/shows/{show}/comments", ".comments"),
    ("/shows/start", ".starters"),
    ("/", ".shows"),
)


class TargetsTest(StageTest):
    maxDiff = None

    def pages(self, show: str, script: str, *given: Any) -> dict[str, Any]:
        """What a script finds on each page; pages on which it finds nothing are left out."""
        found = {}
        for address, ready in PAGES:
            self.page.goto(self.base + address.format(show=show))
            self.page.wait_for_selector(ready)
            if wrong := self.page.evaluate(script, *given):
                found[address] = wrong
        return found

    def test_what_is_pressed_is_24_px_wide_and_high(self) -> None:
        self.assertEqual(self.pages(self.copy_of_demo(), SMALL, [CONTROLS, 24]), {})

    def test_no_words_are_smaller_than_12_px_and_fields_are_seen(self) -> None:
        show = self.copy_of_demo()
        self.assertEqual(self.pages(show, TINY), {})
        self.assertEqual(self.pages(show, EMPTY), {})
        self.page.goto(f"{self.base}/shows/{show}/?slide=esc-s")
        self.page.locator("#open-shelf").click()
        self.page.locator('[data-asset="works"]').click()
        self.page.get_by_placeholder("As it is to be named").wait_for()
        self.assertEqual(self.page.evaluate(EMPTY), [], "on the shelf, which is light over the dark stage")

    def test_by_finger_what_is_used_while_playing_and_recording_is_44_px(self) -> None:
        context = self.new_context(has_touch=True, is_mobile=True, storage_state=self.context.storage_state())
        self.page = self.new_page(context)
        self.page.goto(f"{self.base}/shows/orlmere/play?mode=on cue")
        self.page.wait_for_selector(".house[data-ready]")
        self.assertEqual(self.page.evaluate(SMALL, [".slim button", 44]), [])
        self.page.goto(f"{self.base}/shows/orlmere/record")
        self.page.wait_for_selector(".record[data-ready]")
        self.assertEqual(self.page.evaluate(SMALL, [".transport button", 44]), [])

    def test_what_is_picked_and_pressed_is_seen_where_the_system_chooses_the_colours(self) -> None:
        self.page = self.new_page(self.context)
        self.compose("esc-s")
        tab = self.page.get_by_role("tab", selected=True)
        outline = "(node) => getComputedStyle(node).outlineStyle"
        self.assertEqual(tab.evaluate(outline), "none")
        self.page.emulate_media(forced_colors="active")
        self.until(lambda: tab.evaluate(outline) == "solid")
        self.page.locator("#open-overview").click()
        self.until(lambda: self.page.locator('.ov-bar[aria-pressed="true"]').evaluate(outline) == "solid")

    def test_whoever_wants_more_contrast_gets_darker_words_and_edges(self) -> None:
        self.page = self.new_page(self.context)
        self.compose("esc-s")
        slate = "getComputedStyle(document.documentElement).getPropertyValue('--color-slate')"
        before = self.page.evaluate(slate)
        self.page.emulate_media(contrast="more")
        self.until(lambda: self.page.evaluate(slate) != before)
