import {
	asDrawn,
	type CalculatedQuestion,
	type DealtQuestion,
	draw,
	type Paper,
	plainText,
	type Question,
	steadyPick
} from '../paper';
import { writeText } from './body-text';
import type { Dialect } from './dialect';
import { identifierOf } from './identifier';
import { mediumOf, stimulusBody, stimulusFile } from './shared-text';
import { variableOf, writeTemplate } from './template';
import { element, writeXml, type XmlNode } from './xml';
import { processingOf, responsesOf } from './write-responses';
import { interactionOf } from './write-interaction';
import { CALCULATED, FEEDBACK, gapIdentifier } from './item-names';

/**
 * One question as an item. What no element of QTI says is in classes: `partial`, `words-200-400`, `answer`. A calculated
 * question goes out as an item template, or as one drawn example where its formulas have no counterpart in QTI; as it is
 * written here it stands in a block for authors.
 */
export function writeItem(
	written: Question,
	paper: Pick<Paper, 'title' | 'language' | 'pictures'>,
	to: Dialect
): string {
	const { el } = to;
	const example = written.kind === 'calculated' ? exampleOf(written) : {};
	const question = written.kind === 'calculated' ? asDrawn(written, example) : written;
	const template = written.kind === 'calculated' && isPlainStem(written) ? writeTemplate(written, example, to) : null;
	const stem = template ? printedStem(written) : { text: question.stem, gaps: gapIds(question) };
	const catalogs = to.version === '3.0' ? catalogsOf(question, el) : [];
	const stemAttributes = catalogs.length > 0 ? { 'data-catalog-idref': 'c-stem' } : {};
	const root = el(
		'assessmentItem',
		{
			identifier: identifierOf(question.id),
			title: plainText(question.stem).replace(/\s+/g, ' ').slice(0, 80) || question.id,
			adaptive: 'false',
			timeDependent: 'false',
			toolName: 'Otium'
		},
		[
			...responsesOf(question, to),
			el('outcomeDeclaration', { identifier: 'SCORE', cardinality: 'single', baseType: 'float' }, [
				el('defaultValue', {}, [el('value', {}, ['0'])])
			]),
			el('outcomeDeclaration', { identifier: 'MAXSCORE', cardinality: 'single', baseType: 'float' }, [
				el('defaultValue', {}, [el('value', {}, [String(question.points)])])
			]),
			...(question.feedback
				? [el('outcomeDeclaration', { identifier: FEEDBACK, cardinality: 'single', baseType: 'identifier' })]
				: []),
			...(template ? [...template.declarations, template.processing] : []),
			...(to.version === '3.0' && question.stimulus
				? [
						el('assessmentStimulusRef', {
							identifier: identifierOf(question.stimulus.id),
							href: `../${stimulusFile(question.stimulus.id)}`
						})
					]
				: []),
			el('itemBody', {}, [
				...(to.version === '2.1' && question.stimulus
					? [
							element(
								'div',
								{ class: 'stimulus', id: identifierOf(question.stimulus.id) },
								stimulusBody(question.stimulus)
							)
						]
					: []),
				...(question.hint ? [el('rubricBlock', { view: 'candidate', class: 'hint' }, writeText(question.hint))] : []),
				...(written.kind === 'calculated'
					? [el('rubricBlock', { view: 'author', class: CALCULATED }, [element('p', {}, [definitionOf(written, to)])])]
					: []),
				...(question.note ? [el('rubricBlock', { view: 'author', class: 'note' }, writeText(question.note))] : []),
				element('div', { class: stemClasses(question, paper), ...stemAttributes }, [
					...writeText(stem.text, stem.gaps, (id) =>
						template
							? el('printedVariable', { identifier: variableOf(id) })
							: el('textEntryInteraction', { responseIdentifier: gapIdentifier(id), expectedLength: 15 })
					)
				]),
				...pictureOf(question, paper),
				...(question.media ?? []).map((medium) => mediumOf(medium)),
				...interactionOf(question, to)
			]),
			...catalogs,
			...processingOf(question, to),
			...(['right', 'wrong'] as const).flatMap((identifier) => {
				const text = question.feedback?.[identifier];
				const about = { outcomeIdentifier: FEEDBACK, showHide: 'show', identifier };
				if (!text) return [];
				// 3.0 has its text in a content body, 2.1 in the element itself.
				const content = writeText(text);
				return [el('modalFeedback', about, to.version === '3.0' ? [el('contentBody', {}, content)] : content)];
			})
		]
	);
	root.attributes = { xmlns: to.namespace, 'xml:lang': paper.language ?? 'en', ...root.attributes };
	return writeXml(root);
}

