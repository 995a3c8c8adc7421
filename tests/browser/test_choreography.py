"""Effects seen before they are chosen, paths, builds for many, lengths by a rule, and the overview."""

import re
from typing import Any

from playwright.sync_api import expect

from tests.browser.test_stage import StageTest


class EffectTest(StageTest):
    def build_of(self, show: str, object_id: str) -> dict[str, Any] | None:
        return next((b for b in self.slide(show, "esc-s")["order"] if b["object_id"] == object_id), None)

    def effect(self, name: str) -> Any:
        return self.page.get_by_role("group", name=re.compile("^Effect")).get_by_role("button", name=name, exact=True)

    def test_an_effect_has_a_small_picture_and_is_shown_on_the_stage_before_it_is_chosen(self) -> None:
        show = self.compose("esc-s")
        before = self.score(show)["revision"]
        self.pick("esc-t")
        button = self.effect("Swell")
        expect(button.locator("svg.sample .slide-layer")).to_have_count(1)
        button.hover()
        # On the stage the text swells: its group is scaled while nothing is kept.
        group = '.theatre [data-object="esc-t"] > g'
        self.until(
            lambda: "scale(" in (self.page.locator(group).get_attribute("transform") or ""), "the stage did not show it"
        )
        self.page.mouse.move(5, 5)
        self.until(lambda: "scale(" not in (self.page.locator(group).get_attribute("transform") or ""))
        self.assertEqual(self.score(show)["revision"], before)
        button.click()
        build = self.until(lambda: self.build_of(show, "esc-t"))
        self.assertEqual(build["effect"], "enters swell")

    def test_a_path_is_pulled_bent_and_made_straight_on_the_stage(self) -> None:
        show = self.compose("esc-s")
        self.pick("esc-t")
        self.page.get_by_role("group", name="Kind of build").get_by_role("button", name="Travels").click()
        self.effect("Along a path").click()
        self.until(lambda: self.build_of(show, "esc-t"))
        expect(self.page.locator(".travel-path [data-piece]")).to_have_count(3)
        self.drag('.travel-path [data-piece="1"][data-point="2"]', 60, 80)
        build = self.until(lambda: (b := self.build_of(show, "esc-t")) and b["settings"].get("path") and b)
        end = [float(word) for word in build["settings"]["path"].split(" ")[-2:]]
        self.assertAlmostEqual(end[0], 360, delta=3)
        self.assertAlmostEqual(end[1], 80, delta=3)
        self.page.get_by_role("button", name="Bend", exact=True).click()
        expect(self.page.locator(".travel-path [data-piece]")).to_have_count(6)
        self.page.get_by_role("button", name="Straight", exact=True).click()
        expect(self.page.locator(".travel-path [data-piece]")).to_have_count(2)

    def test_a_path_without_length_is_refused_and_nothing_changes(self) -> None:
        show = self.compose("esc-s")
        before = self.score(show)["revision"]
        build = {
            "id": "n",
            "object_id": "esc-t",
            "effect": "travels along",
            "starts": {"rule": "follows"},
            "settings": {"path": "M 0 0 L 0 0"},
        }
        token = self.page.locator("meta[name=csrf]").get_attribute("content") or ""
        body = {"revision": before, "edit": {"do": "add build", "slide_id": "esc-s", "build": build}}
        reply = self.page.request.post(
            f"{self.base}/shows/{show}/edit", data=body, headers={"X-CSRFToken": token, "Referer": self.base}
        )
        self.assertEqual(
            (reply.status, reply.json()["error"]),
            (400, "The path has no length; draw it to where the object is to go."),
        )
        self.assertEqual(self.score(show)["revision"], before)

    def test_one_act_gives_many_objects_a_build_and_another_takes_theirs_away(self) -> None:
        show = self.compose("esc-s")
        self.squares(show, (100, 300), (200, 300), (300, 300))
        self.pick("s0", "s1", "s2")
        self.effect("Fade").click()
        self.until(
            lambda: (
                [b["starts"]["rule"] for b in self.slide(show, "esc-s")["order"][-3:]]
                == ["cue", "together", "together"]
                and self.build_of(show, "s2")
            )
        )
        self.page.get_by_role("button", name="Take their 3 builds away").click()
        self.until(lambda: not self.build_of(show, "s0") and not self.build_of(show, "s2"))
        self.page.keyboard.press("Control+z")
        self.until(lambda: self.build_of(show, "s1"))

    def test_a_transition_is_chosen_by_its_moving_picture(self) -> None:
        show = self.compose("esc-s")
        self.at_passage("Transition")
        self.page.get_by_role("group", name="Transition").get_by_role("button", name="Iris").click()
        self.until(lambda: self.slide(show, "esc-s")["transition"]["name"] == "iris")

    def test_a_beat_runs_on_the_stage_and_stops_by_itself(self) -> None:
        self.compose("esc-s")
        clock = self.page.locator(".stops output")
        self.page.get_by_role("button", name="On arrival", exact=True).click()
        at_rest = clock.text_content()
        self.page.get_by_role("button", name="See this beat").click()
        self.until(lambda: clock.text_content() != at_rest)
        self.until(lambda: clock.text_content() == at_rest)

    def test_a_list_grows_line_by_line_in_one_act_and_stays_centred(self) -> None:
        show = self.compose("esc-s")
        self.pick("esc-t")
        self.page.get_by_role("button", name="Grow line by line, centred").click()
        item = self.until(lambda: (o := self.objects(show)["esc-t"])["growing"] and o)
        order = [b for b in self.slide(show, "esc-s")["order"] if b["object_id"] == "esc-t"]
        self.assertEqual(
            [(b["part"], b["starts"]["rule"]) for b in order], [("esc-t-1", "follows"), ("esc-t-2", "cue")]
        )
        self.assertEqual(item["align"], "centre")
        self.page.keyboard.press("Control+z")
        self.until(
            lambda: (
                not self.objects(show)["esc-t"]["growing"]
                and not [b for b in self.slide(show, "esc-s")["order"] if b["object_id"] == "esc-t"]
            )
        )


