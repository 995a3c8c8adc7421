"""Voices: given, trimmed, marked by ear, told by number; slides that follow them and music that sinks."""

import io
import re
import wave
from typing import Any

import msgspec
import numpy as np
from playwright.sync_api import expect

from ritornel.core.reference.captions import spoken_at
from ritornel.core.schedule.performance import perform
from ritornel.demo.narrated import told
from tests.browser.test_stage import StageTest, png


def hum(seconds: float, hz: float = 220) -> bytes:
    """A WAV file of a low hum, with a pause in the middle."""
    at = np.arange(round(seconds * 16_000)) / 16_000
    loud = 0.4 * np.sin(2 * np.pi * hz * at) * (np.abs(at - seconds / 2) > 0.2)
    out = io.BytesIO()
    with wave.open(out, "wb") as file:
        file.setnchannels(1)
        file.setsampwidth(2)
        file.setframerate(16_000)
        file.writeframes((loud * 32_767).astype("<i2").tobytes())
    return out.getvalue()


def spoken(name: str, seconds: float) -> Any:
    return {"name": name, "mimeType": "audio/wav", "buffer": hum(seconds)}


class VoiceTest(StageTest):
    def voiced(self, show: str) -> set[str]:
        """The slides that have a voice."""
        return {key for key, line in self.score(show)["slides"].items() if line["voice"]}

    def give(self, show: str, slide: str, seconds: float) -> dict[str, Any]:
        self.at_tab("Voice")
        self.page.get_by_label("A voice file").set_input_files(spoken("noon.wav", seconds))
        return self.until(lambda: self.slide(show, slide)["voice"])  # type: ignore[no-any-return]

    def test_a_slide_becomes_as_long_as_its_voice_and_a_breath_and_the_music_sinks_under_it(self) -> None:
        show = self.compose("dial-s")
        before = self.score(show)["starts_ms"]
        voice = self.give(show, "dial-s", 7.5)
        self.assertEqual(voice["out_ms"], 7500)
        line = self.score(show)["slides"]["dial-s"]
        self.assertEqual((line["advance"]["rule"], line["schedule"]["length_ms"]), ("voice", 8100))
        self.assertEqual(
            self.score(show)["starts_ms"]["bell-s"] - before["bell-s"], 8100 - 6000, "what comes after comes later"
        )
        self.assertTrue(self.score(show)["music"][0]["ducking"])
        expect(self.page.locator('.score [data-voice="dial-s"]')).to_have_count(1)
        breath = self.page.get_by_label("Breath after the voice").first
        breath.fill("1.5")
        breath.press("Enter")
        self.until(lambda: self.score(show)["slides"]["dial-s"]["schedule"]["length_ms"] == 9000)
        self.page.get_by_label("Voice begins at").fill("2")
        self.page.get_by_label("Voice begins at").press("Enter")
        self.until(lambda: self.score(show)["slides"]["dial-s"]["schedule"]["length_ms"] == 11_000)

    def test_its_end_is_pulled_on_the_score_and_never_past_its_sound(self) -> None:
        show = self.compose("dial-s")
        self.give(show, "dial-s", 7.5)
        self.drag('.score [data-drag="voiceEnd"][data-slide="dial-s"]', -40, 0)
        voice = self.until(lambda: (v := self.slide(show, "dial-s")["voice"])["out_ms"] < 7500 and v)
        self.drag('.score [data-drag="voiceEnd"][data-slide="dial-s"]', 400, 0)
        self.until(lambda: self.slide(show, "dial-s")["voice"]["out_ms"] == 7500)
        self.assertGreater(voice["out_ms"], 1000)

    def test_cues_are_marked_by_ear_and_a_pulled_hold_moves_the_mark(self) -> None:
        show = self.compose("who-s")
        self.give(show, "who-s", 6)
        self.page.get_by_role("button", name="Mark by ear").click()
        here = self.page.get_by_role("button", name=re.compile("^Here: "))
        for number in range(2):
            words = here.text_content()
            here.click()
            if number == 0:
                expect(here).not_to_have_text(words or "")
        expect(here).to_have_count(0)
        marks = self.until(lambda: self.slide(show, "who-s")["voice"].get("marks"))
        waits = [beat["wait"] for beat in self.score(show)["slides"]["who-s"]["schedule"]["beats"][1:]]
        self.assertEqual(len(marks), 2)
        self.assertEqual({wait["source"] for wait in waits if wait["cue_id"] in marks}, {"voice mark"})
        self.at_tab("Running order")
        hold = self.page.get_by_label("Hold before beat 1")
        hold.fill("2.5")
        hold.press("Enter")
        first = waits[0]["cue_id"]
        self.until(lambda: self.slide(show, "who-s")["voice"]["marks"][first] != marks[first])
        now = self.score(show)["slides"]["who-s"]["schedule"]["beats"][1]["wait"]
        self.assertEqual((now["hold_ms"], now["source"]), (2500, "voice mark"))

    def test_numbered_files_find_their_slides_and_what_does_not_is_told_first(self) -> None:
        show = self.compose("dial-s")
        files = [
            spoken("01 noon.wav", 2),
            spoken("03 wheel.wav", 3),
            spoken("3 again.wav", 1),
            spoken("hello.wav", 1),
            spoken("44.wav", 1),
        ]
        self.at_tab("Voice")
        self.page.get_by_label("Numbered voice files").set_input_files(files)
        dialog = self.page.get_by_role("dialog", name="Which voice goes where")
        for words in (
            "number 2 is missing",
            "has no number in its name",
            "is number 44: the 9 slides have the numbers 1 to 9",
            "has the number 3, as “03 wheel.wav” has",
        ):
            expect(dialog.get_by_text(words)).to_be_visible()
        self.assertFalse(self.score(show)["voices"], "nothing has happened yet")
        dialog.get_by_role("button", name="Give 2 slides their voices").click()
        self.until(lambda: len(self.score(show)["voices"]) == 2)
        lines = self.score(show)["slides"]
        self.assertEqual(lines["noon-s"]["schedule"]["length_ms"], 2600)
        self.page.locator("#undo").click()
        self.until(lambda: not self.score(show)["voices"])

    def test_the_pairs_can_be_shifted_chosen_anew_and_left_out_before_anything_happens(self) -> None:
        show = self.compose("dial-s")
        self.at_tab("Voice")
        files = [spoken(f"part {number}.wav", number) for number in (1, 2, 3)]
        self.page.get_by_label("Numbered voice files").set_input_files(files)
        dialog = self.page.get_by_role("dialog", name="Which voice goes where")
        dialog.get_by_role("button", name="All one slide later").click()
        voice = lambda number: dialog.get_by_label(f"Voice of slide {number} ")  # noqa: E731
        expect(voice(1)).to_have_value("")
        expect(voice(4)).to_have_value("2")
        voice(4).select_option("")
        expect(dialog.get_by_label("Voices without a slide")).to_contain_text("part 3.wav")
        voice(7).select_option(label="part 1.wav")
        expect(voice(2)).to_have_value("")
        dialog.get_by_role("button", name="Give 2 slides their voices").click()
        order = self.score(show)["order"]
        self.until(lambda: self.voiced(show) == {order[2], order[6]})

    def test_pictures_with_sounds_among_them_offer_the_pairs(self) -> None:
        self.page.goto(f"{self.base}/shows/start")
        pictures = [{"name": f"plot{n}.png", "mimeType": "image/png", "buffer": png(900, 600)} for n in range(3)]
        voices = [spoken(f"slide{n}.wav", n + 1) for n in (0, 2)]
        self.page.locator("#pictures").set_input_files([*pictures, *voices])
        expect(self.page.locator("#chosen")).to_have_text("3 pictures and 2 voices, to be paired next")
        self.page.locator("#make").click()
        dialog = self.page.get_by_role("dialog", name="Which voice goes where")
        expect(dialog.get_by_label("Voice of slide 2 ")).to_have_value("")
        dialog.get_by_role("button", name="Give 2 slides their voices").click()
        show = self.page.url.split("/shows/")[1].split("/")[0]
        order = self.score(show)["order"]
        self.until(lambda: self.voiced(show) == {order[0], order[2]})
        first = self.slide(show, order[0])
        self.assertEqual((first["layout"], first["objects"][0]["fit"]), ("picture alone", "contain"))
        expect(self.page.locator(".empty-place")).to_have_count(0)


