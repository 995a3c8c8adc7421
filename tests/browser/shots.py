"""Takes the pictures in docs/screenshots: `./run shots`. On demo data, at 1280 x 800."""

import json
import random
import sys

from playwright.sync_api import Page

from tests.browser.base import NAME, PASSWORD, ROOT, browser, program, stop_everything

FOLDER = ROOT / "docs" / "screenshots"


def signed_in(base: str) -> Page:
    page = browser().new_context(viewport={"width": 1280, "height": 800}).new_page()
    page.goto(base + "/sign-in/")
    page.fill("[name=username]", NAME)
    page.fill("[name=password]", PASSWORD)
    page.get_by_role("button", name="Sign in").click()
    page.wait_for_url(base + "/")
    return page


def first_visit(base: str) -> None:
    """The start page of somebody who has no show yet."""
    program().manage(
        "from django.contrib.auth.models import User; User.objects.create_user('newcomer', password='new')"
    )
    context = browser().new_context(viewport={"width": 1280, "height": 800})
    page = context.new_page()
    page.goto(base + "/sign-in/")
    page.fill("[name=username]", "newcomer")
    page.fill("[name=password]", "new")
    page.get_by_role("button", name="Sign in").click()
    page.get_by_role("button", name="Pause").wait_for()
    page.wait_for_timeout(2000)
    shoot(page, "first-visit")
    context.close()


def shoot(page: Page, name: str) -> None:
    page.evaluate("document.fonts.ready.then(() => true)")
    page.screenshot(path=str(FOLDER / f"{name}.png"))


def keep_takes(page: Page, base: str) -> None:
    """Three whole runs at a speaker's pace, each a little different."""
    chance = random.Random(3)
    show = page.request.get(f"{base}/shows/orlmere/performance.json").json()
    headers = {
        "X-CSRFToken": page.locator("meta[name=csrf]").get_attribute("content") or "",
        "Content-Type": "application/json",
    }
    for _ in range(3):
        at, events = 0, []
        for slide in show["slides"]:
            events.append({"event": "arrived", "slide_id": slide["id"], "at_ms": at})
            for beat in slide["schedule"]["beats"][1:]:
                at += chance.randrange(1500, 4000)
                events.append(
                    {
                        "event": "cued",
                        "cue_id": beat["wait"]["cue_id"],
                        "at_ms": at,
                        "waited_ms": chance.randrange(300, 4200),
                    }
                )
            at += chance.randrange(3000, 9000)
        page.request.post(
            f"{base}/shows/orlmere/takes", data=json.dumps({"events": events, "ended_ms": at}), headers=headers
        )


def people(page: Page, base: str) -> None:
    """Who is asked to do what; one of them has come in."""
    page.goto(base + "/shows/orlmere/people")
    for name, role, section in (
        ("Pauwel Drees", "edit", ""),
        ("Tamsin Roake", "record", "men-s"),
        ("Odo Lint", "comment", ""),
    ):
        page.get_by_label("E-mail address").fill(f"{name.split()[0].lower()}@orlmere.example")
        page.get_by_label("Name").fill(name)
        page.locator(f"[name=role][value={role}]").check()
        if section:
            page.get_by_label("The section").select_option(section)
        page.get_by_role("button", name="Send the invitation").click()
        page.locator("#people li").filter(has_text=name).wait_for()
    page.goto(base + "/mail/")
    link = page.locator("article").filter(has_text="To pauwel@").get_by_role("link").first.get_attribute("href") or ""
    other = browser().new_context().new_page()
    other.goto(link)
    other.get_by_label("Sign-in name").fill("pauwel")
    other.get_by_label("Password, 8 characters or more").fill("six years of Saturdays")
    other.get_by_role("button", name="Accept and open").click()
    other.wait_for_selector(".theatre [data-object]")
    page.goto(base + "/shows/orlmere/people")
    page.get_by_label("E-mail address").fill("ines@orlmere.example")
    page.locator("[name=role][value=record]").check()
    shoot(page, "people")