class CarryTest(StageTest):
    def test_the_next_slide_is_continued_from_here_and_its_pairs_are_shown_and_unlinked(self) -> None:
        show = self.compose("esc-s")
        self.at_tab("Slide")
        self.page.get_by_role("button", name="Continue from here").click()
        self.until(lambda: len(self.score(show)["order"]) == 10)
        copy = self.score(show)["order"][3]
        self.assertEqual((self.slide(show, copy)["transition"]["name"], self.slide(show, copy)["order"]), ("carry", []))
        self.at_passage("Transition")
        pairs = self.page.get_by_label("Carried", exact=True)
        expect(pairs.locator("li")).to_have_count(8)
        item = next(o for o in self.slide(show, copy)["objects"] if o["name"] == "Axle")
        self.add(show, {"do": "move objects", "slide_id": copy, "object_ids": [item["id"]], "dx": -500, "dy": 100})
        expect(self.page.locator(".frames .carries line")).to_have_count(1)
        pairs.get_by_role("button", name="Unlink Axle").click()
        expect(pairs.locator("li")).to_have_count(7)
        expect(self.page.locator(".frames .carries line")).to_have_count(0)
        self.page.get_by_label("Object of this slide").select_option(item["id"])
        expect(pairs).to_contain_text("Axle · linked by hand")

    def test_an_object_comes_from_its_wings(self) -> None:
        show = self.compose("esc-s")
        self.at_passage("Transition")
        self.page.get_by_role("group", name="Transition").get_by_role("button", name="Carry").click()
        self.until(lambda: self.slide(show, "esc-s")["transition"]["name"] == "carry")
        self.pick("ticks")
        self.page.get_by_role("tab", name="Place").click()
        self.page.get_by_role("button", name="Come from the wings").click()
        self.until(lambda: self.objects(show)["ticks"]["wings"] == {"dx": -400, "dy": 0, "scale": 1, "opacity": 0})


