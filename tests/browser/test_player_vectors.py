"""The browser's functions of time against the vectors that Python is held to as well."""

import json
from pathlib import Path

from tests.browser.base import BrowserTest

VECTORS = Path(__file__).parents[1] / "vectors"
PLAYER = "/static/ritornel/player"

COMPARE = """
  const finite = (value) => (value === Infinity ? null : value);
  const near = (a, b) => a === b || (typeof a === "number" && typeof b === "number" && Math.abs(a - b) < 1e-6);
  function same(a, b) {
    if (near(finite(a), b)) return true;
    if (typeof a !== "object" || typeof b !== "object" || !a || !b) return false;
    return Object.keys(b).every((key) => same(a[key], b[key]));
  }
"""


class VectorTest(BrowserTest):
    def setUp(self) -> None:
        super().setUp()
        self.page.goto(self.base + "/shows/start")

    def run_in_page(self, script: str, vectors: object) -> list[str]:
        return self.page.evaluate(
            f"async (vectors) => {{ {COMPARE} const wrong = []; {script} return wrong; }}", vectors
        )  # type: ignore[no-any-return]

    def test_easing_and_tracks_have_pythons_values(self) -> None:
        vectors = json.loads((VECTORS / "motion.json").read_text())
        script = f"""
          const {{ ease }} = await import("{PLAYER}/easing.js");
          const {{ valuesAt }} = await import("{PLAYER}/sampling.js");
          for (const [curve, progress, value] of vectors.easing) if (!near(ease(progress, curve), value)) wrong.push(`${{curve}} at ${{progress}}`);
          for (const {{ motion, values }} of vectors.motions) {{
            for (const [at, expected] of values) {{
              const found = valuesAt(motion, {{ ...at, since_ms: at.since_ms ?? Infinity }});
              if (!same(found, expected)) wrong.push(JSON.stringify([motion.object_id, at, found, expected]));
            }}
          }}"""
        self.assertEqual(self.run_in_page(script, vectors), [])

    def test_slides_turned_in_depth_are_seen_where_python_sees_them(self) -> None:
        vectors = json.loads((VECTORS / "depth.json").read_text())
        script = f"""
          const {{ homography }} = await import("{PLAYER}/depth.js");
          const {{ STILL }} = await import("{PLAYER}/sampling.js");
          for (const [values, width_px, height_px, expected] of vectors) {{
            const found = homography({{ ...STILL, ...values }}, {{ width_px, height_px }});
            if (!same(found, expected) || (found === null) !== (expected === null)) wrong.push(JSON.stringify([values, found, expected]));
          }}"""
        self.assertEqual(self.run_in_page(script, vectors), [])
        self.assertTrue({entry[3] is None for entry in vectors} == {True, False})

    def test_times_snap_on_the_score_as_python_says(self) -> None:
        vectors = json.loads((VECTORS / "events.json").read_text())
        script = """
          const { nearestMs } = await import("/static/ritornel/score/snapping.js");
          for (const [at, events, reach, expected] of vectors) if (nearestMs(at, events, reach) !== expected) wrong.push(`${at}: ${events}`);"""
        self.assertEqual(self.run_in_page(script, vectors), [])

    def test_live_states_and_frame_states_are_pythons(self) -> None:
        vectors = json.loads((VECTORS / "live.json").read_text())
        script = f"""
          const live = await import("{PLAYER}/live.js");
          const {{ momentAt, frameStateAt }} = await import("{PLAYER}/frame-state.js");
          const presses = {{ cue: live.cue, back: live.back, on: live.goOn }};
          for (const {{ show, runs, moments, stands }} of vectors) {{
            for (const [index, beat, expected] of stands) if (!same(live.stand(show, index, beat, 9000), expected)) wrong.push(`stand ${{index}} ${{beat}}`);
            for (const steps of runs) for (let n = 0, state = null; n < steps.length; n += 1) {{
              const step = steps[n];
              const begun = step.state.began_ms < 0 ? live.standReady : live.arrive;
              state = n ? presses[step.press](show, state, step.now_ms) : begun(show, step.state.index, 0);
              if (!same(state, step.state)) wrong.push(JSON.stringify([show.end, step, state]));
              const told = [
                live.sinceMs(state, step.now_ms + 100), live.waitsSinceMs(show, state, step.now_ms + 5000),
                live.nextCueId(show, state), live.goesOnAtMs(show, state), live.nextStep(show, state), live.goesOnAlone(show, state),
              ];
              const expected = [step.since_ms, step.waits_ms, step.cue_id, step.goes_on_at_ms, step.step, step.alone];
              if (!same(told, expected)) wrong.push(JSON.stringify([show.end, step, told.map(finite)]));
            }}
            for (const at of moments) {{
              if (!same(momentAt(show, at.at_ms), at.moment)) wrong.push(JSON.stringify([show.end, at.at_ms, momentAt(show, at.at_ms), at.moment]));
              const frame_state = frameStateAt(show, at.at_ms, at.at_ms < show.length_ms);
              const layers = frame_state.layers.map((layer) => ({{ index: layer.index, values: layer.values, objects: Object.fromEntries(layer.objects) }}));
              const alike = same(layers, at.layers) && layers.length === at.layers.length && near(frame_state.blackness, at.blackness);
              if (!alike) wrong.push(JSON.stringify([show.end, at.at_ms, layers, at.layers]));
            }}
          }}"""
        self.assertEqual(self.run_in_page(script, vectors), [])

    def test_a_camera_that_runs_with_its_slide_moves_while_the_slide_comes_in(self) -> None:
        vectors = json.loads((VECTORS / "live.json").read_text())
        script = f"""
          const {{ frameStateAt }} = await import("{PLAYER}/frame-state.js");
          const {{ show }} = vectors[0];
          const from = show.starts_ms[1];
          for (const at of [0, 100, 250, 499, 2000]) {{
            const layer = frameStateAt(show, from + at, true).layers.find(({{ index }}) => index === 1);
            if (!near(layer?.objects.get("camera")?.played, at / 9000)) wrong.push([at, layer?.objects.get("camera")]);
          }}"""
        self.assertEqual(self.run_in_page(script, vectors), [])

    def test_every_row_of_the_table_of_a_live_run_holds_in_the_browser(self) -> None:
        vectors = json.loads((VECTORS / "live_table.json").read_text())
        script = f"""
          const live = await import("{PLAYER}/live.js");
          const after = (show, state, [kind, about], now) => {{
            if (kind === "ready") return live.standReady(show, about[0], now);
            if (kind === "jump") return live.arrive(show, about[0], now, state?.index ?? -1);
            if (kind === "stop") return live.stand(show, about[0], about[1], now);
            if (kind === "time") {{
              const due = live.goesOnAtMs(show, state);
              return due === null || due > now ? state : live.goOn(show, state, due);
            }}
            return kind === "nothing" ? state : {{ cue: live.cue, back: live.back }}[kind](show, state, now);
          }};
          for (const row of vectors.rows) {{
            const show = vectors.shows[row.end];
            let state = null;
            for (const [now, event] of row.before) state = after(show, state, event, now);
            const found = after(show, state, row.does, row.now_ms);
            const told = [found.index, found.beat, found.completed_ms, found.stepped_back, found.over];
            if (!same(told, row.state)) wrong.push(`${{row.event}}, ${{row.where}}: ${{JSON.stringify(told)}}`);
          }}"""
        self.assertEqual(self.run_in_page(script, vectors), [])

    def test_what_is_fetched_ahead_and_when_a_newer_edition_is_taken_in_are_pythons(self) -> None:
        vectors = json.loads((VECTORS / "coming.json").read_text())
        script = f"""
          const {{ comingSlides, renewedAtMs }} = await import("{PLAYER}/frame-state.js");
          for (const [count, index, expected] of vectors.slides) if (!same(comingSlides(count, index), expected)) wrong.push(`${{index}} of ${{count}}`);
          for (const [end, length_ms, at, expected] of vectors.renewed) {{
            const found = renewedAtMs({{ end, length_ms }}, at);
            if (found !== expected) wrong.push(JSON.stringify([end, length_ms, at, found, expected]));
          }}"""
        self.assertEqual(self.run_in_page(script, vectors), [])

    def test_snapping_follows_the_guides_as_python_does(self) -> None:
        vectors = json.loads((VECTORS / "snapping.json").read_text())
        script = """
          const { snapBox, snapHandle } = await import("/static/ritornel/stage/snapping.js");
          for (const [box, moving, reach, expected] of vectors.moves) {
            const found = snapBox(box, vectors.guides, new Set(moving), reach);
            if (!same(found, expected)) wrong.push(JSON.stringify([box, moving, reach, found, expected]));
          }
          for (const [box, handle, way, moving, reach, expected] of vectors.pulls) {
            const found = snapHandle(box, handle, way, vectors.guides, new Set(moving), reach);
            if (!same(found, expected)) wrong.push(JSON.stringify([box, handle, way, moving, reach, found, expected]));
          }"""
        self.assertEqual(self.run_in_page(script, vectors), [])

    def test_boxes_are_sized_and_turned_as_in_python(self) -> None:
        vectors = json.loads((VECTORS / "sizing.json").read_text())
        script = """
          const { pullHandle, scaleWithin, turnBox } = await import("/static/ritornel/stage/sizing.js");
          for (const [box, handle, way, keep, expected] of vectors.pulls) {
            if (!same(pullHandle(box, handle, way, keep), expected)) wrong.push(JSON.stringify(["pull", box, handle, way, keep, expected]));
          }
          for (const [box, pointer, step, expected] of vectors.turns) {
            if (!same(turnBox(box, pointer, step).turn_deg, expected)) wrong.push(JSON.stringify(["turn", box, pointer, step, expected]));
          }
          for (const [box, old, fresh, expected] of vectors.scales) {
            if (!same(scaleWithin(box, old, fresh), expected)) wrong.push(JSON.stringify(["scale", box, old, fresh, expected]));
          }"""
        self.assertEqual(self.run_in_page(script, vectors), [])

    def test_masks_have_pythons_outlines(self) -> None:
        vectors = json.loads((VECTORS / "masks.json").read_text())
        script = f"""
          const {{ maskOutline, softEdge }} = await import("{PLAYER}/masks.js");
          const numbers = (d) => d.split(" ").map((word) => (/[A-Z]/.test(word) ? word : Number(word)));
          const close = (a, b) => a === b || (typeof a === "number" && typeof b === "number" && Math.abs(a - b) < 0.002);
          for (const [mask, reveal, region, outline, edge] of vectors) {{
            const [found, wanted] = [numbers(maskOutline(mask, reveal, region)), numbers(outline)];
            if (found.length !== wanted.length || !found.every((value, at) => close(value, wanted[at]))) wrong.push(JSON.stringify([mask, reveal, region]));
            if (!same(softEdge(mask, reveal, region), edge)) wrong.push(JSON.stringify(["edge", mask, reveal, softEdge(mask, reveal, region), edge]));
          }}"""
        self.assertEqual(self.run_in_page(script, vectors), [])

    def test_strokes_are_rubbed_out_as_python_says(self) -> None:
        vectors = json.loads((VECTORS / "drawings.json").read_text())
        script = f"""
          const {{ rubbedOut }} = await import("{PLAYER}/ink-layer.js");
          for (const [strokes, x, y, reach, left] of vectors) {{
            if (JSON.stringify(rubbedOut(strokes, x, y, reach)) !== JSON.stringify(left)) wrong.push([x, y]);
          }}"""
        self.assertEqual(self.run_in_page(script, vectors), [])
        self.assertTrue(any(len(left) < 4 for *_, left in vectors))

    def test_the_pace_of_a_run_is_pythons(self) -> None:
        vectors = json.loads((VECTORS / "pace.json").read_text())
        script = """
          const { endsAfterMs, paceWords, parseSlot, slipMs, slotWords } = await import("/static/ritornel/ui/pace.js");
          for (const [start, length, onSlide, elapsed, slip] of vectors.slips) {
            if (slipMs(start, length, onSlide, elapsed) !== slip) wrong.push([start, length, onSlide, elapsed, slipMs(start, length, onSlide, elapsed)]);
          }
          for (const [...times] of vectors.ends) { const end = times.pop(); if (endsAfterMs(...times) !== end) wrong.push([times, end]); }
          for (const [text, now, left] of vectors.ends_typed) if (parseSlot(text, now) !== left) wrong.push([text, now, parseSlot(text, now), left]);
          for (const [left, words] of vectors.slots) if (slotWords(left) !== words) wrong.push([left, slotWords(left), words]);
          for (const [slip, words] of vectors.words) if (paceWords(slip) !== words) wrong.push([slip, paceWords(slip), words]);"""
        self.assertEqual(self.run_in_page(script, vectors), [])

    def test_levels_cameras_and_pieces_of_recordings_are_pythons(self) -> None:
        vectors = json.loads((VECTORS / "recording.json").read_text())
        script = """
          const { levelWords } = await import("/static/ritornel/record/level.js");
          const { cameraBox, snapPct } = await import("/static/ritornel/record/placing.js");
          const { piecesOf } = await import("/static/ritornel/record/pieces.js");
          for (const [mean, peak, words] of vectors.levels) if (levelWords(mean, peak) !== words) wrong.push([mean, peak, words]);
          for (const [frame, placement, box] of vectors.boxes) {
            const here = cameraBox(frame, placement);
            for (const side of ["x", "y", "width", "height"]) if (Math.abs(here[side] - box[side]) > 1e-6) wrong.push([placement, here, box]);
          }
          for (const [value, half, place] of vectors.snaps) if (snapPct(value, half) !== place) wrong.push([value, half, place]);
          for (const [take, leaving, pieces] of vectors.pieces) {
            const here = piecesOf(take.events, take.ended_ms, leaving);
            const sorted = (entry) => JSON.stringify(Object.entries(entry).sort());
            pieces.forEach((piece, at) => {
              for (const field of Object.keys(piece)) {
                const [a, b] = [piece[field], here[at]?.[field]].map((value) => (typeof value === "object" ? sorted(value) : value));
                if (a !== b) wrong.push([field, a, b]);
              }
            });
            if (here.length !== pieces.length) wrong.push([here.length, pieces.length]);
          }"""
        self.assertEqual(self.run_in_page(script, vectors), [])

    def test_what_the_player_works_out_of_clips_sounds_and_letters_is_pythons(self) -> None:
        vectors = json.loads((VECTORS / "players.json").read_text())
        script = f"""
          const {{ passOf }} = await import("{PLAYER}/pressed-clips.js");
          const {{ captionAt }} = await import("{PLAYER}/captions.js");
          const {{ levelAt, soundOf }} = await import("{PLAYER}/sound.js");
          const {{ filledShare, letterCount, lettersOf, take }} = await import("{PLAYER}/marks.js");
          for (const [clip, ms] of vectors.passes) if (passOf(clip) !== ms) wrong.push([clip, passOf(clip), ms]);
          for (const [rate_pct, name] of vectors.sounds) if (soundOf({{ asset_id: "pendulum", rate_pct }}) !== name) wrong.push([rate_pct, name]);
          for (const [mark, played, text] of vectors.captions) if (captionAt(mark, played) !== text) wrong.push([mark, played, text]);
          for (const [points, ms, level] of vectors.levels) if (!near(levelAt(points, ms), level)) wrong.push([points, ms, levelAt(points, ms), level]);
          for (const [drawn, share] of vectors.filled) if (!near(filledShare(drawn), share)) wrong.push([drawn, share]);
          for (const [texts, share, expected] of vectors.letters) {{
            const left = lettersOf([{{ marks: texts.map((text) => ({{ mark: {{ text }} }})) }}], share);
            const found = texts.map((text) => take(left, letterCount(text)));
            if (!same(found, expected)) wrong.push([texts, share, found, expected]);
          }}"""
        self.assertEqual(self.run_in_page(script, vectors), [])

    def test_counts_are_said_as_in_python(self) -> None:
        vectors = json.loads((VECTORS / "words.json").read_text())
        script = """
          const { countWords } = await import("/static/ritornel/ui/wording.js");
          for (const [count, noun, plural, words] of vectors) if (countWords(count, noun, plural || undefined) !== words) wrong.push([count, noun, words]);"""
        self.assertEqual(self.run_in_page(script, vectors), [])

    def test_times_read_and_write_as_in_python(self) -> None:
        vectors = json.loads((VECTORS / "times.json").read_text())
        script = """
          const { clockText, parseClockMs, roundHalfUp, secondsText } = await import("/static/ritornel/ui/times.js");
          for (const [text, ms] of vectors.parse) if (parseClockMs(text) !== ms) wrong.push([text, parseClockMs(text), ms]);
          for (const [value, whole] of vectors.round) if (roundHalfUp(value) !== whole) wrong.push([value, roundHalfUp(value), whole]);
          for (const [ms, seconds, clock] of vectors.write) {
            if (secondsText(ms) !== seconds || clockText(ms) !== clock) wrong.push([ms, secondsText(ms), clockText(ms)]);
          }"""
        self.assertEqual(self.run_in_page(script, vectors), [])


class VectorFilesTest(BrowserTest):
    def test_the_vectors_are_the_cores_own(self) -> None:
        from tests.vectors.make import VECTORS as MAKERS

        for name, make in MAKERS.items():
            self.assertEqual(json.loads((VECTORS / f"{name}.json").read_text()), json.loads(json.dumps(make())), name)
