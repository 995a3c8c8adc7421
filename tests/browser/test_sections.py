import io

import pypdfium2 as pdfium
from playwright.sync_api import expect

from tests.browser.base import BrowserTest
from tests.core.formats.opendocument import LOSSY


class SectionTest(BrowserTest):
    def test_a_section_is_named_on_its_slide_seen_in_the_overview_and_counted_on_the_lectern(self) -> None:
        show = self.copy_of_demo()
        page = self.page
        page.goto(f"{self.base}/shows/{show}/?slide=dial-s")
        self.at_tab("Slide")
        field = page.get_by_label("Section that begins with this slide")
        field.fill("The dial")
        field.press("Enter")
        self.until(lambda: self.score(show)["slides"]["dial-s"]["opens_section"] == "The dial")
        page.locator("#open-overview").click()
        heading = page.get_by_role("button", name="IV The dial")
        expect(heading).to_contain_text("0:06.0")
        heading.click()
        expect(page.locator('.ov-bar[aria-pressed="true"]')).to_have_count(1)
        page.get_by_role("button", name="I The town").click()
        expect(page.locator('.ov-bar[aria-pressed="true"]')).to_have_count(2)
        page.goto(f"{self.base}/shows/{show}/lectern?from=men-s")
        page.wait_for_selector(".lectern[data-ready]")
        page.keyboard.press(" ")
        expect(page.locator("#left")).to_contain_text("left for this section")
        expect(page.locator('#coming [data-opens="The dial"]')).to_have_count(1)

    def test_moving_the_first_slide_away_leaves_the_section_to_the_next_and_undo_brings_it_back(self) -> None:
        show = self.copy_of_demo()
        page = self.page
        page.goto(f"{self.base}/shows/{show}/?slide=esc-s")

        def opens():
            return {
                key: line["opens_section"] for key, line in self.score(show)["slides"].items() if line["opens_section"]
            }

        before = opens()
        self.at_tab("Slide")
        page.get_by_role("button", name="Move the slide earlier").click()
        self.until(lambda: opens().get("two-s") == "How it keeps time" and "esc-s" not in opens())
        page.keyboard.press("Control+z")
        self.until(lambda: opens() == before)