class LengthTest(StageTest):
    def test_a_show_is_spread_to_a_target_exactly_and_undone(self) -> None:
        show = self.compose("esc-s")
        before = self.score(show)["length_ms"]
        self.at_show()
        self.page.get_by_label("Length to fit the show to").fill("2:00")
        self.page.get_by_role("button", name="Fit", exact=True).click()
        self.until(lambda: self.score(show)["length_ms"] == 120_000)
        self.page.locator("#undo").click()
        self.until(lambda: self.score(show)["length_ms"] == before)

    def test_a_target_that_cannot_be_met_is_told_with_the_nearest(self) -> None:
        self.compose("esc-s")
        self.at_show()
        self.page.get_by_label("Length to fit the show to").fill("0:05")
        self.page.get_by_role("button", name="Fit", exact=True).click()
        expect(self.page.get_by_role("status").filter(has_text="0:05.0 cannot be met")).to_be_visible()

    def test_a_slide_takes_the_time_its_words_need(self) -> None:
        show = self.compose("esc-s")
        self.at_passage("Goes on")
        self.page.get_by_role("button", name="Use it").click()
        self.until(lambda: self.slide(show, "esc-s")["advance"]["after_ms"] != 15_000)


class OverviewTest(StageTest):
    def bar(self, slide: str) -> Any:
        return self.page.locator(f'.ov-bar[data-slide="{slide}"]')

    def overview(self) -> str:
        show = self.compose("esc-s")
        self.page.get_by_role("button", name="Overview").click()
        expect(self.page.locator(".ov-bar")).to_have_count(9)
        return show

    def test_slides_are_picked_and_changed_together(self) -> None:
        show = self.overview()
        self.bar("who-s").click()
        self.bar("two-s").click(modifiers=["Shift"])
        expect(self.page.get_by_role("heading", name="3 slides")).to_be_visible()
        self.page.get_by_label("Transition", exact=True).select_option("cover")
        self.until(
            lambda: (
                [self.score(show)["slides"][key]["transition"]["name"] for key in ("who-s", "esc-s", "two-s")]
                == ["cover"] * 3
            )
        )

    def test_slides_move_by_keys_and_by_dragging_several_at_once(self) -> None:
        show = self.overview()
        self.bar("esc-s").focus()
        self.page.keyboard.press("Alt+ArrowRight")
        self.until(lambda: self.score(show)["order"].index("esc-s") == 3)
        self.bar("noon-s").click()
        self.bar("who-s").click(modifiers=["Control"])
        self.bar("who-s").drag_to(self.bar("thx-s"), target_position={"x": 60, "y": 60})
        self.until(
            lambda: (
                self.score(show)["order"][-2:] == ["noon-s", "who-s"]
                or self.score(show)["order"][-3:-1] == ["noon-s", "who-s"]
            )
        )

    def test_what_differs_is_told_in_the_margin_and_fixed_in_one_press(self) -> None:
        show = self.overview()
        margin = self.page.get_by_label("Inconsistencies", exact=True)
        expect(margin).to_contain_text("2 has a wait without a hold")
        margin.get_by_role("button", name="Hold 2 s").or_(margin.get_by_role("button", name="Hold 2.0 s")).first.click()
        expect(margin).not_to_contain_text("2 has a wait without a hold")
        builds = self.slide(show, "who-s")["order"]
        self.assertIn(2000, [b["starts"].get("hold_ms") for b in builds])

    def test_a_slide_is_opened_by_a_double_press_and_escape_leaves(self) -> None:
        self.overview()
        self.bar("bell-s").dblclick()
        expect(self.page.locator("#overview")).to_be_hidden()
        expect(self.opened()).to_contain_text("The bell")
        self.page.get_by_role("button", name="Overview").click()
        self.page.keyboard.press("Escape")
        expect(self.page.locator("#overview")).to_be_hidden()