class SpokenNotesTest(StageTest):
    def test_the_notes_are_read_as_captions_while_their_voice_is_heard_where_the_maker_wants_it(self) -> None:
        show = self.compose("esc-s", show=self.copy_of_demo(demo="told"))
        self.at_show()
        self.page.get_by_role("tab", name="How it runs").click()
        tick = self.page.get_by_label("The notes are the captions of the voices")
        tick.check()
        self.until(lambda: self.score(show)["settings"]["notes_as_captions"])
        self.page.get_by_label("Language of the slides").select_option("German")
        self.until(lambda: self.score(show)["settings"]["language"] == "de")
        staged = perform(msgspec.structs.replace(told(), notes_as_captions=True))
        self.page.goto(f"{self.base}/shows/{show}/play?mode=self-running&from=esc-s")
        line = self.page.locator(".house .captions")
        expect(line).to_have_text(staged.spoken[2][0].text)
        expect(line).to_have_attribute("lang", "de")
        instants = [(n, at + 0.5) for n, told in enumerate(staged.spoken) for at in range(0, 12_000, 700) if told]
        read = self.page.evaluate(
            """async ([address, instants]) => {
              const { spokenAt } = await import("/static/ritornel/player/captions.js");
              const show = await (await fetch(address)).json();
              return instants.map(([index, at]) => spokenAt(show, index, at));
            }""",
            [f"/shows/{show}/performance.json", instants],
        )
        self.assertEqual(read, [spoken_at(staged, n, at) for n, at in instants])
        self.assertGreater(len(set(read)), 5)


