import io
import os
from pathlib import Path
from typing import Any

import msgspec
from playwright.sync_api import expect

from bench.schedule import long_show
from ritornel.core.document import Build, OnCue
from ritornel.core.formats.archive import write_archive
from tests.browser.base import BrowserTest, Finger
from tests.examples import example_a


class LabelsTest(BrowserTest):
    def setUp(self) -> None:
        super().setUp()
        self.page.goto(self.base + "/shows/start")

    def test_words_on_the_score_never_overlap(self) -> None:
        wrong = self.page.evaluate(
            """async () => {
              const { setInRows, widthOf } = await import("/static/ritornel/score/labels.js");
              let seed = 7;
              const chance = () => { seed = (seed * 16807) % 2147483647; return seed / 2147483647; };
              const wrong = [];
              for (let round = 0; round < 300; round += 1) {
                const most = 60 + chance() * 700;
                const things = Array.from({ length: 1 + Math.floor(chance() * 14) }, (_, n) => {
                  const x1 = 4 + chance() * (most - 30);
                  return { x1, x2: x1 + 8 + chance() * 60, name: "Escape wheel turns ".slice(0, 3 + Math.floor(chance() * 15)) + n };
                }).sort((a, b) => a.x1 - b.x1);
                const set = setInRows(things, 4, 4, most);
                const boxes = set.filter((one) => one.words).map((one) => {
                  const width = widthOf(one.words);
                  const from = one.anchor === "end" ? one.wordsX - width : one.wordsX;
                  return { row: one.row, from, to: from + width };
                });
                boxes.forEach((a, i) => boxes.slice(i + 1).forEach((b) => {
                  if (a.row === b.row && a.from < b.to && b.from < a.to) wrong.push([round, a, b]);
                }));
                // Nor does a sign lie on the words of another.
                boxes.forEach((a) => set.forEach((b) => {
                  if (a.row === b.row && a.from < b.x2 && b.x1 < a.to) wrong.push([round, a, b]);
                }));
              }
              return wrong;
            }"""
        )
        self.assertEqual(wrong, [])

    def test_words_are_shortened_or_vanish_and_are_never_cut(self) -> None:
        found = self.page.evaluate(
            """async () => {
              const { shorten, widthOf } = await import("/static/ritornel/score/labels.js");
              const name = "What we mended";
              return [shorten(name, 500), shorten(name, widthOf(name) - 5), shorten(name, 12)];
            }"""
        )
        self.assertEqual(found[0], "What we mended")
        self.assertRegex(found[1], r"^What we .*…$")
        self.assertEqual(found[2], "")