def record(page: Page, base: str) -> None:
    """A section with three takes, the last of them paused."""
    for section, takes in (("noon-s", 1), ("esc-s", 3)):
        page.goto(f"{base}/shows/orlmere/record?section={section}")
        page.wait_for_selector(".record[data-ready]")
        page.get_by_label("Practice microphone").check()
        if section == "esc-s":
            page.get_by_label("Practice camera").check()
        page.click("#count-in")
        page.click("#count-in")
        for take in range(takes):
            page.click("#record-go:enabled")
            for press in range(6 if take < takes - 1 or section == "noon-s" else 4):
                page.wait_for_timeout(1500 + 500 * ((press + take) % 4))
                page.keyboard.press("ArrowRight")
            if take == takes - 1 and section == "esc-s":
                page.wait_for_timeout(1200)
                page.click("#pause")
            elif section == "noon-s":
                page.wait_for_timeout(800)
                if page.locator("#stop").is_enabled():
                    page.click("#stop")
            page.wait_for_timeout(900)
        if section == "noon-s":
            page.click("#keep-picked")
            page.wait_for_timeout(1500)
    page.locator(".pieces[data-slide='esc-s'] .piece:not([data-picked]) input").first.check()
    page.get_by_role("button", name="Close").click()
    page.locator("#camera-place").focus()
    shoot(page, "record")


