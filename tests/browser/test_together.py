import re

from playwright.sync_api import Page, expect

from tests.browser.base import BrowserTest


class TogetherTest(BrowserTest):
    # Who is shut out is answered 404 by what their page still asks for, and a wrong address is refused.
    expected_complaints = ("404", "people/invite")

    def setUp(self) -> None:
        super().setUp()
        self.show = self.copy_of_demo()

    def invite(self, address: str, name: str, role: str, section: str = "") -> None:
        page = self.page
        page.goto(f"{self.base}/shows/{self.show}/people")
        page.get_by_label("E-mail address").fill(address)
        page.get_by_label("Name").fill(name)
        page.get_by_label(re.compile(f"^{role}")).check()
        if section:
            page.get_by_label("The section").select_option(section)
        page.get_by_role("button", name="Send the invitation").click()
        expect(page.locator("#people li").filter(has_text=address)).to_contain_text("not opened yet")

    def come(self, address: str) -> Page:
        """The invited person, in a browser of their own, by the link out of the mail."""
        self.page.goto(f"{self.base}/mail/")
        letter = self.page.locator("article").filter(has_text=f"To {address}").first
        link = letter.get_by_role("link").first.get_attribute("href") or ""
        page = self.new_page(self.new_context())
        page.goto(link)
        page.get_by_label("Sign-in name").fill(address.split("@")[0])
        page.get_by_label("Password, 8 characters or more").fill("six years of Saturdays")
        page.get_by_role("button", name="Accept and open").click()
        return page

    def test_two_people_see_each_others_picks_and_changes_until_one_is_shut_out(self) -> None:
        address = f"pauwel-{self.show}@orlmere.example"
        self.invite(address, "Pauwel Drees", "edit the show")
        other = self.come(address)
        other.wait_for_url(f"**/shows/{self.show}/")
        other.goto(f"{self.base}/shows/{self.show}/?slide=esc-s")
        other.wait_for_selector(".theatre [data-object]")
        page = self.page
        page.goto(f"{self.base}/shows/{self.show}/?slide=esc-s")
        page.wait_for_selector(".theatre [data-object]")
        expect(page.locator("#others")).to_contain_text("Pauwel Drees · slide 3")
        expect(other.locator("#others")).to_contain_text("winder · slide 3")
        other.locator('.theatre [data-object="ticks"]').first.click(force=True)
        expect(page.locator('.others-frame[data-of="ticks"]')).to_contain_text("Pauwel Drees")
        page.get_by_label("Title of the show").fill("The clock of Orlmere")
        page.get_by_label("Title of the show").press("Enter")
        expect(other.get_by_label("Title of the show")).to_have_value("The clock of Orlmere")
        page.goto(f"{self.base}/shows/{self.show}/people")
        page.get_by_role("button", name="Stop access").click()
        expect(other.get_by_role("alert")).to_contain_text("Your access to this show was withdrawn.")
        other.goto(f"{self.base}/")
        expect(other.get_by_text("The clock of Orlmere")).to_have_count(0)

    def test_a_contributor_records_their_section_and_the_owner_keeps_it(self) -> None:
        address = f"tamsin-{self.show}@orlmere.example"
        self.invite(address, "Tamsin Roake", "record one section", "men-s")
        other = self.come(address)
        other.wait_for_selector(".record[data-ready]")
        expect(other.locator("#sections li")).to_have_count(1)
        expect(other.locator(".ways a")).to_have_text(["Record", "Comments"])
        other.get_by_label("Practice microphone").check()
        other.click("#count-in")
        other.click("#count-in")
        other.click("#record-go")
        reached = "(s) => Number(document.querySelector('#take-time').textContent.split(':')[1]) >= s"
        for seconds, slide, beat in ((0.5, "men-s", 0), (1.0, "men-s", 1), (1.5, "dial-s", 0)):
            other.wait_for_selector(f'.record[data-slide="{slide}"][data-beat="{beat}"][data-mode="recording"]')
            other.wait_for_function(reached, arg=seconds)
            other.keyboard.press(" ")
        expect(other.locator("#sections li")).to_contain_text("Recorded, not yet kept")
        page = self.page
        page.goto(f"{self.base}/shows/{self.show}/record?section=men-s")
        page.wait_for_selector(".record[data-ready]")
        expect(page.locator("#sections [aria-current]")).to_contain_text("Tamsin Roake · slides 5–6")
        page.click("#keep-picked")
        expect(page.locator("#sections [aria-current]")).to_contain_text("Kept take 1")

    def test_comments_go_to_and_fro(self) -> None:
        address = f"odo-{self.show}@orlmere.example"
        self.invite(address, "Odo Lint", "comment")
        other = self.come(address)
        other.wait_for_url("**/comments")
        other.get_by_role("button", name="3 The escapement").click()
        other.get_by_label("What it is about").select_option(label="Wheel")
        other.get_by_label("Your comment").fill("Could it turn as it comes in?")
        other.get_by_role("button", name="Say it").click()
        expect(other.locator("#said")).to_contain_text("Odo Lint on “Wheel”")
        page = self.page
        page.goto(f"{self.base}/shows/{self.show}/")
        page.get_by_text("People · 1").click()
        page.get_by_role("link", name="Comments, 1 open").click()
        page.get_by_label("Answer Odo Lint").fill("On Saturday.")
        page.get_by_role("button", name="Answer").click()
        expect(other.locator("#said")).to_contain_text("winder On Saturday.")
        page.get_by_role("button", name="Close").first.click()
        expect(page.locator("#said")).to_contain_text("Nothing open here; 1 closed.")
        page.get_by_role("button", name="Open it again").click()
        expect(page.locator("#said")).to_contain_text("Could it turn as it comes in?")

    def test_wrong_addresses_are_told_beside_the_field(self) -> None:
        page = self.page
        page.goto(f"{self.base}/shows/{self.show}/people?section=esc-s")
        expect(page.get_by_label("The section")).to_have_value("esc-s")
        page.get_by_label("E-mail address").fill("tamsin")
        page.get_by_role("button", name="Send the invitation").click()
        expect(page.get_by_role("alert")).to_contain_text("“tamsin” is no e-mail address. Nobody was invited.")
        expect(page.locator("#people li")).to_have_count(0)

    def test_two_people_edit_different_objects_at_once_and_nothing_is_refused(self) -> None:
        address = f"bram-{self.show}@orlmere.example"
        self.invite(address, "Bram Quillory", "edit the show")
        other = self.come(address)
        other.wait_for_url(f"**/shows/{self.show}/")
        mine = self.page
        for page in (mine, other):
            page.goto(f"{self.base}/shows/{self.show}/?slide=esc-s")
            page.wait_for_selector(".theatre [data-object]")
        places = {}
        for page, build in ((mine, "b-axle"), (other, "b-pallets")):
            page.locator(f'.order [data-build="{build}"] .who').click()
            page.locator(".theatre [data-stage]").focus()
            places[build] = self.box(build.removeprefix("b-"))
        for _ in range(10):
            mine.keyboard.press("ArrowRight")
            other.keyboard.press("ArrowDown")
        self.until(lambda: self.box("axle")["x"] == places["b-axle"]["x"] + 10)
        self.until(lambda: self.box("pallets")["y"] == places["b-pallets"]["y"] + 10)
        for page in (mine, other):
            page.wait_for_selector(f'#compose[data-revision="{self.score(self.show)["revision"]}"]')
            expect(page.get_by_role("alert")).to_have_count(0)
        mine.locator("#undo").click()
        self.until(lambda: self.box("axle")["x"] < places["b-axle"]["x"] + 10)
        self.assertEqual(self.box("pallets")["y"], places["b-pallets"]["y"] + 10, "undo is one's own")

    def box(self, object_id: str) -> dict[str, float]:
        items = self.slide(self.show, "esc-s")["objects"]
        return next(item["box"] for item in items if item["id"] == object_id)  # type: ignore[no-any-return]

    def test_who_changes_the_same_later_is_told_and_can_take_the_others_value(self) -> None:
        address = f"ines-{self.show}@orlmere.example"
        self.invite(address, "Ines Arvendal", "edit the show")
        other = self.come(address)
        other.wait_for_url(f"**/shows/{self.show}/")
        page = self.page
        page.goto(f"{self.base}/shows/{self.show}/?slide=esc-s")
        page.wait_for_selector(".theatre [data-object]")
        seen = self.score(self.show)["revision"]
        token = other.locator("meta[name=csrf]").get_attribute("content") or ""

        def theirs() -> None:
            edit = {
                "do": "change objects",
                "slide_id": "esc-s",
                "object_ids": ["axle"],
                "changes": {"opacity": 0.5},
            }
            reply = other.request.post(
                f"{self.base}/shows/{self.show}/edit",
                data={"revision": seen, "edit": edit},
                headers={"X-CSRFToken": token, "Referer": self.base},
            )
            self.assertEqual(reply.status, 200, reply.text())

        # The page's own edit is on its way while theirs is made.
        page.route("**/edit", lambda route: (theirs(), route.continue_()), times=1)
        page.locator('.order [data-build="b-axle"] .who').dblclick()
        page.get_by_role("tab", name="Look").click()
        field = page.get_by_label("Opacity")
        field.fill("25")
        field.press("Enter")
        note = page.get_by_role("status").filter(has_text="Ines Arvendal changed the opacity of “Axle”")
        expect(note).to_contain_text("yours holds")
        note.get_by_role("button", name="Take theirs").click()
        self.until(
            lambda: (
                next(item for item in self.slide(self.show, "esc-s")["objects"] if item["id"] == "axle")["opacity"]
                == 0.5
            )
        )