class FilesTest(BrowserTest):
    expected_complaints = ("from-outline", "from-pdf", "timings", "hand-in")

    def setUp(self) -> None:
        super().setUp()
        self.page.goto(self.base + "/shows/start")

    def test_a_show_is_saved_as_pages_and_the_pages_become_a_show(self) -> None:
        page, show = self.page, self.copy_of_demo()
        page.goto(f"{self.base}/shows/{show}/release")
        page.get_by_label("Kind").select_option("pdf")
        page.get_by_label("Each page").select_option("slides")
        page.get_by_role("button", name="Make it").click()
        expect(page.locator('[data-state="ready"]')).to_contain_text("PDF, a slide a page")
        with page.expect_download() as download:
            page.get_by_role("link", name="Save").click()
        self.assertEqual(download.value.suggested_filename, "the-orlmere-clock-slides.pdf")
        page.get_by_text("Hand it in").click()
        page.get_by_label("To whom").fill("nobody at all")
        page.get_by_role("button", name="Hand in", exact=True).click()
        expect(page.get_by_role("alert")).to_contain_text("Nobody here is called “nobody at all”")
        page.get_by_label("To whom").fill("winder")
        page.get_by_role("button", name="Hand in", exact=True).click()
        expect(page.get_by_role("status").filter(has_text="Handed in to winder.")).to_be_visible()
        page.goto(f"{self.base}/handed-in/")
        expect(page.locator("[data-handed-in]").first).to_contain_text("The Orlmere clock · new")
        page.goto(f"{self.base}/shows/start")
        page.locator("#pdf").set_input_files({"name": "x.pdf", "mimeType": "application/pdf", "buffer": b"nothing"})
        expect(page.locator("#pdf-said")).to_contain_text("“x.pdf” is no PDF that can be read. Nothing was made.")
        page.locator("#pdf").set_input_files(download.value.path())
        page.wait_for_url("**/shows/*/")
        page.wait_for_selector(".score .bar, .score [data-slide]")
        made = self.score(page.url.rstrip("/").split("/")[-1])
        self.assertEqual((len(made["order"]), made["settings"]["title"]), (9, "The Orlmere clock"))

    def test_an_archive_is_brought_in_from_the_list_of_shows_and_a_broken_one_is_told(self) -> None:
        page, show = self.page, self.copy_of_demo()
        archive = page.request.get(f"{self.base}/shows/{show}/archive").body()
        page.goto(f"{self.base}/")
        choose = page.get_by_label("Import an archive")
        choose.set_input_files({"name": "cut.ritornel", "mimeType": "application/zip", "buffer": archive[:9000]})
        expect(page.locator("#brought")).to_have_text("“cut.ritornel” is not a Ritornel archive, or it is damaged.")
        choose.set_input_files({"name": "clock.ritornel", "mimeType": "application/zip", "buffer": archive})
        page.wait_for_url("**/shows/*/")
        page.wait_for_selector(".score .bar, .score [data-slide]")
        made = self.score(page.url.rstrip("/").split("/")[-1])
        self.assertEqual((len(made["order"]), made["settings"]["title"]), (9, "The Orlmere clock"))

    def test_a_long_pdf_is_seen_being_read_and_can_be_stopped(self) -> None:
        page = self.page
        document, out = pdfium.PdfDocument.new(), io.BytesIO()
        for _ in range(290):
            document.new_page(960, 540)
        document.save(out)
        page.goto(f"{self.base}/")
        shows = page.locator(".shows > li").count()
        page.goto(f"{self.base}/shows/start")
        page.locator("#pdf").set_input_files(
            {"name": "long.pdf", "mimeType": "application/pdf", "buffer": out.getvalue()}
        )
        line = page.locator(".coming-in").filter(has_text="of 290 of long.pdf")
        expect(line).to_contain_text("left")
        page.wait_for_function(
            "() => Number(document.querySelector('[role=progressbar]')?.getAttribute('aria-valuenow')) > 0"
        )
        line.get_by_role("button", name="Cancel").click()
        expect(page.locator("#pdf-said")).to_have_text("Nothing was made.")
        expect(page.get_by_role("progressbar")).to_have_count(0)
        page.goto(f"{self.base}/")
        self.assertEqual(page.locator(".shows > li").count(), shows)

    def test_a_show_goes_out_as_a_presentation_and_the_presentation_becomes_a_show_with_losses_told_before(
        self,
    ) -> None:
        page, show = self.page, self.copy_of_demo()
        page.goto(f"{self.base}/shows/{show}/release")
        expect(page.locator("#weighs")).to_contain_text("As it is now it weighs")
        page.get_by_role("button", name="Presentation").click()
        told = page.get_by_role("dialog", name="As a presentation")
        expect(told).to_contain_text("Music and ambience")
        expect(told.get_by_role("row", name="Slide 4 Round corners of pictures")).to_be_visible()
        with page.expect_download() as download:
            told.get_by_role("button", name="Save it").click()
        self.assertEqual(download.value.suggested_filename, "the-orlmere-clock.odp")
        path = download.value.path()
        page.goto(f"{self.base}/shows/start")
        page.locator("#presentation").set_input_files(
            {"name": "half.odp", "mimeType": "", "buffer": path.read_bytes()[:3000]}
        )
        expect(page.locator("#presentation-said")).to_contain_text(
            "“half.odp” is cut off or damaged. Nothing was made."
        )
        page.locator("#presentation").set_input_files(
            {"name": "clock.odp", "mimeType": "", "buffer": path.read_bytes()}
        )
        page.wait_for_url("**/shows/*/")
        page.wait_for_selector(".score .build")
        made = self.score(page.url.rstrip("/").split("/")[-1])
        self.assertEqual(
            (len(made["order"]), made["settings"]["title"], made["length_ms"]),
            (9, "The Orlmere clock", self.score(show)["length_ms"]),
        )

    def test_what_is_lost_of_a_presentation_is_read_before_it_becomes_slides_and_it_can_be_left(self) -> None:
        page = self.page
        chosen = {"name": "bells.odp", "mimeType": "", "buffer": LOSSY}
        page.locator("#presentation").set_input_files(chosen)
        told = page.get_by_role("dialog", name="“bells”, 1 slide, 1 from its media")
        expect(told.get_by_role("row", name="Slide 1")).to_contain_text(
            "A chart, formula or foreign object, which becomes a picture"
        )
        page.keyboard.press("Escape")
        expect(page.locator("#presentation-said")).to_have_text("Nothing was made.")
        page.locator("#presentation").set_input_files(chosen)
        page.get_by_role("button", name="Make the slide", exact=True).click()
        page.wait_for_url("**/shows/*/")
        self.until(lambda: len(self.score(page.url.rstrip("/").split("/")[-1])["order"]) == 1)

    def test_an_outline_becomes_a_show_and_a_table_changes_its_times(self) -> None:
        page = self.page
        outline = b"# A talk\n\n## One\n\nSome words to read\n\n![x](y.png)\n\n## Two\n\n- and more\n"
        page.locator("#outline").set_input_files(
            {"name": "words.txt", "mimeType": "text/plain", "buffer": b"only words"}
        )
        expect(page.locator("#outline-said")).to_contain_text("has no heading")
        page.locator("#outline").set_input_files({"name": "talk.md", "mimeType": "text/markdown", "buffer": outline})
        expect(page.get_by_role("dialog", name="“A talk”, 3 slides")).to_contain_text("EverywherePictures")
        page.keyboard.press("Escape")
        expect(page.locator("#outline-said")).to_have_text("Nothing was made.")
        page.locator("#outline").set_input_files({"name": "talk.md", "mimeType": "text/markdown", "buffer": outline})
        page.get_by_role("button", name="Make the 3 slides").click()
        page.wait_for_url("**/shows/*/")
        page.wait_for_selector(".score .bar, .score [data-slide]")
        show = page.url.rstrip("/").split("/")[-1]
        self.assertEqual([line["name"] for line in self.score(show)["slides"].values()], ["Opening", "One", "Two"])
        page.goto(f"{self.base}/shows/{show}/release")
        with page.expect_download() as download:
            page.get_by_role("link", name="Timings").click()
        self.assertEqual(download.value.suggested_filename, "a-talk-timings.csv")
        page.get_by_label("Read timings from a table").set_input_files(
            {"name": "t.csv", "mimeType": "text/csv", "buffer": b"slide;length_s\n2;4,5\n"}
        )
        expect(page.get_by_role("status").last).to_contain_text("The show has the timings of t.csv now")
        self.assertEqual(self.score(show)["slides"]["s1"]["advance"]["after_ms"], 4500)
        page.get_by_label("Read timings from a table").set_input_files(
            {"name": "t.csv", "mimeType": "text/csv", "buffer": b"slide;length_s\n2;late\n"}
        )
        expect(page.get_by_role("alert")).to_contain_text("line 2: “late” in the column length_s is no time in seconds")