class EffectSoundTest(StageTest):
    def test_a_transition_gets_one_of_our_own_sounds_which_comes_onto_the_shelf_with_its_licence(self) -> None:
        show = self.compose("esc-s")
        self.at_passage("Transition")
        self.page.get_by_label("Sound of the transition", exact=True).select_option(label="Bell")
        sound = self.until(lambda: self.slide(show, "esc-s")["transition"].get("sound"))
        asset = next(asset for asset in self.score_assets(show) if asset["id"] == sound["asset_id"])
        self.assertEqual((asset["name"], asset["author"], asset["licence"]), ("Bell", "Ritornel", "CC0 1.0"))
        self.page.get_by_label("Keeps on until the next").check()
        self.until(lambda: self.slide(show, "esc-s")["transition"]["sound"].get("keeps_on"))
        self.page.get_by_label("Sound of the transition", exact=True).select_option(label="No sound")
        self.until(lambda: not self.slide(show, "esc-s")["transition"].get("sound"))

    def score_assets(self, show: str) -> list[dict[str, Any]]:
        return self.score(show)["assets"]  # type: ignore[no-any-return]

    def test_a_build_sounds_and_is_heard_on_its_cue(self) -> None:
        show = self.compose("esc-s")
        build = self.slide(show, "esc-s")["order"][-1]
        self.page.locator(f'.order [data-build="{build["id"]}"] .who').dblclick()
        self.page.get_by_label("Sound of the build", exact=True).select_option(label="Tick")
        self.until(lambda: next(b for b in self.slide(show, "esc-s")["order"] if b["id"] == build["id"]).get("sound"))


