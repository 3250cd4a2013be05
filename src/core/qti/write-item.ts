import {
	asDrawn,
	draw,
	plainText,
	steadyPick,
	type CalculatedQuestion,
	type Choice,
	type DealtQuestion,
	type Paper,
	type Question
} from '../paper';
import { writeInline, writeText } from './body-text';
import type { Dialect } from './dialect';
import { identifierOf } from './identifier';
import { mediumOf, stimulusBody, stimulusFile } from './shared-text';
import { variableOf, writeTemplate } from './template';
import { element, writeXml, type XmlNode } from './xml';

const RESPONSE = 'RESPONSE';

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

/** The outcome that other systems set to `right` or `wrong`, to tell what the author says to it. */
const FEEDBACK = 'FEEDBACK';

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

/** The class of the block that holds what a calculated question is drawn from. */
export const CALCULATED = 'calculated';

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
export const gapIdentifier = (id: string) => `GAP_${id}`;

function pictureOf({ picture }: Question, paper: Pick<Paper, 'pictures'>): XmlNode[] {
	const drawn = picture === undefined ? undefined : paper.pictures?.[picture];
	if (picture === undefined || !drawn) return [];
	return [element('p', { class: 'picture' }, [element('img', { src: pictureFile(picture), alt: drawn.alt })])];
}

/** Where a picture of a paper lies, as items name it. */
export function pictureFile(name: string): string {
	return `../pictures/${encodeURIComponent(name)}.svg`;
}

function values(el: Dialect['el'], all: string[]): XmlNode {
	return el(
		'correctResponse',
		{},
		all.map((value) => el('value', {}, [value]))
	);
}

/** Accepted spellings, each worth the same, compared without capitals. */
function spellings(el: Dialect['el'], accepted: string[], points: number): XmlNode {
	return el(
		'mapping',
		{ defaultValue: 0, lowerBound: 0, upperBound: points },
		accepted.map((mapKey) => el('mapEntry', { mapKey, mappedValue: points, caseSensitive: 'false' }))
	);
}

function responsesOf(question: DealtQuestion, { el }: Dialect): XmlNode[] {
	const declare = (cardinality: string, baseType: string, children: XmlNode[]) => [
		el('responseDeclaration', { identifier: RESPONSE, cardinality, baseType }, children)
	];
	const { points } = question;
	switch (question.kind) {
		case 'true_false':
			return declare('single', 'identifier', [values(el, [String(question.answer)])]);
		case 'single':
			return declare('single', 'identifier', [
				values(el, question.answer === '' ? [] : [identifierOf(question.answer)])
			]);
		case 'multiple': {
			const right = question.answer.map(identifierOf);
			const each = points / Math.max(1, right.length);
			const entries = question.choices.map(({ id }) =>
				el('mapEntry', { mapKey: identifierOf(id), mappedValue: question.answer.includes(id) ? each : -each })
			);
			const map = el('mapping', { defaultValue: 0, lowerBound: 0, upperBound: points }, entries);
			return declare('multiple', 'identifier', [values(el, right), ...(question.partial ? [map] : [])]);
		}
		case 'matching': {
			const pairs = Object.entries(question.answer).map(
				([item, match]) => `${identifierOf(item)} ${identifierOf(match)}`
			);
			const each = points / Math.max(1, pairs.length);
			const map = el(
				'mapping',
				{ defaultValue: 0, lowerBound: 0, upperBound: points },
				pairs.map((mapKey) => el('mapEntry', { mapKey, mappedValue: each }))
			);
			return declare('multiple', 'directedPair', [values(el, pairs), ...(question.partial ? [map] : [])]);
		}
		case 'ordering':
			return declare('ordered', 'identifier', [values(el, question.answer.map(identifierOf))]);
		case 'fill_in': {
			const each = points / Math.max(1, question.gaps.length);
			return question.gaps.map(({ id, accepted }) =>
				el('responseDeclaration', { identifier: gapIdentifier(id), cardinality: 'single', baseType: 'string' }, [
					...(accepted.length > 0 ? [values(el, [accepted[0]])] : []),
					spellings(el, accepted, each)
				])
			);
		}
		case 'short':
			return declare('single', 'string', [
				...(question.accepted.length > 0 ? [values(el, [question.accepted[0]])] : []),
				spellings(el, question.accepted, points)
			]);
		case 'numeric':
			return declare('single', 'float', [values(el, [String(question.answer)])]);
		case 'essay':
			return declare('single', 'string', []);
		case 'upload':
			return declare('single', 'file', []);
	}
}

