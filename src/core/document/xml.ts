import { XMLParser, XMLValidator } from 'fast-xml-parser';

/** An element, or text (`name` is empty). Names keep their prefix as it is mostly written, `w:p`, `m:oMath`. */
export type Element = { name: string; attributes: Record<string, string>; children: Element[]; text: string };

type Raw = Record<string, unknown>;
const parser = new XMLParser({
	preserveOrder: true,
	ignoreAttributes: false,
	attributeNamePrefix: '',
	trimValues: false,
	parseTagValue: false,
	parseAttributeValue: false,
	// A document's own entities would be a way to make gigabytes of a line; these five are XML's.
	processEntities: true,
	htmlEntities: false
});

/** XML as elements in their order. @throws Error when it is none */
export function elementsOf(xml: string): Element[] {
	// The parser takes what it can; half a document is none.
	if (XMLValidator.validate(xml) !== true) throw new Error('no XML');
	return (parser.parse(xml) as Raw[]).map(toElement);
}

function toElement(raw: Raw): Element {
	const name = Object.keys(raw).find((key) => key !== ':@') ?? '';
	if (name === '#text') return { name: '', attributes: {}, children: [], text: String(raw['#text']) };
	const children = Array.isArray(raw[name]) ? (raw[name] as Raw[]).map(toElement) : [];
	return { name, attributes: (raw[':@'] ?? {}) as Record<string, string>, children, text: '' };
}

/** The first child of that name. */
export function child(element: Element | undefined, name: string): Element | undefined {
	return element?.children.find((one) => one.name === name);
}

/** All children of that name. */
export function childrenOf(element: Element | undefined, name: string): Element[] {
	return element?.children.filter((one) => one.name === name) ?? [];
}

/** All elements of that name below, at any depth, in their order. */
export function below(elements: Element[], name: string): Element[] {
	return elements.flatMap((one) => [...(one.name === name ? [one] : []), ...below(one.children, name)]);
}

/** The value of a child that says one thing, `<w:b w:val="0"/>`: undefined: it is not there; empty: it says no more. */
export function valueOf(element: Element | undefined, name: string): string | undefined {
	const found = child(element, name);
	if (!found) return undefined;
	const prefix = name.slice(0, name.indexOf(':') + 1);
	return found.attributes[`${prefix}val`] ?? '';
}
