import { MEDIUM_TYPES, plainText, shows, type Medium, type Paper, type Stimulus } from '../paper';
import { readBody, writeText, type ReadMedium } from './body-text';
import type { Dialect } from './dialect';
import { identifierOf, idOf, isId } from './identifier';
import { child, element, writeXml, type XmlNode } from './xml';

/** What several questions share, as a file of its own (3.0). */
export function writeStimulus(stimulus: Stimulus, paper: Pick<Paper, 'language'>, { el, namespace }: Dialect): string {
	const title = plainText(stimulus.text).replace(/\s+/g, ' ').slice(0, 80) || stimulus.id;
	const root = el('assessmentStimulus', { identifier: identifierOf(stimulus.id), title }, [
		el('stimulusBody', {}, stimulusBody(stimulus))
	]);
	root.attributes = { xmlns: namespace, 'xml:lang': paper.language ?? 'en', ...root.attributes };
	return writeXml(root);
}

/** What stands in it: a paragraph for each line, and its files. */
export function stimulusBody({ text, media = [] }: Stimulus): XmlNode[] {
	return [...(text ? writeText(text) : []), ...media.map((medium) => mediumOf(medium))];
}

/** Where the text that several questions share lies. */
export const stimulusFile = (id: string) => `stimuli/${identifierOf(id)}.xml`;
/** Where a file that questions show or play lies, inside the package. */
export const mediumFile = ({ file, type }: Pick<Medium, 'file' | 'type'>) =>
	`media/${file}.${MEDIUM_TYPES[type].extension}`;

/** As XHTML has it; how often it may be played is in a class. @param up the way from the file that names it to the package’s root */
export function mediumOf(medium: Medium, up = '../'): XmlNode {
	const { alt, width, height, plays } = medium;
	const src = `${up}${mediumFile(medium)}`;
	const name = { picture: 'img', sound: 'audio', film: 'video' }[shows(medium)];
	const attributes =
		name === 'img' ? { src, alt, width, height } : { src, controls: 'controls', 'aria-label': alt, width, height };
	return element('div', { class: plays === undefined ? 'medium' : `medium plays-${plays}` }, [
		element(name, attributes)
	]);
}

/** A shared text by its element, `qti-assessment-stimulus` or what stands in an item for it. */
export function readStimulus(node: XmlNode): { id: string; text: string; media: ReadMedium[] } {
	const { text, media } = readBody(child(node, 'stimulusbody')?.children ?? node.children);
	const id = idOf(node.attributes.identifier ?? node.attributes.id ?? '');
	return { id: isId(id) ? id : '', text, media };
}
