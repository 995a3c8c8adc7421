// What the checker of types is told of our pages. Browsers never see this folder.

/** A selector says nothing of the kind of element that it finds: our templates do. So what it finds is not checked. */
interface ParentNode {
	querySelector(selectors: string): any;
	querySelectorAll(selectors: string): NodeListOf<any>;
}

interface Element {
	closest(selectors: string): any;
	readonly dataset: DOMStringMap;
	blur(): void;
}

interface Document {
	getElementById(id: string): any;
	getSelection(): any;
}

/** What events happen to is an element, wherever our pages ask. */
interface EventTarget {
	closest(selectors: string): any;
}

/** Our own events carry their news in `detail`. */
interface Event {
	readonly detail: any;
}

// The sound card's own thread (record/capture.js), of which the library of pages says nothing.
declare class AudioWorkletProcessor {
	readonly port: MessagePort;
}
declare const currentFrame: number;
declare function registerProcessor(name: string, kind: typeof AudioWorkletProcessor): void;

/** Attributes of an element that is made; those that begin with "on" are listeners. */
interface Attributes {
	[listener: `on${string}`]: ((event: any) => unknown) | null | undefined | false;
	[attribute: string]: any;
}

/** An element that a script made, of any kind: what its kind alone has is not checked. */
interface MadeElement extends HTMLElement {
	[more: string]: any;
}

interface MadeShape extends SVGElement {
	[more: string]: any;
}

/** What tells of an event, and which. */
type Source = [EventTarget, string];

/** What a field of the panel may be told beside its value. */
interface Field {
	label?: string | null;
	placeholder?: string;
	cls?: string;
	least?: number;
	most?: number;
	unit?: string;
	decimals?: number;
	rows?: number;
}

/** A part of a page that comes when it is first wanted: `ready` is its module once it has come. */
interface Part<T> {
	ready: T;
	get(): Promise<T>;
	near(node: Element): void;
}