def main() -> int:
    FOLDER.mkdir(exist_ok=True)
    base = program().address
    page = signed_in(base)
    page.wait_for_load_state("networkidle")
    shoot(page, "shows")

    page.goto(base + "/shows/orlmere/?slide=esc-s")
    page.wait_for_selector(".score .build")
    page.wait_for_function(
        "() => [...document.querySelectorAll('.score path[fill=\"#c69a4c\"]')].some((wave) => "
        "wave.getBBox().height > 8)"
    )
    page.wait_for_timeout(800)
    shoot(page, "compose-slide")
    page.locator('.score .build[data-build="b-pallets"]').focus()
    page.keyboard.press("Space")
    page.get_by_role("button", name="Remove build").wait_for()
    page.wait_for_function("() => document.querySelectorAll('.effects svg.sample > *').length > 9")
    page.wait_for_timeout(900)
    shoot(page, "compose-object")

    page.goto(base + "/shows/told/?slide=who-s")
    page.wait_for_selector(".score [data-voice]")
    # The worker reads the sounds first.
    page.wait_for_function(
        "() => [...document.querySelectorAll('.score [data-voice] path')].every((wave) => wave.getBBox().height > 6)"
    )
    page.get_by_role("tab", name="Voice").click()
    page.locator(".panel .small-player").wait_for()
    page.wait_for_timeout(900)
    shoot(page, "compose-voice")

    page.goto(base + "/shows/pendulum/?slide=ask-s")
    page.locator('.theatre [data-object="beside"]').click()
    page.wait_for_function("() => document.querySelector('.clip-strip')?.style.backgroundImage")
    page.wait_for_timeout(900)
    shoot(page, "compose-clip")

    first_visit(base)

    page.goto(base + "/shows/orlmere/?slide=esc-s")
    page.wait_for_selector(".score .build")
    page.keyboard.press("Escape")
    page.locator("#open-themes").click()
    page.wait_for_load_state("networkidle")
    shoot(page, "themes")
    page.locator("#open-shelf").click()
    page.locator(".tile img").nth(4).wait_for()
    page.locator('[data-asset="works"]').click()
    page.wait_for_timeout(400)
    shoot(page, "shelf")
    page.get_by_role("button", name="Catalogue", exact=True).click()
    page.locator(".found").first.wait_for()
    page.wait_for_timeout(900)
    shoot(page, "catalogue")
    page.locator(".catalogue").get_by_role("button", name="Shelf", exact=True).click()
    page.get_by_label("Close the shelf").click()
    page.get_by_role("button", name="Overview").click()
    page.locator('.ov-bar[data-slide="two-s"]').click(modifiers=["Control"])
    page.get_by_label("Inconsistencies", exact=True).get_by_role("button").first.wait_for()
    page.mouse.move(700, 700)
    page.wait_for_timeout(300)
    shoot(page, "overview")
    page.goto(base + "/shows/start?starter=choices")
    page.wait_for_load_state("networkidle")
    shoot(page, "starter")

    page.goto(base + "/shows/orlmere/rehearse")
    page.get_by_role("button", name="Start a run").click()
    page.wait_for_selector('.rehearse[data-slide="noon-s"]')
    page.wait_for_timeout(1500)
    for _ in range(2):
        page.keyboard.press(" ")
        page.wait_for_timeout(900)
    page.get_by_role("button", name="End the run").click()
    page.locator("[data-take]").wait_for()
    page.get_by_role("button", name="Close").click()
    page.get_by_role("button", name="Start a run").click()
    page.wait_for_selector('.rehearse[data-slide="noon-s"]')
    page.wait_for_timeout(900)
    for _ in range(4):
        page.keyboard.press(" ")
        page.wait_for_timeout(700)
    page.wait_for_timeout(2000)
    shoot(page, "rehearse")
    page.get_by_role("button", name="End the run").click()
    page.get_by_role("button", name="Close").click()
    keep_takes(page, base)
    page.reload()
    page.get_by_role("button", name="Compare the takes").click()
    page.locator("#compare tr.slide th button").first.click()
    page.get_by_label("Target length").fill("1:10")
    page.get_by_label("Target length").press("Enter")
    page.get_by_text("For the target").wait_for()
    shoot(page, "takes-compared")

    page.goto(base + "/shows/orlmere/lectern?from=who-s")
    page.wait_for_selector(".lectern[data-ready]")
    house = page.context.new_page()
    house.set_viewport_size({"width": 1280, "height": 720})
    house.goto(base + "/shows/orlmere/house")
    house.wait_for_selector(".house[data-ready]")
    page.keyboard.press(" ")
    page.wait_for_timeout(4000)
    for _ in range(3):
        page.keyboard.press("ArrowRight")
        page.wait_for_timeout(1200)
    page.keyboard.press("ArrowRight")
    page.wait_for_timeout(2500)
    shoot(page, "lectern")
    box = page.locator("#now-picture svg.board").bounding_box()
    assert box is not None
    for ink, points in (
        ("p", [(0.78, 0.2), (0.9, 0.26), (0.93, 0.45), (0.84, 0.55)]),
        ("i", [(0.06, 0.5), (0.2, 0.515), (0.33, 0.5)]),
    ):
        page.keyboard.press(ink)
        x, y = points[0]
        page.mouse.move(box["x"] + x * box["width"], box["y"] + y * box["height"])
        page.mouse.down()
        for x, y in points[1:]:
            page.mouse.move(box["x"] + x * box["width"], box["y"] + y * box["height"], steps=8)
        page.mouse.up()
    house.wait_for_timeout(400)
    shoot(house, "house")
    house.close()

    page.goto(base + "/shows/orlmere/release")
    page.get_by_role("button", name="Make edition 1").click()
    page.get_by_role("button", name="Anyone with the address").click()
    page.get_by_role("button", name="Close").click()
    page.get_by_label("Size").select_option("1920x1080")
    page.get_by_role("button", name="Make the film").click()
    page.get_by_text("s left").wait_for(timeout=120_000)
    page.locator(".finding").first.wait_for()
    # Fonts come late where a film is being drawn beside.
    page.evaluate("document.fonts.ready")
    page.wait_for_timeout(12_000)
    shoot(page, "release")
    page.get_by_role("button", name="Cancel").click()

    page.goto(base + "/shows/orlmere/play?from=who-s&mode=self-running")
    page.wait_for_selector('.house[data-ready][data-slide="who-s"][data-beat="2"]', timeout=60_000)
    page.mouse.move(640, 500)
    page.wait_for_timeout(500)
    page.mouse.move(640, 780)
    page.wait_for_selector(".house:not(.idle)")
    shoot(page, "playing")

    people(page, base)
    record(page, base)
    stop_everything()
    return 0


if __name__ == "__main__":
    sys.exit(main())
