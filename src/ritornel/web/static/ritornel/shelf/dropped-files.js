// The files in a drop.

/** All files of a drop, those in dropped folders too, each with the name of its folder. */
export async function filesOf(/** @type {any} */ transfer) {
	const entries = [...transfer.items].map((item) => item.webkitGetAsEntry?.()).filter(Boolean);
	if (!entries.some((entry) => entry.isDirectory)) return [...transfer.files].map((file) => ({ file, folder: "" }));
	/** @type {any[]} */
	const found = [];
	const walk = async (/** @type {any} */ entry, /** @type {any} */ folder) => {
		if (entry.isFile) {
			found.push({
				file: await new Promise((done, wrong) => {
					entry.file(done, wrong);
				}),
				folder,
			});
			return;
		}
		const reader = entry.createReader();
		for (;;) {
			const batch = await new Promise((done, wrong) => {
				reader.readEntries(done, wrong);
			});
			if (!batch.length) return;
			for (const child of batch) await walk(child, entry.name);
		}
	};
	for (const entry of entries) await walk(entry, "");
	return found;
}
