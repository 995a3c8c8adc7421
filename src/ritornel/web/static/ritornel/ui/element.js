// Making elements. Attributes that begin with "on" are listeners; `null` and `false` leave an attribute out.

const SVG = "http://www.w3.org/2000/svg";

/** @param {any} node @param {any} attributes @param {any[]} children */
function fill(node, attributes, children) {
	for (const name in attributes) {
		const value = attributes[name];
		if (value === null || value === undefined || value === false) continue;
		if (name.startsWith("on")) node.addEventListener(name.slice(2), value);
		else if (name === "value") node.value = value;
		else node.setAttribute(name, value === true ? "" : value);
	}
	for (const child of children.flat(Infinity))
		if (child !== null && child !== undefined && child !== false) node.append(child);
	return node;
}

/**
 * An HTML element.
 * @param {string} name
 * @param {Attributes} [attributes]
 * @param {...any} children
 * @returns {MadeElement}
 */
export const el = (name, attributes = {}, ...children) => fill(document.createElement(name), attributes, children);

/**
 * An SVG element.
 * @param {string} name
 * @param {Attributes} [attributes]
 * @param {...any} children
 * @returns {MadeShape}
 */
export const svg = (name, attributes = {}, ...children) =>
	fill(document.createElementNS(SVG, name), attributes, children);

/**
 * An icon from the page's set.
 * @param {string} name
 */
export const icon = (name) => svg("svg", { class: "icon", "aria-hidden": "true" }, svg("use", { href: `#i-${name}` }));

/** A new id for something in the show. */
export const newId = () =>
	crypto.getRandomValues(new Uint32Array(2)).reduce((text, n) => text + n.toString(16).padStart(8, "0"), "");
