import type { Choice, Question, Wording } from '../paper';
import { readBody } from './body-text';
import { idOf, isId } from './identifier';
import { readStimulus } from './shared-text';
import { nameOf } from './template';
import { CALCULATED } from './item-names';
import { below, child, childrenOf, hasClass, isElement, textIn, type XmlNode } from './xml';
import { type Item, type ReadItem } from './read-item';
import { ENDS } from './item-names';

/** Whether this is the unit behind a field. */
export const isUnit = (node: XmlNode | string) => isElement(node) && hasClass(node, 'unit');

/** The text of an element, or the text itself. */
export const textOf = (node: XmlNode | string) => (isElement(node) ? textIn(node) : node);

/** What is asked: the body without these, and what the interaction itself says before its choices. */
export function stemOf(item: Item, without: XmlNode[] = [], gaps: Map<XmlNode, string> = new Map()): { stem: string } {
	const stem = item.isOurs ? below(item.body, 'div').find((one) => hasClass(one, 'stem')) : undefined;
	const nodes = stem ? stem.children : item.body.children;
	const read = readBody(
		nodes.filter((one) => !isElement(one) || one.name !== 'rubricblock'),
		(node) => {
			if (gaps.has(node)) return `[${gaps.get(node)}]`;
			if (without.includes(node)) {
				const prompt = child(node, 'prompt');
				return prompt ? `\n${readBody(prompt.children).text}` : '';
			}
			if (node.name === 'printedvariable') return `{${nameOf(node.attributes.identifier ?? '')}}`;
			return node.name.endsWith(ENDS) ? '' : null;
		}
	);
	if (read.leftOut.length > 0) item.told.push(`Left out: ${read.leftOut.join(', ')}.`);
	return { stem: item.isOurs ? read.text : read.text.replace(/\n{3,}/g, '\n\n').trim() };
}

/** The choices of an interaction, and the ids under which we keep them. */
export function choicesOf(item: Item, within: XmlNode, name: string): { list: Choice[]; idOf: Map<string, string> } {
	const ids = new Map<string, string>();
	const list = childrenOf(within, name).map((node): Choice => {
		const identifier = node.attributes.identifier ?? '';
		const id = item.isOurs && isId(idOf(identifier)) ? idOf(identifier) : item.newId();
		ids.set(identifier, id);
		const { text, leftOut, media } = readBody(
			node.children.filter((one) => !isElement(one) || one.name !== 'feedbackinline')
		);
		if (media.length > 0) leftOut.push('a picture in a choice');
		if (leftOut.length > 0) item.told.push(`Left out: ${leftOut.join(', ')}.`);
		const pictured = text.trim() === '' && media.length > 0 ? media.map(({ alt }) => alt).join(' ') : text;
		return {
			id,
			text: item.isOurs ? pictured : pictured.trim(),
			...(node.attributes.fixed === 'true' || (item.isOurs && node.attributes.fixed !== undefined)
				? { pinned: node.attributes.fixed === 'true' }
				: {})
		};
	});
	return { list, idOf: ids };
}

/** What only somebody who needs help, or only authors, read. */
export function notesOf({ body }: Item): { hint?: string; note?: string } {
	const blocks = below(body, 'rubricblock');
	const hint = blocks.find((one) => hasClass(one, 'hint'));
	const notes = blocks.filter(
		(one) => one !== hint && !hasClass(one, CALCULATED) && !/\bcandidate\b/.test(one.attributes.view ?? '')
	);
	const note = notes.map((one) => readBody(one.children).text).join('\n');
	return {
		...(hint ? { hint: readBody(hint.children).text } : {}),
		...(note ? { note } : {})
	};
}

/** What the item says in other languages; null: in none. */
export function translationsOf({ root, isOurs }: Item): Record<string, Wording> | null {
	const info = child(root, 'cataloginfo');
	if (!info || !isOurs) return null;
	const found = new Map<string, Wording>();
	for (const catalog of childrenOf(info, 'catalog')) {
		const about = catalog.attributes.id ?? '';
		for (const entry of below(catalog, 'cardentry')) {
			const language = entry.attributes.lang ?? '';
			const { text } = readBody(child(entry, 'htmlcontent')?.children ?? []);
			const wording = found.get(language) ?? { stem: '' };
			found.set(language, wording);
			if (about === 'c-stem') wording.stem = text;
			else wording.texts = { ...wording.texts, [idOf(about.replace(/^c-text-/, ''))]: text };
		}
	}
	return found.size > 0 ? Object.fromEntries(found) : null;
}

/** What is said to whoever was right and to whoever was not: as Otium names it, or as most systems do. */
export function feedbackOf({ root }: Item): Question['feedback'] | null {
	const found: Record<string, string> = {};
	for (const one of childrenOf(root, 'modalfeedback')) {
		const name = (one.attributes.identifier ?? '').toLowerCase();
		const end = /^(right|correct)$/.test(name) ? 'right' : /^(wrong|incorrect)$/.test(name) ? 'wrong' : null;
		const { text } = readBody(child(one, 'contentbody')?.children ?? one.children);
		if (end && text.trim()) found[end] = text.slice(0, 2_000);
	}
	return Object.keys(found).length > 0 ? found : null;
}

/** What several questions share, told in the item or beside it. */
export function stimulusOf({ root }: Item, inItem: XmlNode | undefined): ReadItem['stimulus'] {
	if (inItem) return readStimulus(inItem);
	const reference = child(root, 'assessmentstimulusref');
	return reference?.attributes.href ? { href: reference.attributes.href } : null;
}
