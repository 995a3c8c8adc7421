from playwright.sync_api import Page, expect

from tests.browser.base import BrowserTest


class EmbeddingTest(BrowserTest):
    # Who is not invited is answered 403, and 404 by what their page still asks for.
    expected_complaints = ("403", "404")

    def setUp(self) -> None:
        super().setUp()
        self.show = self.copy_of_demo()
        self.page.goto(f"{self.base}/shows/{self.show}/release")
        self.page.get_by_role("button", name="Make edition 1").click()
        self.page.get_by_role("button", name="Anyone with the address").click()
        self.page.locator("[data-access]").wait_for()

    def elsewhere(self, code: str) -> Page:
        """A page of somebody else's with this in it."""
        page = self.new_page(self.new_context())
        page.route(
            "**/elsewhere",
            lambda route: route.fulfill(
                content_type="text/html", body=f"<!doctype html><body style='margin:0'>{code}</body>"
            ),
        )
        page.goto(f"{self.base}/elsewhere")
        return page

    def test_the_code_stands_in_another_page_at_its_exact_size_with_what_was_asked_for(self) -> None:
        page = self.page
        page.get_by_label("Width in px").fill("640")
        page.get_by_label("Width in px").press("Tab")
        page.get_by_label("Height in px").fill("360")
        page.get_by_label("Height in px").press("Tab")
        for words in ("Sound", "Controls", "May be stepped through"):
            page.locator("[data-embed]").get_by_label(words, exact=True).uncheck()
        code = page.get_by_label("Code for another page").input_value()
        other = self.elsewhere(code)
        box = other.locator("iframe").bounding_box()
        assert box
        self.assertEqual((box["width"], box["height"]), (640, 360))
        house = other.frame_locator("iframe").locator(".house")
        expect(house).to_have_attribute("data-running", "yes")
        expect(house.locator(".slim")).to_have_count(0)
        # Nobody steps on: after a press it goes its own way, and is on its first slide still.
        other.frame_locator("iframe").locator("body").press("ArrowRight")
        other.frame_locator("iframe").locator("body").press("End")
        other.evaluate("() => new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done)))")
        self.assertEqual(house.get_attribute("data-slide"), "noon-s")
        page.locator("[data-embed]").get_by_label("fills its width").check()
        page.locator("[data-embed]").get_by_label("Starts by itself").uncheck()
        other = self.elsewhere(page.get_by_label("Code for another page").input_value())
        box = other.locator("iframe").bounding_box()
        assert box
        self.assertEqual((box["width"], box["height"]), (1280, 720))
        expect(other.frame_locator("iframe").get_by_role("button", name="Begin The Orlmere clock")).to_be_visible()

    def test_it_begins_as_the_show_does_and_is_previewed_at_exactly_its_size(self) -> None:
        page = self.page
        token = page.locator("meta[name=csrf]").get_attribute("content") or ""
        page.request.post(
            f"{self.base}/shows/{self.show}/release/settings",
            data={"loops": True},
            headers={"X-CSRFToken": token, "Referer": self.base},
        )
        page.reload()
        expect(page.locator("[data-embed]").get_by_label("Loops")).to_be_checked()
        expect(page.get_by_label("Height in px")).to_have_value("540")
        page.get_by_label("Width in px").fill("1600")
        page.get_by_label("Width in px").press("Tab")
        page.get_by_label("Height in px").fill("900")
        page.get_by_label("Height in px").press("Tab")
        page.get_by_role("button", name="Embedded").click()
        inside = page.frame_locator(".exact iframe").locator("html")
        self.until(lambda: inside.evaluate("() => [innerWidth, innerHeight]") == [1600, 900])
        room, box = page.locator(".exact").bounding_box(), page.locator(".exact iframe").bounding_box()
        assert room and box
        self.assertLessEqual(box["width"], room["width"] + 1)
        self.assertAlmostEqual(box["width"] / box["height"], 16 / 9, places=2)
        page.locator("[data-embed]").get_by_label("In silence until pressed").check()
        self.assertIn("start=silence", page.get_by_label("Code for another page").input_value())

    def test_it_is_seen_as_strangers_see_it(self) -> None:
        page = self.page
        frame = page.frame_locator(".seen iframe")
        expect(frame.locator(".house")).to_have_attribute("data-running", "yes")
        page.get_by_role("button", name="Phone").click()
        expect(page.locator('.window[data-look="phone"]')).to_be_visible()
        box = page.locator(".seen iframe").bounding_box()
        assert box
        self.assertGreater(box["height"], box["width"])
        page.get_by_role("button", name="Muted").click()
        self.assertIn("sound=off", page.locator(".seen iframe").get_attribute("src") or "")
        page.get_by_label("Who may see it").select_option("invited")
        expect(frame.get_by_role("heading")).to_have_text("A show for invited people")
        expect(page.get_by_text("Only a show that is open to anyone can stand in somebody else's page")).to_be_visible()

    def test_a_guest_comes_in_by_their_link_until_they_are_shut_out(self) -> None:
        page = self.page
        page.get_by_label("Who may see it").select_option("invited")
        page.get_by_label("E-mail addresses of guests").fill("odo@orlmere.example")
        page.get_by_role("button", name="Invite").click()
        expect(page.locator("[data-access] li")).to_contain_text("not opened yet")
        page.goto(f"{self.base}/mail/")
        link = page.locator("article").first.get_by_role("link").first.get_attribute("href") or ""
        guest = self.new_page(self.new_context())
        guest.goto(link)
        expect(guest.locator(".house")).to_have_attribute("data-running", "yes")
        page.goto(f"{self.base}/shows/{self.show}/release")
        expect(page.locator("[data-access] li")).to_contain_text("has opened it")
        page.get_by_role("button", name="Shut out odo@orlmere.example").click()
        expect(page.locator("[data-access] li")).to_contain_text("shut out")
        expect(guest.get_by_role("alert")).to_contain_text("This show is closed")
        guest.reload()
        expect(guest.get_by_role("heading")).to_have_text("A show for invited people")