class ScoreTest(BrowserTest):
    def import_show(self, show: object) -> str:
        out = io.BytesIO()
        write_archive(show, out, lambda sha256: Path(os.devnull))  # type: ignore[arg-type]
        found = self.brought_in(out.getvalue())
        self.page.goto(f"{self.base}/shows/{found}/")
        self.page.wait_for_selector(".score :is(.build, .crowd)")
        return found

    def test_bars_stand_to_scale(self) -> None:
        self.import_show(example_a())
        places = self.page.evaluate(
            """[...document.querySelectorAll('.score [data-pick=slide]')].map((node) => {
                 const box = node.getBoundingClientRect(); return [node.dataset.slide, box.left, box.width];
               })"""
        )
        widths = {slide: width for slide, _, width in places}
        self.assertAlmostEqual(widths["two"] / widths["one"], 9200 / 5000, places=2)
        self.assertAlmostEqual(places[1][1] - places[0][1], widths["one"], places=0)

    def test_the_slide_that_was_lengthened_says_by_how_much_and_why(self) -> None:
        show = self.import_show(example_a())
        self.page.goto(f"{self.base}/shows/{show}/?slide=three")
        self.at_passage("Goes on")
        expect(self.page.get_by_text("Lasts 18.2 s")).to_be_visible()
        expect(self.page.get_by_text("8.2 s more for the builds")).to_be_visible()
        expect(self.page.locator(".score").get_by_text("+8.2 s")).to_be_visible()
        self.page.get_by_text("Cut short").click()
        expect(self.page.get_by_text("Lasts 10.0 s")).to_be_visible()

    def test_a_looping_show_stands_between_repeat_signs(self) -> None:
        self.import_show(example_a())
        expect(self.page.locator(".score").get_by_text("Holds", exact=True)).to_be_visible()
        self.at_show()
        self.page.get_by_role("group", name="At the end").get_by_role("button", name="Loops").click()
        expect(self.page.locator(".score").get_by_text("From the start again")).to_be_visible()

    def test_a_long_show_draws_only_what_is_in_view(self) -> None:
        base = example_a()
        slides = tuple(
            msgspec.structs.replace(
                base.slides[0], id=f"s{n}", objects=base.slides[0].objects, order=base.slides[0].order
            )
            for n in range(200)
        )
        self.import_show(msgspec.structs.replace(base, slides=slides))
        # The view holds some twenty; one to two steps of 400 px on each side are drawn ahead for scrolling.
        drawn = self.page.locator(".score [data-pick=slide]").count()
        self.assertLess(drawn, 60)
        self.page.locator("#score-scroll").evaluate("(node) => { node.scrollLeft = node.scrollWidth; }")
        expect(self.page.locator('.score [data-pick=slide][data-slide="s199"]')).to_be_attached()
        self.assertLess(self.page.locator(".score [data-pick=slide]").count(), 60)

    def test_zoom_keeps_the_playhead_in_its_place(self) -> None:
        self.compose("esc-s", "orlmere")
        head = self.page.locator('.score [data-drag="playhead"] rect').last
        before = self.until(head.bounding_box)
        self.page.get_by_role("button", name="See it larger").click()
        self.page.get_by_role("button", name="See it larger").click()
        self.page.wait_for_function("() => document.getElementById('score-scroll').scrollWidth > 2000")
        self.until(lambda: (box := head.bounding_box()) and abs(box["x"] - before["x"]) < 3)

    def test_a_build_is_picked_from_the_keyboard(self) -> None:
        self.compose("esc-s", "orlmere")
        self.page.locator('.score .build[data-build="b-note"]').focus()
        self.page.keyboard.press("Space")
        expect(self.page.get_by_label("Name of the object")).to_have_value("Its note")
        expect(self.page.get_by_role("group", name="Effect").get_by_role("button", name="Cut in")).to_have_attribute(
            "aria-pressed", "true"
        )

    def test_the_stage_follows_the_playhead(self) -> None:
        self.compose("esc-s", "orlmere")
        pallets = self.page.locator('.theatre [data-object="pallets"]')
        expect(pallets).to_have_attribute("data-away", "no")
        self.page.get_by_role("group", name="Beats of this slide").get_by_role("button", name="On arrival").click()
        expect(pallets).to_have_attribute("data-away", "yes")
        box = self.page.locator("#score-scroll").bounding_box()
        assert box
        start = self.page.locator('.score [data-pick=slide][data-slide="bell-s"]').bounding_box()
        assert start
        self.page.mouse.click(start["x"] + 60, box["y"] + 12)
        expect(self.opened()).to_contain_text("The bell")

    def test_what_is_pulled_snaps_to_other_events_and_alt_pulls_freely(self) -> None:
        show = self.compose("esc-s")
        line = self.score(show)["slides"]["esc-s"]
        pin = next(build for build in line["builds"] if build["id"] == "b-axle")
        wheel = next(build for build in line["builds"] if build["id"] == "b-wheel")
        beats = line["schedule"]["beats"]
        bars = self.page.locator(".score [data-drag=bar]").evaluate_all(
            "(nodes) => nodes.map((node) => Number(node.getAttribute('x')))"
        )
        scale = bars[1] - bars[0]
        lengths = self.score(show)["starts_ms"]
        ids = self.score(show)["order"]
        px_ms = scale / (lengths[ids[2]] - lengths[ids[1]])
        target = beats[wheel["beat"]]["start_ms"] + wheel["offset_ms"] + wheel["runs_ms"]
        now = beats[pin["beat"]]["start_ms"] + pin["offset_ms"]
        handle = self.page.locator('.score [data-drag="build"][data-build="b-axle"]').first
        box = handle.bounding_box()
        assert box is not None
        x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
        self.page.mouse.move(x, y)
        self.page.mouse.down()
        self.page.mouse.move(x + (target - now) * px_ms + 3, y, steps=4)
        expect(self.page.locator("[data-snapped]")).to_have_attribute("data-snapped", str(lengths["esc-s"] + target))
        self.page.mouse.up()
        self.until(
            lambda: (
                next(b for b in self.score(show)["slides"]["esc-s"]["builds"] if b["id"] == "b-axle")["after_ms"]
                == pin["after_ms"] + target - now
            )
        )
        expect(self.page.locator("[data-snapped]")).to_have_count(0)

    def test_while_something_is_pulled_score_and_list_show_what_would_be_and_esc_keeps_what_is(self) -> None:
        show = self.compose("esc-s")
        revision = self.score(show)["revision"]
        row = self.page.locator('.order .entry[data-build="b-axle"] .when').last
        before = row.text_content()
        handle = self.page.locator('.score [data-drag="build"][data-build="b-axle"]').first
        box = handle.bounding_box()
        assert box is not None
        self.page.mouse.move(box["x"] + 4, box["y"] + 8)
        self.page.mouse.down()
        self.page.mouse.move(box["x"] + 64, box["y"] + 8, steps=4)
        expect(row).not_to_have_text(before or "")
        self.page.keyboard.press("Escape")
        expect(row).to_have_text(before or "")
        self.page.mouse.up()
        self.assertEqual(self.score(show)["revision"], revision)

    def test_a_build_is_pulled_by_its_name_as_well_as_by_its_sign(self) -> None:
        show = self.compose("esc-s")

        def after_ms() -> int:
            return next(b for b in self.score(show)["slides"]["esc-s"]["builds"] if b["id"] == "b-axle")["after_ms"]  # type: ignore[no-any-return]

        before = after_ms()
        box = self.page.locator('.score .build[data-build="b-axle"] text').bounding_box()
        assert box is not None
        x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
        self.page.mouse.move(x, y)
        self.page.mouse.down()
        self.page.mouse.move(x + 60, y, steps=4)
        self.page.mouse.up()
        self.until(lambda: after_ms() > before)

    def test_a_build_is_made_longer_by_pulling_its_end_with_the_mouse_and_with_a_finger(self) -> None:
        show = self.compose("esc-s")

        def axle() -> Any:
            return next(b for b in self.score(show)["slides"]["esc-s"]["builds"] if b["id"] == "b-axle")

        before = axle()
        box = self.until(self.page.locator('.score .build[data-build="b-axle"] .halo').bounding_box)
        x, y = box["x"] + box["width"] - 4, box["y"] + box["height"] / 2
        self.page.mouse.move(x, y)
        expect(self.page.locator('.score .build[data-build="b-axle"] title')).to_contain_text("enters")
        self.page.mouse.down()
        self.page.mouse.move(x + 40, y, steps=4)
        self.page.mouse.up()
        longer = self.until(lambda: (now := axle()["lasts_ms"]) > before["lasts_ms"] and now)
        self.page.mouse.move(800, 300)
        box = self.until(self.page.locator('.score .build[data-build="b-axle"] .halo').bounding_box)
        x, y = box["x"] + box["width"] - 4, box["y"] + box["height"] / 2
        finger = Finger(self.page)
        finger.down(x, y)
        expect(self.page.locator(".number-tag")).to_contain_text("lasts")
        finger.move(x - 20, y)
        finger.up()
        self.until(lambda: before["lasts_ms"] < axle()["lasts_ms"] < longer)
        self.assertEqual(axle()["offset_ms"], before["offset_ms"], "it begins where it began")

    def test_a_mark_is_set_named_pulled_and_removed(self) -> None:
        show = self.compose("esc-s")
        self.page.get_by_role("button", name="Set a mark at the playhead").click()
        name = self.page.get_by_label("Name of the mark")
        name.fill("Here they ask")
        name.press("Enter")
        self.until(lambda: [mark["name"] for mark in self.score(show)["marks"]] == ["Here they ask"])
        first = self.score(show)["marks"][0]
        flag = self.page.get_by_role("button", name="Mark Here they ask")
        box = flag.bounding_box()
        assert box is not None
        self.page.mouse.move(box["x"] + 6, box["y"] + 6)
        self.page.mouse.down()
        self.page.keyboard.down("Alt")
        self.page.mouse.move(box["x"] + 66, box["y"] + 6, steps=3)
        self.page.mouse.up()
        self.page.keyboard.up("Alt")
        self.until(lambda: self.score(show)["marks"][0] != first)
        self.page.get_by_role("button", name="Remove mark").click()
        self.until(lambda: not self.score(show)["marks"])
        self.page.locator("#undo").click()
        self.until(lambda: [mark["name"] for mark in self.score(show)["marks"]] == ["Here they ask"])

    def test_a_crowd_of_builds_is_drawn_as_few_outlines_until_it_is_looked_at_closely(self) -> None:
        self.import_show(long_show(30))
        self.page.wait_for_selector(".score .crowd")
        expect(self.page.locator(".score .build")).to_have_count(0)
        self.page.locator(".score [data-pick=slide]").first.dblclick()
        expect(self.page.locator(".score .build").first).to_be_attached()

    def test_scrolling_keeps_the_bars_that_stay_in_view(self) -> None:
        self.import_show(long_show(30))
        self.page.wait_for_selector(".score .crowd")
        kept = self.page.evaluate(
            """async () => {
              const scroll = document.getElementById("score-scroll");
              const bars = () => [...scroll.querySelectorAll(".crowd")];
              const before = new Set(bars());
              scroll.scrollLeft = 700;
              // Those that come into view are drawn over some frames.
              for (let n = 0; n < 120 && bars().every((bar) => before.has(bar)); n += 1) await new Promise(requestAnimationFrame);
              const now = bars();
              return [now.filter((bar) => before.has(bar)).length, now.filter((bar) => !before.has(bar)).length];
            }"""
        )
        self.assertGreater(kept[0], 3, "bars that are still seen were not drawn again")
        self.assertGreater(kept[1], 0, "and those that came into view were drawn")

    def test_two_fingers_zoom_around_the_place_between_them_from_the_first_touch_on(self) -> None:
        self.compose()
        touch = """([kind, finger, x]) => document.getElementById("score-scroll").dispatchEvent(
          new PointerEvent(kind, { bubbles: true, pointerType: "touch", pointerId: finger, clientX: x, clientY: 700 }))"""
        width = "() => document.querySelector('#score-scroll > div').clientWidth"
        before = self.page.evaluate(width)
        # The first finger there ever was fetches what two need, and may be gone when that comes.
        for event in (["pointerdown", 1, 500], ["pointerup", 1, 500]):
            self.page.evaluate(touch, event)
        self.page.wait_for_function(
            "() => performance.getEntriesByType('resource').some(({ name, responseEnd }) => "
            "name.includes('/pinch.') && responseEnd)"
        )
        self.page.evaluate("() => new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done)))")
        self.page.evaluate(touch, ["pointermove", 1, 700])
        self.assertEqual(self.page.evaluate(width), before, "a finger that was lifted zooms nothing")
        for event in (["pointerdown", 2, 500], ["pointerdown", 3, 600], ["pointermove", 3, 800]):
            self.page.evaluate(touch, event)
        self.assertGreater(self.page.evaluate(width), before * 2)

    def test_pictures_of_slides_come_when_scrolling_rests(self) -> None:
        self.import_show(long_show(60))
        self.page.wait_for_selector(".score .crowd")
        while_moving = self.page.evaluate(
            """async () => {
              const scroll = document.getElementById("score-scroll");
              const frame = () => new Promise(requestAnimationFrame);
              scroll.dispatchEvent(new WheelEvent("wheel", { bubbles: true, cancelable: true, ctrlKey: true, deltaY: -400, clientX: 500 }));
              for (let n = 0; n < 20; n += 1) { scroll.scrollLeft += 300; await frame(); }
              return scroll.querySelectorAll("image[data-href]").length;
            }"""
        )
        self.assertGreater(while_moving, 0, "none was asked for while they flew by")
        self.page.wait_for_function(
            "() => document.querySelector('.score image[href]') && !document.querySelector('.score image[data-href]')"
        )

    def test_what_a_zoom_makes_ready_is_shown_whole_and_unstretched_in_the_end(self) -> None:
        self.import_show(long_show(60))
        self.page.wait_for_selector(".score .crowd")
        scroll = self.page.locator("#score-scroll")
        # Looked at in the very frames of the hand's moves: a moment later what was made ready stands there.
        stretched = scroll.evaluate(
            """async (node) => {
              const seen = [];
              for (let n = 0; n < 6; n += 1) {
                if (n < 3) node.dispatchEvent(new WheelEvent("wheel", { bubbles: true, cancelable: true, ctrlKey: true, deltaY: -160, clientX: 500 }));
                seen.push(node.querySelector(".sheet:not([aria-hidden])").style.transform);
                await new Promise(requestAnimationFrame);
              }
              return seen.join(" ");
            }"""
        )
        self.assertIn("scaleX", stretched, "while the hand moves, what is drawn is stretched")
        self.page.wait_for_function("() => !document.querySelector('.sheet:not([aria-hidden])').style.transform")
        self.page.wait_for_function("() => !document.querySelector('.sheet[aria-hidden] [data-pick]')")
        seen = scroll.evaluate(
            "(node) => [...node.querySelectorAll('[data-pick=slide]')].filter((bar) => "
            "bar.getBoundingClientRect().top > 0).length"
        )
        self.assertGreater(seen, 3)

    def test_a_slide_of_many_beats_leaves_the_stage_in_its_place_and_its_stops_are_walked_by_keyboard(self) -> None:
        show = example_a()
        first = show.slides[0]
        blinks = tuple(
            Build(id=f"b{n}", object_id=first.objects[0].id, effect="accents pulse", starts=OnCue(f"c{n}", 1234))
            for n in range(12)
        )
        self.import_show(
            msgspec.structs.replace(
                show, slides=(msgspec.structs.replace(first, order=(*first.order, *blinks)), *show.slides[1:])
            )
        )
        stops = self.page.locator(".stops .along button")
        expect(stops).to_have_count(13)
        for shelf in (self.page.locator("#open-shelf"), self.page.locator(".theatre .canvas")):
            box = shelf.bounding_box()
            assert box
            self.assertLess(box["x"] + box["width"], 1280)
        stops.nth(0).focus()
        for number in range(1, 13):
            self.page.keyboard.press("Tab")
            self.page.keyboard.press("Enter")
            expect(stops.nth(number)).to_have_attribute("aria-current", "true")
            expect(stops.nth(number)).to_be_focused()
            expect(stops.nth(number)).to_be_in_viewport()

    def test_what_is_only_made_ready_cannot_be_pressed(self) -> None:
        self.compose()
        picked = self.page.locator(".sheet:not([aria-hidden]) .build[color*=plum]")
        self.page.locator(".sheet:not([aria-hidden]) .build").nth(1).click()
        expect(picked).not_to_have_count(0)
        build = self.page.locator(".sheet:not([aria-hidden]) .build").first
        box = build.bounding_box()
        assert box
        # As if it were made ready for another scale, at a place where nothing is seen.
        build.evaluate(
            """(node) => {
              const copy = document.createElementNS("http://www.w3.org/2000/svg", "svg");
              copy.append(node.cloneNode(true));
              Object.assign(copy.style, { position: "absolute", left: "0", top: "0", width: "100%", height: "100%" });
              document.querySelector(".sheet[aria-hidden] div").append(copy);
              node.remove();
            }"""
        )
        at = box["x"] + 4, box["y"] + box["height"] / 2
        met = self.page.evaluate(
            "([x, y]) => document.elementFromPoint(x, y).closest('[data-build]')?.dataset.build", list(at)
        )
        self.assertTrue(met, "a hand would meet it")
        self.page.mouse.click(*at)
        expect(picked).to_have_count(0)

    def test_until_a_finer_wave_has_come_the_coarser_one_is_seen(self) -> None:
        held: list[Any] = []
        self.page.route("**/wave/200/*", lambda route: held.append(route))
        self.compose("esc-s")
        heights = (
            "() => [...document.querySelectorAll('.sheet:not([aria-hidden]) "
            'path[fill="#c69a4c"]\')].map((path) => path.getBBox().height)'
        )
        self.page.wait_for_function(f"() => ({heights})().some((height) => height > 8)")
        for _ in range(6):
            self.page.get_by_role("button", name="See it larger").click()
        self.until(lambda: bool(held))
        self.page.wait_for_function("() => !document.querySelector('.sheet:not([aria-hidden])').style.transform")
        self.assertGreater(max(self.page.evaluate(heights)), 8)
        for route in held:
            route.continue_()
        self.page.wait_for_function(
            "() => performance.getEntriesByType('resource').some(({ name }) => name.includes('/wave/200/'))"
        )

    def test_the_wave_of_the_music_is_read_more_finely_the_closer_it_is_looked_at(self) -> None:
        self.page = self.new_page(self.context)
        asked: list[str] = []
        self.page.on(
            "request", lambda request: asked.append(request.url.split("/wave/")[1]) if "/wave/" in request.url else None
        )
        self.compose("esc-s")
        heights = (
            "() => [...document.querySelectorAll('.score path[fill=\"#c69a4c\"]')].map((path) => path.getBBox().height)"
        )
        self.page.wait_for_function(f"() => ({heights})().some((height) => height > 8)")
        self.assertEqual({part.split("/")[0] for part in asked}, {"25"})
        for _ in range(6):
            self.page.get_by_role("button", name="See it larger").click()
        self.page.wait_for_function(
            "() => performance.getEntriesByType('resource').some(({ name }) => name.includes('/wave/200/'))"
        )
        self.page.wait_for_function(f"() => ({heights})().some((height) => height > 8)")
