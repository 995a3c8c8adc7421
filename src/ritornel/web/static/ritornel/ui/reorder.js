// Lists whose items are dragged to another place, by mouse or finger.
import { pull, scrollAtEdge } from "./pull.js";

/**
 * @param {HTMLElement} list holds the items, at any depth
 * @param {{item: string, idOf: (node: HTMLElement) => any, moved?: (id: string) => string[], flows?: boolean,
 *   put: (ids: string[], to: number) => void}} how `item` is their selector; `idOf(node)`; `moved(id)` the ids that go
 *   along; `flows` where they stand beside each other, not one above the other; `put(ids, to)` puts them at index `to`
 *   of those that stay
 */
export function reorder(list, { item, idOf, moved = (id) => [id], flows = false, put }) {
	list.addEventListener("pointerdown", (down) => {
		const node = down.target?.closest(item);
		if (!node || down.button || down.target?.closest("[data-drag], input, select")) return;
		const ids = moved(idOf(node));
		/** @type {any} */
		let spot = null;
		const nodes = () => [...list.querySelectorAll(item)];
		const clear = () => {
			for (const one of list.querySelectorAll("[data-drop], .dragged")) {
				delete one.dataset.drop;
				one.classList.remove("dragged");
			}
		};
		pull(down, {
			lift() {
				for (const one of nodes()) one.classList.toggle("dragged", ids.includes(idOf(one)));
			},
			move(/** @type {PointerEvent} */ event) {
				scrollAtEdge(list, event);
				for (const one of list.querySelectorAll("[data-drop]")) delete one.dataset.drop;
				const target = nearest(nodes(), event, flows);
				const box = target.getBoundingClientRect();
				const after = flows ? event.clientX > box.left + box.width / 2 : event.clientY > box.top + box.height / 2;
				target.dataset.drop = after ? "after" : "before";
				spot = { id: idOf(target), after };
			},
			drop() {
				clear();
				if (!spot) return;
				const order = nodes().map(idOf);
				const at = order.indexOf(spot.id) + (spot.after ? 1 : 0);
				const rest = order.filter((id) => !ids.includes(id));
				const to = order.slice(0, at).filter((id) => !ids.includes(id)).length;
				const wanted = [...rest.slice(0, to), ...ids, ...rest.slice(to)];
				if (wanted.some((id, index) => id !== order[index])) put(ids, to);
			},
			back: clear,
		});
	});
}

/**
 * The item under the pointer, or the one nearest to it.
 * @param {any} nodes
 * @param {{clientX: number, clientY: number}} event
 * @param {any} flows
 */
function nearest(nodes, { clientX: x, clientY: y }, flows) {
	/** @param {any} value @param {number} from @param {number} to */
	const off = (value, from, to) => Math.max(from - value, 0, value - to);
	/** @param {any} node */
	const far = (node) => {
		const { left, right, top, bottom } = node.getBoundingClientRect();
		// In rows that flow, the row comes first.
		return flows ? off(y, top, bottom) * 1000 + off(x, left, right) : off(y, top, bottom);
	};
	return nodes.reduce((/** @type {any} */ best, /** @type {any} */ node) => (far(node) < far(best) ? node : best));
}