class FramingTest(StageTest):
    expected_complaints = ("the server responded with a status of 400",)

    def test_a_slide_is_made_larger_and_the_view_flies_to_a_framing_pulled_on_the_stage(self) -> None:
        show = self.compose("dial-s")
        self.at_tab("Slide")
        self.page.get_by_role("button", name="Larger than the frame").click()
        self.page.get_by_role("button", name="Twice as large").click()
        self.until(lambda: self.slide(show, "dial-s")["size"] == {"width_px": 2560, "height_px": 1440})
        self.page.get_by_role("button", name="Framing", exact=True).click()
        framing = self.until(lambda: next(iter(self.slide(show, "dial-s")["framings"]), None))
        self.assertEqual((framing["x"], framing["width_px"]), (1280, 1280))
        flight = self.slide(show, "dial-s")["order"][-1]
        self.assertEqual(
            (flight["effect"], flight["object_id"], flight["starts"]["rule"]), ("views fly", framing["id"], "cue")
        )
        self.drag(".framing-tag rect", -60, 20)
        self.until(lambda: (f := self.slide(show, "dial-s")["framings"][0])["x"] < 1280 and f["y"] > 720)
        self.drag('[data-framing] [data-grip="size"]', 30, 20)
        self.until(lambda: self.slide(show, "dial-s")["framings"][0]["width_px"] < 1280)
        runs = next(b["runs_ms"] for b in self.score(show)["slides"]["dial-s"]["builds"] if b["kind"] == "views")
        self.assertGreater(runs, 400, "as long as its way takes")
        self.page.get_by_label("From the left").fill("9000")
        self.page.get_by_label("From the left").press("Enter")
        expect(
            self.page.get_by_role("complementary", name="Details").get_by_text("would look past the slide")
        ).to_be_visible()
        self.assertLess(self.slide(show, "dial-s")["framings"][0]["x"], 1280)
        self.page.get_by_role("button", name="Remove framing").click()
        self.until(lambda: not self.slide(show, "dial-s")["framings"])
        self.assertFalse([build for build in self.slide(show, "dial-s")["order"] if build["effect"] == "views fly"])

    def test_the_show_flies_there_when_it_is_played(self) -> None:
        show = self.compose("dial-s")
        self.at_tab("Slide")
        self.page.get_by_role("button", name="Larger than the frame").click()
        self.page.get_by_role("button", name="Twice as large").click()
        self.page.get_by_role("button", name="Framing", exact=True).click()
        self.until(lambda: self.slide(show, "dial-s")["framings"])
        self.page.goto(f"{self.base}/shows/{show}/play?from=dial-s")
        view = self.page.locator('[data-layer="dial-s"] > g > g').first
        expect(view).to_have_attribute("transform", re.compile(r"scale\(0\.5 0\.5\)"))
        for _ in range(len(self.score(show)["slides"]["dial-s"]["schedule"]["beats"])):
            self.page.keyboard.press("ArrowRight")
        self.until(lambda: "scale(0.5" not in (view.get_attribute("transform") or ""))


class DriftTest(StageTest):
    def test_a_picture_drifts_by_one_choice_and_the_stage_shows_it_at_the_playhead(self) -> None:
        show = self.compose("dial-s")
        slide = self.slide(show, "dial-s")
        photo = next(item for item in slide["objects"] if item["kind"] == "picture")
        self.pick(photo["id"])
        self.page.get_by_role("tab", name="Look").click()
        self.page.get_by_label("Drift over the picture").select_option("closer")
        drift = self.until(
            lambda: next(item for item in self.slide(show, "dial-s")["objects"] if item["id"] == photo["id"])["drift"]
        )
        self.assertLess(drift["ends"]["width"], 0.9)
        image = self.page.locator(f'.theatre [data-object="{photo["id"]}"] image')
        width = lambda: float(image.get_attribute("width") or 0)  # noqa: E731
        self.page.get_by_role("button", name="See the slide").click()
        early = width()
        # Closer: the picture under its window grows while the playhead runs.
        self.until(lambda: width() > early * 1.02, "it did not drift on the stage")
        self.page.get_by_label("Drift over the picture").select_option("none")
        self.until(
            lambda: (
                not next(item for item in self.slide(show, "dial-s")["objects"] if item["id"] == photo["id"]).get(
                    "drift"
                )
            )
        )

    def test_pictures_of_many_slides_drift_by_one_choice_in_the_overview(self) -> None:
        show = self.compose("esc-s")
        self.page.get_by_role("button", name="Overview").click()
        self.page.locator('.ov-bar[data-slide="noon-s"]').click()
        self.page.locator('.ov-bar[data-slide="bell-s"]').click(modifiers=["Shift"])
        self.page.get_by_label("Drift of the pictures").select_option("in turn")
        pictures = lambda name: [item for item in self.slide(show, name)["objects"] if item["kind"] == "picture"]  # noqa: E731
        self.until(lambda: all(item.get("drift") for name in ("noon-s", "dial-s") for item in pictures(name)))
        self.assertNotEqual(pictures("noon-s")[0]["drift"], pictures("dial-s")[0]["drift"])