class MusicTest(StageTest):
    def pull(self, drag: str, dx: float) -> None:
        box = self.until(lambda: self.page.locator(f'.score [data-drag="{drag}"]').first.bounding_box())
        x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
        self.page.mouse.move(x, y)
        self.page.mouse.down()
        self.page.mouse.move(x + dx, y, steps=5)

    def test_the_ends_of_music_are_pulled_to_bar_lines_and_its_fades_to_any_length(self) -> None:
        show = self.compose("dial-s")
        data = self.score(show)
        widths = self.page.locator(".score [data-drag=bar]").evaluate_all(
            "(nodes) => nodes.map((node) => Number(node.getAttribute('x')))"
        )
        px_ms = (widths[1] - widths[0]) / (data["starts_ms"][data["order"][2]] - data["starts_ms"][data["order"][1]])
        back = (data["starts_ms"]["night-s"] - data["length_ms"] + 400) * px_ms
        self.pull("spanEnd", back)
        expect(self.page.locator("#score .number-tag")).to_have_text("To the end of 7 The bell")
        self.page.mouse.up()
        self.until(lambda: self.score(show)["spans"][0]["end"] == {"at": "slide end", "slide_id": "bell-s"})
        self.assertEqual(self.score(show)["music"][0]["end_ms"], self.score(show)["starts_ms"]["night-s"])
        self.pull("spanStart", data["starts_ms"]["who-s"] * px_ms + 9)
        self.page.mouse.up()
        self.until(lambda: self.score(show)["spans"][0]["start"].get("slide_id") == "who-s")
        before = self.score(show)["spans"][0]["fade_out_ms"]
        self.pull("fadeOut", -30)
        expect(self.page.locator("#score .number-tag")).to_have_text(re.compile(r"^Fades out over [\d.]+ s$"))
        self.page.mouse.up()
        self.until(lambda: self.score(show)["spans"][0]["fade_out_ms"] > before)


class SilenceTest(StageTest):
    def test_silence_at_the_ends_is_found_and_cut_by_one_press_and_marks_stay_where_they_are_heard(self) -> None:
        show = self.compose("dial-s")
        quiet, loud = np.zeros(16_000, dtype="<i2"), np.frombuffer(hum(3)[44:], dtype="<i2")
        out = io.BytesIO()
        with wave.open(out, "wb") as file:
            file.setnchannels(1)
            file.setsampwidth(2)
            file.setframerate(16_000)
            file.writeframes(np.concatenate([quiet, loud, quiet, quiet]).tobytes())
        self.at_tab("Voice")
        self.page.get_by_label("A voice file").set_input_files(
            {"name": "quiet.wav", "mimeType": "audio/wav", "buffer": out.getvalue()}
        )
        self.until(lambda: self.slide(show, "dial-s")["voice"])
        expect(self.page.get_by_text(re.compile(r"Silence at its ends: 0\.9\d* s and 1\.9\d* s"))).to_be_visible()
        self.page.get_by_role("button", name="Cut it").click()
        voice = self.until(lambda: (v := self.slide(show, "dial-s")["voice"]).get("in_ms") and v)
        self.assertTrue(850 < voice["in_ms"] <= 1000 and 4000 <= voice["out_ms"] < 4150)


class CreditsTest(StageTest):
    def test_credits_are_gathered_on_a_closing_slide_in_one_act_and_keep_themselves_true(self) -> None:
        show = self.compose("dial-s")
        self.at_show()
        self.page.get_by_role("button", name="Gather the credits").click()
        last = self.until(lambda: (order := self.score(show)["order"])[9:] and order[-1])
        text = self.slide(show, last)["objects"][1]
        before = [run["text"] for paragraph in text["paragraphs"] for run in paragraph["runs"]]
        self.assertIn("Winders' waltz", " ".join(before))
        self.at_passage("Transition")
        self.page.get_by_label("Sound of the transition", exact=True).select_option(label="Bell")
        self.until(
            lambda: (
                "Bell"
                in " ".join(r["text"] for p in self.slide(show, last)["objects"][1]["paragraphs"] for r in p["runs"])
            )
        )