function simpleChoices(el: Dialect['el'], name: string, choices: Choice[], more: Record<string, string | number> = {}) {
	return choices.map(({ id, text, pinned }) =>
		el(
			name,
			{
				identifier: identifierOf(id),
				...(pinned === undefined || name !== 'simpleChoice' ? {} : { fixed: String(pinned) }),
				...more
			},
			writeInline(text)
		)
	);
}

const partialClass = (question: { partial: boolean }) => (question.partial ? 'partial' : undefined);

function interactionOf(question: DealtQuestion, { el }: Dialect): XmlNode[] {
	const response = { responseIdentifier: RESPONSE };
	switch (question.kind) {
		case 'true_false':
			return [
				el('choiceInteraction', { ...response, shuffle: 'false', maxChoices: 1, class: 'true-false' }, [
					el('simpleChoice', { identifier: 'true' }, ['True']),
					el('simpleChoice', { identifier: 'false' }, ['False'])
				])
			];
		case 'single':
		case 'multiple': {
			const isSingle = question.kind === 'single';
			const name = isSingle ? undefined : partialClass(question);
			return [
				el(
					'choiceInteraction',
					{ ...response, shuffle: 'true', maxChoices: isSingle ? 1 : 0, class: name },
					simpleChoices(el, 'simpleChoice', question.choices)
				)
			];
		}
		case 'matching': {
			const sets = [question.items, question.matches].map((choices, i) =>
				el('simpleMatchSet', {}, simpleChoices(el, 'simpleAssociableChoice', choices, { matchMax: i === 0 ? 1 : 0 }))
			);
			const attributes = { ...response, shuffle: 'true', maxAssociations: 0, class: partialClass(question) };
			return [el('matchInteraction', attributes, sets)];
		}
		case 'ordering':
			return [
				el(
					'orderInteraction',
					{ ...response, shuffle: 'true', class: partialClass(question) },
					simpleChoices(el, 'simpleChoice', question.choices)
				)
			];
		case 'fill_in':
			return question.partial ? [] : [element('p', { class: 'all-or-nothing' })];
		case 'short':
			return [element('p', { class: 'answer' }, [el('textEntryInteraction', { ...response, expectedLength: 30 })])];
		case 'numeric':
			return [
				element('p', { class: 'answer' }, [
					el('textEntryInteraction', { ...response, expectedLength: 12 }),
					...(question.unit ? [element('span', { class: 'unit', 'xml:space': 'preserve' }, [question.unit])] : [])
				])
			];
		case 'essay': {
			const { words } = question;
			const attributes = { class: words ? `words-${words.from}-${words.to}` : undefined, expectedLines: 12 };
			return [el('extendedTextInteraction', { ...response, ...attributes })];
		}
		case 'upload':
			return [el('uploadInteraction', { ...response, class: `most-${question.most}` })];
	}
}

function processingOf(question: DealtQuestion, to: Dialect): XmlNode[] {
	const { el } = to;
	const byTemplate = (name: 'match_correct' | 'map_response') => [
		el('responseProcessing', { template: to.template(name) })
	];
	const variable = (identifier: string) => el('variable', { identifier });
	const score = (expression: XmlNode) => el('setOutcomeValue', { identifier: 'SCORE' }, [expression]);
	const points = el('baseValue', { baseType: 'float' }, [String(question.points)]);
	switch (question.kind) {
		case 'essay':
		case 'upload':
			return [];
		case 'short':
			return byTemplate('map_response');
		case 'multiple':
		case 'matching':
			return byTemplate(question.partial ? 'map_response' : 'match_correct');
		case 'true_false':
		case 'single':
		case 'ordering':
			return byTemplate('match_correct');
		case 'fill_in': {
			if (question.gaps.length === 0) return [];
			const each = question.gaps.map(({ id }) => el('mapResponse', { identifier: gapIdentifier(id) }));
			return [el('responseProcessing', {}, [score(el('sum', {}, each))])];
		}
		case 'numeric': {
			const { kind, amount } = question.tolerance;
			// A relative tolerance of QTI is told in per cent.
			const told = kind === 'relative' ? amount * 100 : amount;
			const isRight = el(
				'equal',
				amount === 0 && kind === 'absolute'
					? { toleranceMode: 'exact' }
					: { toleranceMode: kind, tolerance: `${told} ${told}` },
				[variable(RESPONSE), el('correct', { identifier: RESPONSE })]
			);
			return [
				el('responseProcessing', {}, [el('responseCondition', {}, [el('responseIf', {}, [isRight, score(points)])])])
			];
		}
	}
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