class HabitTest(StageTest):
    def test_a_build_becomes_the_habit_and_the_next_is_given_by_one_press(self) -> None:
        show = self.compose("two-s")
        objects = [item["id"] for item in self.slide(show, "two-s")["objects"]]
        count = len(self.slide(show, "two-s")["order"])
        self.pick(objects[0])
        self.page.get_by_role("group", name="Effect").get_by_role("button", name="Rise", exact=True).click()
        lasts = self.page.get_by_label("Lasts", exact=True)
        lasts.fill("0.9")
        lasts.press("Enter")
        self.page.get_by_role("button", name="Make this the default").click()
        self.until(
            lambda: (
                self.score(show)["settings"]["habits"] == {"effect": "enters rise", "lasts_ms": 900, "pace": "ease out"}
            )
        )
        self.pick(objects[-1])
        self.page.get_by_role("button", name="Default build: rise, 0.9 s").click()
        build = self.until(
            lambda: (
                (order := self.slide(show, "two-s")["order"])[-1]
                if len(self.slide(show, "two-s")["order"]) == count + 2
                else None
            )
        )
        self.assertEqual((build["effect"], build["lasts_ms"], build["object_id"]), ("enters rise", 900, objects[-1]))


class PulledOverviewTest(StageTest):
    def test_a_bar_line_is_pulled_in_the_overview_with_its_number_shown(self) -> None:
        show = self.compose("esc-s")
        before = self.slide(show, "esc-s")["advance"]["after_ms"]
        self.page.get_by_role("button", name="Overview").click()
        box = self.page.locator('.ov-grip[data-drag="bar"][data-slide="esc-s"]').bounding_box()
        assert box is not None
        self.page.mouse.move(box["x"] + 3, box["y"] + 50)
        self.page.mouse.down()
        self.page.mouse.move(box["x"] + 43, box["y"] + 50, steps=4)
        expect(self.page.locator(".ov-tag")).to_have_text(re.compile(r"^After \d+(\.\d+)? s"))
        self.page.mouse.up()
        self.until(lambda: self.slide(show, "esc-s")["advance"]["after_ms"] > before)
        expect(self.page.locator(".ov-tag")).to_be_hidden()
        self.assertEqual(
            self.score(show)["order"],
            [line["id"] for line in self.score(show)["slides"].values()],
            "no slide was moved",
        )