/** Whether its names can stand for themselves: none in a formula, and no brackets that would be taken for one. */
function isPlainStem({ stem, parameters }: CalculatedQuestion): boolean {
	return !stem.includes('$') && !parameters.some(({ name }) => stem.includes(`[${name}]`));
}

/** A calculated question's text with its names where gaps would stand. */
function printedStem(question: Question): { text: string; gaps: string[] } {
	if (question.kind !== 'calculated') return { text: question.stem, gaps: [] };
	const gaps = question.parameters.map(({ name }) => name);
	return { text: gaps.reduce((text, name) => text.replaceAll(`{${name}}`, `[${name}]`), question.stem), gaps };
}

/** Numbers for other systems, which show one example of a calculated question; the same each time. */
function exampleOf(question: CalculatedQuestion): Record<string, number> {
	return draw(question, steadyPick());
}

/** What a calculated question is drawn from, for a reader that knows it. */
function definitionOf(
	{ stem, parameters, conditions, formula, inOther }: CalculatedQuestion,
	{ version }: Dialect
): string {
	return JSON.stringify({ stem, parameters, conditions, formula, ...(version === '3.0' ? { inOther } : {}) });
}

const gapIds = (question: Question) => (question.kind === 'fill_in' ? question.gaps.map(({ id }) => id) : []);

function pictureOf({ picture }: Question, paper: Pick<Paper, 'pictures'>): XmlNode[] {
	const drawn = picture === undefined ? undefined : paper.pictures?.[picture];
	if (picture === undefined || !drawn) return [];
	return [element('p', { class: 'picture' }, [element('img', { src: pictureFile(picture), alt: drawn.alt })])];
}

/** Where a picture of a paper lies, as items name it. */
export function pictureFile(name: string): string {
	return `../pictures/${encodeURIComponent(name)}.svg`;
}

/** What no element of QTI says of a question as a whole, as classes of its stem. */
function stemClasses(question: DealtQuestion, { pictures = {} }: Pick<Paper, 'pictures'>): string {
	return [
		'stem',
		question.isExtra && 'extra',
		// In the bank a question names a drawing of the papers that it is in.
		question.picture !== undefined && !pictures[question.picture] && `drawing-${encodeURIComponent(question.picture)}`,
		question.practice && `tries-${question.practice.tries} cost-${question.practice.costPercent}`,
		question.follows && `follows-${question.follows}`,
		question.calculator && `calculator-${question.calculator}`,
		question.kind === 'numeric' && question.unsimplified !== undefined && `unsimplified-${question.unsimplified}`
	]
		.filter(Boolean)
		.join(' ');
}

/** Other languages as a catalogue of QTI 3.0: a card of the kind `ext:translation`, an entry for each language. */
function catalogsOf(question: Question, el: Dialect['el']): XmlNode[] {
	const translations = Object.entries(question.inOther ?? {});
	if (translations.length === 0) return [];
	const textIds = [...new Set(translations.flatMap(([, { texts }]) => Object.keys(texts ?? {})))];
	const catalog = (id: string, entries: [string, string][]) =>
		el('catalog', { id }, [
			el(
				'card',
				{ support: 'ext:translation' },
				entries.map(([language, text]) => {
					const entry = el('cardEntry', {}, [el('htmlContent', {}, writeText(text))]);
					entry.attributes['xml:lang'] = language;
					return entry;
				})
			)
		]);
	return [
		el('catalogInfo', {}, [
			catalog(
				'c-stem',
				translations.map(([language, { stem }]) => [language, stem])
			),
			...textIds.map((id) =>
				catalog(
					`c-text-${identifierOf(id)}`,
					translations.flatMap(([language, { texts }]): [string, string][] =>
						texts && Object.hasOwn(texts, id) ? [[language, texts[id]]] : []
					)
				)
			)
		])
	];
}
