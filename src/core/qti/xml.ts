import { XMLBuilder, XMLParser, XMLValidator } from 'fast-xml-parser';

/** An element with what is in it, in its order; a text is a string. */
export type XmlNode = { name: string; attributes: Record<string, string>; children: (XmlNode | string)[] };

/** An item is a page of text; a test lists hundreds of them. */
const MOST_CHARACTERS = 4 * 1024 * 1024;
const MOST_DEPTH = 80;

type Raw = { '#text'?: string | number; ':@'?: Record<string, string> } & Record<string, unknown>;

export function element(
	name: string,
	attributes: Record<string, string | number | undefined> = {},
	children: (XmlNode | string)[] = []
): XmlNode {
	const said = Object.entries(attributes).filter(([, value]) => value !== undefined);
	return { name, attributes: Object.fromEntries(said.map(([key, value]) => [key, String(value)])), children };
}

/** Characters that XML 1.0 cannot carry (section 2.2), not even as references. */
/* eslint-disable no-control-regex -- these are what is meant. */
const FORBIDDEN =
	/[\u0000-\u0008\u000b\u000c\u000e-\u001f\ufffe\uffff]|[\ud800-\udbff](?![\udc00-\udfff])|(?<![\ud800-\udbff])[\udc00-\udfff]/g;
/* eslint-enable no-control-regex */

/** An element as a document. What XML cannot carry is left out. */
export function writeXml(root: XmlNode): string {
	const builder = new XMLBuilder({
		preserveOrder: true,
		ignoreAttributes: false,
		attributeNamePrefix: '',
		suppressEmptyNode: true,
		suppressBooleanAttributes: false
	});
	return `<?xml version="1.0" encoding="UTF-8"?>\n${builder.build([raw(root)])}\n`;
}

function raw(node: XmlNode | string): Raw {
	if (typeof node === 'string') return { '#text': node.replace(FORBIDDEN, '') };
	const attributes = Object.entries(node.attributes).map(([key, value]) => [key, value.replace(FORBIDDEN, '')]);
	return {
		[node.name]: node.children.map(raw),
		...(attributes.length > 0 ? { ':@': Object.fromEntries(attributes) } : {})
	};
}

/**
 * Reads a document. Names of elements and attributes come without prefix, hyphens and capitals, so that QTI 3.0's
 * `qti-choice-interaction` and 2.1's `choiceInteraction` are both `choiceinteraction`. Declarations of document types and
 * entities are refused unread: they are how XML is made to swell or to fetch.
 */
export function readXml(text: string): { ok: true; root: XmlNode } | { ok: false; message: string } {
	if (text.length > MOST_CHARACTERS) return { ok: false, message: 'it is larger than 4 MB' };
	if (/<!(DOCTYPE|ENTITY)/i.test(text)) return { ok: false, message: 'it declares a document type or entities' };
	const valid = XMLValidator.validate(text);
	if (valid !== true) return { ok: false, message: `line ${valid.err.line}: not well-formed XML (${valid.err.msg})` };
	try {
		const parser = new XMLParser({
			preserveOrder: true,
			ignoreAttributes: false,
			attributeNamePrefix: '',
			trimValues: false,
			parseTagValue: false,
			parseAttributeValue: false,
			ignoreDeclaration: true,
			ignorePiTags: true,
			htmlEntities: true,
			cdataPropName: '#text'
		});
		const roots = (parser.parse(text) as Raw[]).map((one) => tidy(one, 0)).filter((one) => typeof one !== 'string');
		return roots.length === 1 ? { ok: true, root: roots[0] } : { ok: false, message: 'it has no root element' };
	} catch (error) {
		return { ok: false, message: error instanceof RangeError ? error.message : 'it cannot be read as XML' };
	}
}

function tidy(node: Raw, depth: number): XmlNode | string {
	if (depth > MOST_DEPTH) throw new RangeError('it is nested too deep');
	if ('#text' in node) {
		const text = node['#text'] as unknown;
		// A section of character data comes as a node of its own.
		return Array.isArray(text) ? text.map((one: Raw) => String(one['#text'] ?? '')).join('') : String(text);
	}
	const name = Object.keys(node).find((key) => key !== ':@')!;
	const attributes = Object.entries(node[':@'] ?? {}).map(([key, value]) => [plain(key), String(value)]);
	return {
		name: plain(name),
		attributes: Object.fromEntries(attributes),
		children: (node[name] as Raw[]).map((child) => tidy(child, depth + 1))
	};
}

function plain(name: string): string {
	return name.replace(/^.*:/, '').replace(/^qti-/, '').replace(/-/g, '').toLowerCase();
}

export function isElement(node: XmlNode | string): node is XmlNode {
	return typeof node !== 'string';
}
/** The first child of that name. */
export function child(node: XmlNode | null, name: string): XmlNode | null {
	return node?.children.filter(isElement).find((one) => one.name === name) ?? null;
}
export function childrenOf(node: XmlNode | null, name: string): XmlNode[] {
	return node?.children.filter(isElement).filter((one) => one.name === name) ?? [];
}
/** Every element below that has one of these names, in the document's order. */
export function below(node: XmlNode, ...names: string[]): XmlNode[] {
	return node.children
		.filter(isElement)
		.flatMap((one) => [...(names.includes(one.name) ? [one] : []), ...below(one, ...names)]);
}
/** All text below, as it stands. */
export function textIn(node: XmlNode | null): string {
	return node?.children.map((one) => (isElement(one) ? textIn(one) : one)).join('') ?? '';
}

/** Whether an element has this among its classes. */
export function hasClass({ attributes }: XmlNode, name: string): boolean {
	return (attributes.class ?? '').split(/\s+/).includes(name);
}