class RunningOrderTest(StageTest):
    def test_rule_and_times_are_changed_in_place_and_what_plays_is_what_stands_there(self) -> None:
        show = self.compose("two-s")
        first, second = self.slide(show, "two-s")["order"][:2]
        name = next(
            line["name"] for line in self.score(show)["slides"]["two-s"]["builds"] if line["id"] == second["id"]
        )
        self.page.locator(f'.order [data-build="{second["id"]}"] .who').click()
        self.page.get_by_label(f"How {name} starts").select_option("together")
        self.until(lambda: self.slide(show, "two-s")["order"][1]["starts"]["rule"] == "together")
        after = self.page.get_by_label(f"{name}: after")
        after.fill("0.4")
        after.press("Enter")
        self.until(lambda: self.slide(show, "two-s")["order"][1]["after_ms"] == 400)
        lasts = self.page.get_by_label(f"{name}: lasts")
        lasts.fill("1.1")
        lasts.press("Enter")
        self.until(lambda: self.slide(show, "two-s")["order"][1]["lasts_ms"] == 1100)
        line = next(line for line in self.score(show)["slides"]["two-s"]["builds"] if line["id"] == second["id"])
        start = self.score(show)["slides"]["two-s"]["schedule"]["beats"][line["beat"]]["start_ms"] + line["offset_ms"]
        expect(self.page.locator(f'.order [data-build="{second["id"]}"] .when')).to_have_text(
            f"{start / 1000:.1f}–{(start + 1100) / 1000:.1f}"
        )
        self.assertEqual(
            line["beat"],
            next(b for b in self.score(show)["slides"]["two-s"]["builds"] if b["id"] == first["id"])["beat"],
        )

    def test_a_hold_longer_than_a_day_is_refused_at_its_field(self) -> None:
        show = self.compose("two-s")
        before = self.score(show)["revision"]
        hold = self.page.get_by_label("Hold before beat 1")
        hold.fill("90000")
        hold.press("Enter")
        expect(hold).to_have_attribute("aria-invalid", "true")
        expect(hold).to_have_attribute("title", re.compile("A day is the longest"))
        self.assertEqual(self.score(show)["revision"], before)


class TieTest(StageTest):
    def test_what_is_carried_is_tied_on_the_score_and_the_tie_opens_its_pair(self) -> None:
        show = self.compose("esc-s")
        self.at_tab("Slide")
        self.page.get_by_role("button", name="Continue from here").click()
        self.until(lambda: any(line["transition"]["name"] == "carry" for line in self.score(show)["slides"].values()))
        carried = next(
            name for name, line in self.score(show)["slides"].items() if line["transition"]["name"] == "carry"
        )
        tie = self.page.locator(f'.score .tie[data-slide="{carried}"]').first
        expect(tie).to_be_attached()
        self.page.evaluate("(node) => node.focus()", tie.element_handle())
        self.page.keyboard.press("Enter")
        expect(self.page.get_by_role("list", name="Carried")).to_be_in_viewport()

    def test_wings_are_pulled_on_the_stage(self) -> None:
        show = self.compose("esc-s")
        self.at_tab("Slide")
        self.page.get_by_role("button", name="Continue from here").click()
        carried = self.until(
            lambda: next(
                (name for name, line in self.score(show)["slides"].items() if line["transition"]["name"] == "carry"),
                None,
            )
        )
        item = self.slide(show, carried)["objects"][0]
        self.until(lambda: self.page.locator(f'.theatre [data-object="{item["id"]}"]').count())
        self.pick(item["id"])
        self.page.get_by_role("tab", name="Place").click()
        self.page.get_by_role("button", name="Come from the wings").click()
        self.until(lambda: self.slide(show, carried)["objects"][0].get("wings"))
        self.page.get_by_label("Wings, to the right").fill("120")
        self.page.get_by_label("Wings, to the right").press("Enter")
        self.until(lambda: self.slide(show, carried)["objects"][0]["wings"]["dx"] == 120)
        self.drag("[data-wings] rect", 30, 40)
        wings = self.until(lambda: (w := self.slide(show, carried)["objects"][0]["wings"])["dx"] != 120 and w)
        self.assertGreater(wings["dx"], 140)
        self.assertGreater(wings["dy"], 30)


class KeyTest(StageTest):
    def test_the_score_has_a_key_that_opens_and_closes_by_keys(self) -> None:
        self.compose("esc-s")
        self.page.get_by_role("button", name="What the signs mean").click()
        dialog = self.page.get_by_role("dialog", name="What the signs mean")
        for sign in ("Fermata", "Slur", "Tie", "Hairpin", "Enters", "Travels"):
            expect(dialog.get_by_role("rowheader", name=sign)).to_be_visible()
        self.page.keyboard.press("Escape")
        expect(dialog).to_have_count(0)
        expect(self.page.get_by_role("button", name="What the signs mean")).to_be_focused()
