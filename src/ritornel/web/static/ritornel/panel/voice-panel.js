// The voice of a slide: its sound. Further settings appear with the first voice.
import { el, icon } from "../ui/element.js";
import { later } from "../ui/lazy-modules.js";
import { secondsText } from "../ui/times.js";
import { pair, selectField } from "./fields.js";

const details = later(() => import("./voice-details.js"));

const whole = (/** @type {ShelfAsset} */ asset) => ({ asset_id: asset.id, in_ms: 0, out_ms: asset.lasts_ms });

/** @param {(changes: object) => void} change changes the slide @param {() => void} again draws the panel once more */
export function voiceFields(/** @type {ShowState} */ state, change, again) {
	const { slide, data } = state;
	const { voice } = slide;
	const give = (/** @type {any} */ next, follow = false) =>
		state.edit({ do: "put voice", slide_id: slide.id, voice: next, follow });
	const sounds = data.assets.filter((asset) => asset.kind === "sound");
	const chooser = (/** @type {string} */ words) => {
		const input = el("input", { type: "file", accept: "audio/*", class: "sr-only", "aria-label": words });
		input.addEventListener("change", async () => {
			const [asset] = await state.addFiles([...input.files].map((file) => ({ file })));
			if (asset?.kind === "sound") await give(whole(asset), true);
		});
		return el("label", { class: "push cursor-pointer" }, icon("upload"), words, input);
	};
	if (!voice) {
		return [
			sounds.length
				? pair(
						"Voice",
						selectField(
							"",
							[
								["", "Choose a sound …"],
								...sounds.map((asset) => [asset.id, `${asset.name}, ${secondsText(asset.lasts_ms)} s`]),
							],
							(id) => {
								if (id) give(whole(state.asset(id)), true);
							},
							{ label: "Sound for the voice" },
						),
					)
				: null,
			el("div", { class: "row flex-wrap" }, chooser("A voice file"), numbered(state)),
			el("p", { class: "said" }, "The slide then lasts as long as its voice, and a breath."),
		];
	}
	if (!details.ready) {
		details.get().then(again);
		return [el("p", { class: "said" }, state.asset(voice.asset_id)?.name ?? "Missing from the shelf")];
	}
	return details.ready.voiceDetails(state, change, { give, numbered: numbered(state) });
}

/**
 * Many voices together, paired by the number in each file's name: the pairs are shown before anything happens.
 * @param {ShowState} state
 */
function numbered(state) {
	const input = el("input", {
		type: "file",
		accept: "audio/*",
		multiple: true,
		class: "sr-only",
		"aria-label": "Numbered voice files",
	});
	input.addEventListener("change", async () => {
		const voices = [...input.files].map((file) => ({ name: file.name, file }));
		if (voices.length) (await import("./voice-pairs.js")).showPairs(state, voices);
	});
	return el(
		"label",
		{
			class: "push cursor-pointer",
			title: "Paired by the numbers in their names; the pairs can be put right before anything happens",
		},
		icon("list"),
		"Numbered files for all slides",
		input,
	);
}
