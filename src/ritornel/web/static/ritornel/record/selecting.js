// What happens to recordings: pieces are selected, kept, removed; sections are moved. Each message has an undo.
import { post } from "../ui/requests.js";
import { toast } from "../ui/toast.js";

/**
 * @param {any} desk what the page knows and can do: base, data, section, take; load, leaveTake, drawLines, drawList,
 * tell, tellSum, slideOf
 */
export function choosing(desk) {
	async function pick(/** @type {RecordedTake} */ row, /** @type {Piece} */ piece) {
		try {
			const { before } = await post(`${desk.base}/record/pick`, {
				slide_id: piece.slide_id,
				recording: row.id,
				piece: piece.number,
			});
			if (desk.take)
				for (const own of desk.take.pieces)
					if (own.slide_id === piece.slide_id)
						desk.take.rivals[row.id === desk.take.id && own.number === piece.number ? "delete" : "add"](
							`${own.slide_id}/${own.number}`,
						);
			desk.section.picks[piece.slide_id] = [row.id, piece.number];
			desk.drawLines();
			toast(`Take ${row.number} is picked for slide ${desk.slideOf(piece.slide_id).number}.`, {
				act: "Undo",
				onact: async () => {
					await post(`${desk.base}/record/pick`, before);
					if (before.recording) desk.section.picks[piece.slide_id] = [before.recording, before.piece];
					else delete desk.section.picks[piece.slide_id];
					desk.drawLines();
				},
			});
		} catch (error) {
			toast(error.message, { wrong: true });
			desk.drawLines();
		}
	}

	async function keep() {
		document.getElementById("keep-picked").disabled = true;
		try {
			if (desk.take) await desk.take.pause("paused");
			const reply = await post(`${desk.base}/record/keep?section=${encodeURIComponent(desk.section.id)}`);
			const kept = desk.data.sections.find((/** @type {SectionLine} */ line) => line.id === desk.section.id);
			const picks = [`“${kept.name}” now has these voices and their timing.`, ...reply.notices].join(" ");
			if (desk.take) {
				Object.assign(desk.data, { sections: reply.sections, revision: reply.revision });
				desk.drawList();
				desk.tell();
			} else await desk.load(desk.section.id, reply);
			toast(
				picks,
				!desk.data.may_edit
					? {}
					: {
							act: "Undo",
							onact: async () => {
								await post(`${desk.base}/undo`);
								if (!desk.take) await desk.load(desk.section.id);
							},
						},
			);
		} catch (error) {
			toast(error.message, { wrong: true });
		}
		desk.tellSum();
	}

	async function remove(/** @type {RecordedTake} */ row) {
		if (desk.take?.id === row.id) {
			toast("This take is still open. Stop it first.");
			return;
		}
		try {
			await post(`${desk.base}/record/${row.id}/remove`);
			await desk.load(desk.section.id);
			toast(`Take ${row.number} was removed. What was kept of it stays in the show.`, {
				act: "Put it back",
				onact: async () => {
					await post(`${desk.base}/record/${row.id}/remove`, { back: true });
					await desk.load(desk.section.id);
				},
			});
		} catch (error) {
			toast(error.message, { wrong: true });
		}
	}

	async function moveSection(/** @type {number} */ number, /** @type {number} */ by) {
		const [line, other] = [desk.data.sections[number], desk.data.sections[number + by]];
		const all = desk.data.sections
			.flatMap((/** @type {any} */ entry) => entry.slide_ids)
			.filter((/** @type {string} */ id) => !line.slide_ids.includes(id));
		const to = by < 0 ? all.indexOf(other.slide_ids[0]) : all.indexOf(other.slide_ids.at(-1)) + 1;
		try {
			await post(`${desk.base}/edit`, {
				revision: desk.data.revision,
				edit: { do: "move slides", slide_ids: line.slide_ids, to },
			});
			await desk.leaveTake();
			await desk.load(desk.section.id);
			toast(`“${line.name}” now comes ${by < 0 ? "before" : "after"} “${other.name}”.`, {
				act: "Undo",
				onact: async () => {
					await post(`${desk.base}/undo`);
					await desk.load(desk.section.id);
				},
			});
		} catch (error) {
			toast(error.message, { wrong: true });
			await desk.load(desk.section.id);
		}
	}

	return { pick, keep, remove, moveSection };
}
