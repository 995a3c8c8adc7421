"""How far long work is, for those who listen: at a human pace, however often the page tells those who see."""

import re
from typing import Any

from playwright.sync_api import Page, expect

from tests.browser.base import BrowserTest

GATHER = """
window.heard = [];
window.seen = [];
window.liveLines = 0;
new MutationObserver(() => {
  const status = document.querySelector("p.sr-only[role=status]:last-of-type")?.textContent;
  if (status && status !== window.heard.at(-1)) window.heard.push(status);
  const line = document.querySelector(".coming-in span, [data-film] > .said")?.textContent;
  if (line && line !== window.seen.at(-1)) window.seen.push(line);
  window.liveLines += document.querySelectorAll(".coming-in[role], [data-films] [role=status], [aria-live]").length;
}).observe(document, { subtree: true, childList: true, characterData: true });
"""
PACED = """
async () => {
  const { PacedStatus } = await import("/static/ritornel/ui/progress-line.js");
  window.paced = new PacedStatus();
}
"""


class SaidProgressTest(BrowserTest):
    def gather(self, page: Page) -> None:
        page.evaluate(GATHER)

    def test_words_are_said_at_once_then_those_of_every_ten_seconds_and_at_once_when_other_work_begins(self) -> None:
        # A clock is for all pages of a context, and stays.
        page = self.new_page(self.new_context(storage_state=self.context.storage_state()))
        page.clock.install()
        page.goto(self.base + "/")
        page.evaluate(PACED)
        status = page.locator("body > p.sr-only[role=status]")
        for second in range(25):
            page.evaluate("words => window.paced.say(words)", f"{second} s")
            page.clock.run_for(1000)
            expect(status).to_have_text(f"{second // 10 * 10} s")
        page.evaluate("() => { window.paced.rest(); window.paced.say('Ready'); }")
        page.clock.run_for(100)
        expect(status).to_have_text("Ready")

    def test_files_that_come_onto_the_shelf_are_seen_one_by_one_and_said_at_a_pace(self) -> None:
        show = self.copy_of_demo()
        page = self.page
        page.goto(f"{self.base}/shows/{show}/?slide=esc-s")
        page.wait_for_selector(".score .build")
        page.locator("#open-shelf").click()
        expect(page.get_by_label("Find on the shelf")).to_be_focused()
        self.gather(page)
        files: list[Any] = [
            {"name": f"tooth-{n}.svg", "mimeType": "image/svg+xml", "buffer": tooth(n)} for n in range(12)
        ]
        began = page.evaluate("performance.now()")
        page.get_by_label("Choose pictures").set_input_files(files)
        expect(page.get_by_text("12 files are on the shelf.")).to_be_visible(timeout=120_000)
        took_ms = page.evaluate("performance.now()") - began
        heard, seen = page.evaluate("[window.heard, window.seen]")
        self.assertGreaterEqual(len(seen), 12)
        said = [words for words in heard if "on the shelf ·" in words]
        self.assertEqual(said[0], "0 of 12 on the shelf · tooth-0.svg")
        self.assertLessEqual(len(said), 1 + took_ms / 10_000)
        self.assertEqual(page.evaluate("window.liveLines"), 0, "what changes at every step is not live")
        expect(page.locator(".coming-in")).to_have_count(0)

    def test_a_film_is_said_to_be_under_way_and_then_to_be_ready(self) -> None:
        show = self.copy_of_demo()
        page = self.page
        page.goto(f"{self.base}/shows/{show}/release")
        expect(page.locator("#make-edition")).to_be_visible()
        self.gather(page)
        page.get_by_label("Size").select_option("640x360")
        page.get_by_role("button", name="Make the film").click()
        cancel = page.get_by_role("button", name="Cancel")
        expect(page.locator("[data-film]")).to_contain_text("s left", timeout=60_000)
        expect(page.get_by_role("progressbar", name="The Orlmere clock")).to_be_visible()
        cancel.focus()
        words = page.locator("[data-film] > .said").inner_text()
        expect(page.locator("[data-film] > .said")).not_to_have_text(words)
        expect(cancel).to_be_focused()
        page.keyboard.press("Enter")
        expect(page.locator('[data-state="cancelled"]')).to_be_visible()
        expect(page.locator("body > p.sr-only[role=status]")).to_have_text("The Orlmere clock: Cancelled")
        heard, seen = page.evaluate("[window.heard, window.seen]")
        self.assertLess(len(heard), len(seen))
        self.assertRegex(heard[0], r"^The Orlmere clock: (Waiting for the worker|\d+ %, )")
        self.assertEqual(page.evaluate("window.liveLines"), 0)

    def test_a_recording_says_when_it_begins_and_when_it_pauses(self) -> None:
        show = self.copy_of_demo()
        page = self.page
        page.goto(f"{self.base}/shows/{show}/record?section=men-s")
        page.wait_for_selector(".record[data-ready]")
        page.get_by_label("Practice microphone").check()
        page.click("#count-in")
        page.click("#count-in")
        page.click("#record-go")
        status = page.locator("body > p.sr-only[role=status]")
        expect(status).to_have_text("Recording, 0 s, slide 5")
        page.wait_for_function("() => document.querySelector('#take-time').textContent >= '0:01'")
        expect(status).to_have_text("Recording, 0 s, slide 5")
        page.click("#pause")
        expect(status).to_have_text(re.compile(r"Paused, [12] s, slide 5"))


def tooth(number: int) -> bytes:
    """A small drawing of its own, so that none is taken for another."""
    return f'<svg xmlns="http://www.w3.org/2000/svg" width="20" height="20"><circle r="{number + 1}"/></svg>'.encode()
