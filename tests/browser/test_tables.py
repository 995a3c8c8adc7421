"""Tables are written, pasted, shaped and built row by row, as a person does it."""

from typing import Any

from playwright.sync_api import expect

from ritornel.core.document.cells import cells_of, row_of
from ritornel.core.document.decoding import to_builtins
from ritornel.core.document.objects import Paragraph, TextRun
from tests.browser.base import BrowserTest


class TableTest(BrowserTest):
    def table(self, show: str) -> dict[str, Any]:
        """The table of the slide, empty where there is none."""
        objects = self.slide(show, "esc-s")["objects"]
        return next((item for item in objects if item["kind"] == "table"), {})

    def rows(self, show: str) -> list[str]:
        paragraphs = self.table(show).get("paragraphs", [])
        return ["".join(run["text"] for run in paragraph["runs"]) for paragraph in paragraphs]

    def write(self, *rows: tuple[str, ...]) -> str:
        """A table of three columns, written by keys alone."""
        show = self.compose("esc-s")
        self.page.locator('[data-add="table"]').click()
        expect(self.page.locator(".words-field")).to_be_focused()
        for number, row in enumerate(rows):
            if number:
                self.page.keyboard.press("Tab")
            for column, words in enumerate(row):
                if column:
                    self.page.keyboard.press("Tab")
                self.page.keyboard.type(words)
        self.page.keyboard.press("Escape")
        self.until(lambda: self.rows(show)[: len(rows)] == ["\t".join(row) for row in rows], "the table is written")
        return show

    def paste(self, text: str) -> None:
        self.page.evaluate(
            """(text) => {
              const data = new DataTransfer();
              data.setData("text/plain", text);
              const target = document.activeElement ?? document.body;
              target.dispatchEvent(new ClipboardEvent("paste", { clipboardData: data, bubbles: true, cancelable: true }));
            }""",
            text,
        )

    def test_tab_goes_from_cell_to_cell_and_makes_a_row_at_the_end(self) -> None:
        show = self.write(
            ("Bell", "Note", "Cast"),
            ("Great", "D", "1712"),
            ("Quarter", "A", "1784"),
            ("Old", "", "?"),
            ("New", "E", "1920"),
        )
        self.assertEqual(len(self.rows(show)), 5)
        self.assertEqual(len(self.table(show)["columns"]), 3)

    def test_whoever_has_no_tab_goes_from_cell_to_cell_by_buttons(self) -> None:
        show = self.compose("esc-s")
        self.page.locator('[data-add="table"]').click()
        expect(self.page.locator(".words-field")).to_be_focused()
        self.page.keyboard.type("Bell")
        bar = self.page.get_by_role("toolbar", name="Look of the words")
        expect(bar.get_by_role("button", name="Bullets")).to_have_count(0)
        bar.get_by_role("button", name="Next cell").click()
        self.page.keyboard.type("Note")
        bar.get_by_role("button", name="New row").click()
        self.page.keyboard.type("Great")
        bar.get_by_role("button", name="Done").click()
        self.until(lambda: self.rows(show)[:2] == ["Bell\tNote\t", "Great\t\t"], "the cells are written")

    def test_on_a_phone_every_button_over_the_words_is_in_view(self) -> None:
        self.page.set_viewport_size({"width": 390, "height": 800})
        self.addCleanup(self.page.set_viewport_size, {"width": 1280, "height": 800})
        show = self.copy_of_demo()
        self.page.goto(f"{self.base}/shows/{show}/?slide=esc-s")
        for kind in ("table", "text"):
            self.page.locator(f'[data-add="{kind}"]').click()
            expect(self.page.locator(".words-field")).to_be_focused()
            bar = self.page.get_by_role("toolbar", name="Look of the words")
            for button in bar.locator("button:visible, select:visible").all():
                box = button.bounding_box()
                assert box
                self.assertTrue(box["x"] >= 0 and box["x"] + box["width"] <= 390, box)
            self.page.keyboard.press("Escape")

    def test_enter_makes_a_row_and_tab_goes_back_with_shift(self) -> None:
        show = self.write(("Bell", "Note", "Cast"))
        self.page.keyboard.press("Enter")
        expect(self.page.locator(".words-field")).to_be_focused()
        for key in ("Tab", "Shift+Tab"):
            self.page.keyboard.press(key)
        self.page.keyboard.type("Bells")
        self.page.keyboard.press("Enter")
        self.page.keyboard.type("Great")
        self.page.keyboard.press("Escape")
        self.until(lambda: self.rows(show)[:2] == ["Bells\tNote\tCast", "Great\t\t"], "a row is made")

    def test_cells_of_a_spreadsheet_become_a_table_and_go_into_one(self) -> None:
        show = self.compose("esc-s")
        self.page.locator(".theatre svg").first.focus()
        self.paste("Bell\tCast\nGreat\t1712\nQuarter\t1784\n")
        self.until(lambda: self.rows(show) == ["Bell\tCast", "Great\t1712", "Quarter\t1784"], "a table is pasted")
        self.page.keyboard.press("Enter")
        expect(self.page.locator(".words-field")).to_be_focused()
        self.page.keyboard.press("Tab")
        self.paste("Year\tNote\n1713\tD\n")
        self.page.keyboard.press("Escape")
        wanted = ["Bell\tYear\tNote", "Great\t1713\tD", "Quarter\t1784"]
        self.until(lambda: self.rows(show) == wanted, "cells are pasted into cells")
        self.assertEqual(len(self.table(show)["columns"]), 3)

    def test_columns_heading_and_grounds_are_set_in_the_panel(self) -> None:
        show = self.write(("Bell", "Note", "Cast"), ("Great", "D", "1712"))
        panel = self.page.locator("#panel")
        panel.get_by_role("tab", name="Look").click()
        panel.get_by_label("Words of column 3", exact=True).select_option("right")
        self.until(lambda: self.table(show)["columns"][2].get("align") == "right")
        width = panel.get_by_label("Width of column 1, as a share", exact=True)
        width.fill("2")
        width.press("Enter")
        self.until(lambda: self.table(show)["columns"][0].get("width") == 2)
        panel.get_by_role("button", name="Remove column 2", exact=True).click()
        self.until(lambda: self.rows(show)[:2] == ["Bell\tCast", "Great\t1712"], "the column is gone")
        self.assertEqual([column.get("align") for column in self.table(show)["columns"]], [None, "right"])
        panel.get_by_role("button", name="Add a column", exact=True).click()
        self.until(lambda: len(self.table(show)["columns"]) == 3)
        panel.get_by_label("The first row is a heading", exact=True).uncheck()
        self.until(lambda: self.table(show)["heading"] is False)
        expect(panel.get_by_label("Ground of the heading", exact=True)).to_have_count(0)
        panel.get_by_label("Ground of every second row", exact=True).select_option("@raised")
        self.until(lambda: self.table(show)["band_fill"] == "@raised")

    def test_rows_come_one_after_the_other(self) -> None:
        show = self.write(("Bell", "Note", "Cast"), ("Great", "D", "1712"))
        panel = self.page.locator("#panel")
        panel.get_by_role("tab", name="Builds").click()
        panel.get_by_label("What moves", exact=True).select_option(label="Each row in turn")
        panel.get_by_role("button", name="Fade", exact=True).click()

        def parts() -> list[str]:
            table = self.table(show)["id"]
            return [build["part"] for build in self.slide(show, "esc-s")["order"] if build["object_id"] == table]

        rows = [row["id"] for row in self.table(show)["paragraphs"]]
        self.assertEqual(len(rows), 4)
        self.until(lambda: parts() == rows[:2], "each row with words has a build")
        expect(panel.get_by_role("button", name="Fade, row 2", exact=True)).to_be_visible()

    def test_the_page_parts_a_row_into_cells_as_the_core_does(self) -> None:
        rows = (
            (TextRun("Bell\tNote\tCast"),),
            (TextRun("The great "), TextRun("bell\t", weight=700), TextRun("1712", colour="@accent")),
            (TextRun("\t\t"),),
            (TextRun("alone"),),
        )
        parted = self.page.evaluate(
            """async (rows) => {
              const { cellsOf, runsOf } = await import("/static/ritornel/stage/table-editor.js");
              return rows.map((runs) => [cellsOf(runs), runsOf(cellsOf(runs))]);
            }""",
            to_builtins(rows),
        )
        for runs, (cells, joined) in zip(rows, parted, strict=True):
            row = Paragraph("r", runs)
            self.assertEqual(cells, [[to_builtins(run) for run in cell] for cell in cells_of(row)])
            self.assertEqual(joined, [to_builtins(run) for run in row_of(row, cells_of(row)).runs])

    def test_a_table_left_empty_leaves_nothing_behind(self) -> None:
        show = self.compose("esc-s")
        before = len(self.slide(show, "esc-s")["objects"])
        self.page.locator('[data-add="table"]').click()
        expect(self.page.locator(".words-field")).to_be_focused()
        self.page.keyboard.press("Escape")
        self.until(lambda: len(self.slide(show, "esc-s")["objects"]) == before)
