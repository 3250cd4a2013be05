import {
	calculatedFault,
	type CalculatedQuestion,
	type Choice,
	type Question,
	type Tolerance,
	type Wording
} from '../paper';
import { readBody, type ReadMedium } from './body-text';
import { decoded, idOf, isId } from './identifier';
import { readStimulus } from './shared-text';
import { nameOf, readTemplate } from './template';
import { CALCULATED } from './write-item';
import { below, child, childrenOf, hasClass, isElement, readXml, textIn, writeXml, type XmlNode } from './xml';

/** What came of an item: its question, what could not be taken along, and the files that it shows and plays. */
export type ReadItem = {
	question: Question;
	/** The item's own identifier, by which a test names it. */
	identifier: string;
	/** Sentences about what is different from the source. */
	told: string[];
	media: ReadMedium[];
	/** The shared text before it: where its file lies, or what stands in the item itself. */
	stimulus: { href: string } | { id: string; text: string; media: ReadMedium[] } | null;
};

const SUPPORTED = [
	'choiceinteraction',
	'orderinteraction',
	'matchinteraction',
	'textentryinteraction',
	'inlinechoiceinteraction',
	'extendedtextinteraction',
	'uploadinteraction'
];
const ENDS = 'interaction';
const SOURCE_LETTERS = 3_500;

type NumericQuestion = Extract<Question, { kind: 'numeric' }>;
type Item = { root: XmlNode; body: XmlNode; isOurs: boolean; told: string[]; newId: () => string };

/**
 * Reads an item of QTI 3.0, 2.2 or 2.1. An interaction that has no counterpart comes in as an essay that says what it was,
 * with its source in the notes. Ids of items that Otium wrote stay; others get new ones.
 * @param newId a new id for a question or a choice
 */
export function readItem(
	xml: string,
	newId: () => string
): { ok: true; item: ReadItem } | { ok: false; message: string } {
	const read = readXml(xml);
	if (!read.ok) return read;
	const { root } = read;
	if (root.name !== 'assessmentitem') return { ok: false, message: 'it is not an assessment item of QTI' };
	const body = child(root, 'itembody');
	if (!body) return { ok: false, message: 'it has no item body' };
	const isOurs = root.attributes.toolname === 'Otium';
	const item: Item = { root, body, isOurs, told: [], newId };
	const identifier = root.attributes.identifier ?? '';
	const id = isOurs && isId(idOf(identifier)) ? idOf(identifier) : newId();

	const interactions = below(body, ...interactionNames(body));
	const kinds = new Set(interactions.map(({ name }) => name));
	const stranger = interactions.find(({ name }) => !SUPPORTED.includes(name));
	const texts = interactions.filter(({ name }) => /^(textentry|inlinechoice)interaction$/.test(name));
	const points = pointsOf(item);
	const shared = { id, points, topic: '', ...notesOf(item) };
	let question: Question;
	if (interactions.length === 0) {
		item.told.push('It asks for nothing; it came in as an essay, marked by hand.');
		question = { ...shared, ...stemOf(item), kind: 'essay', words: null };
	} else if (stranger || (interactions.length > 1 && texts.length !== interactions.length)) {
		const names = stranger ? stranger.name.replace(ENDS, ' interaction') : `${kinds.size} kinds of interaction at once`;
		item.told.push(
			`It has a ${names}, which has no counterpart here: it came in as an essay with its source in the notes.`
		);
		const source = writeXml(stranger ?? body).replace(/^<\?.*\?>\n/, '');
		const note = [shared.note, source].filter(Boolean).join('\n').slice(0, SOURCE_LETTERS);
		question = { ...shared, ...stemOf(item), note, kind: 'essay', words: null };
	} else question = { ...shared, ...asked(item, interactions) } as Question;

	const inItem = below(body, 'div').find((one) => isOurs && hasClass(one, 'stimulus'));
	const { media } = readBody(
		body.children.filter((one) => !isElement(one) || (one.name !== 'rubricblock' && one !== inItem))
	);
	const feedback = feedbackOf(item);
	if (feedback) question.feedback = feedback;
	if (isOurs) readStemClasses(body, question);
	const inOther = translationsOf(item);
	if (inOther) question.inOther = inOther;
	if (question.kind === 'numeric')
		question = isOurs ? asCalculated(item, question) : asTemplate(item, question, interactions[0]);
	else if (child(root, 'templateprocessing'))
		item.told.push('Its template was left out: only numbers are drawn here. Look at its text and its answer.');
	return {
		ok: true,
		item: { question, identifier, told: item.told, media, stimulus: stimulusOf(item, inItem) }
	};
}

const CALCULATORS = ['none', 'basic'] as const;

function readStemClasses(body: XmlNode, question: Question): void {
	const stem = below(body, 'div').find((one) => hasClass(one, 'stem'));
	if (!stem) return;
	if (hasClass(stem, 'extra')) question.isExtra = true;
	const drawing = /(?:^|\s)drawing-(\S+)/.exec(stem.attributes.class ?? '');
	if (drawing) question.picture = decoded(drawing[1]);
	const tries = /(?:^|\s)tries-(\d{1,2}) cost-(\d{1,3})(?:\s|$)/.exec(stem.attributes.class ?? '');
	if (tries) question.practice = { tries: Number(tries[1]), costPercent: Number(tries[2]) };
	const follows = /(?:^|\s)follows-([A-Za-z0-9_-]{1,40})(?:\s|$)/.exec(stem.attributes.class ?? '');
	if (follows) question.follows = follows[1];
	const calculator = CALCULATORS.find((one) => hasClass(stem, `calculator-${one}`));
	if (calculator) question.calculator = calculator;
	const part = /(?:^|\s)unsimplified-(\d{1,2})(?:\s|$)/.exec(stem.attributes.class ?? '');
	if (part && question.kind === 'numeric') question.unsimplified = Number(part[1]);
}

/** A number that Otium wrote as an example of a calculated question is that question again. */
function asCalculated({ body, told }: Item, example: NumericQuestion): Question {
	const block = below(body, 'rubricblock').find((one) => hasClass(one, CALCULATED));
	if (!block) return example;
	try {
		const { stem, parameters, conditions, formula, inOther } = JSON.parse(textIn(block));
		const { answer: _, inOther: __, ...rest } = example;
		return { ...rest, kind: 'calculated', stem, parameters, conditions, formula, ...(inOther ? { inOther } : {}) };
	} catch {
		told.push('What its numbers are drawn from can’t be read; it came in as one example.');
		return example;
	}
}

/** A number that another system draws and reckons is a calculated question. */
function asTemplate({ root, body, told }: Item, example: NumericQuestion, interaction: XmlNode): Question {
	const processing = child(root, 'templateprocessing');
	if (!processing) return example;
	const printed = below(body, 'printedvariable').map(({ attributes }) => attributes.identifier ?? '');
	const template = readTemplate(processing, interaction.attributes.responseidentifier ?? '', printed);
	if (typeof template === 'string') {
		told.push(
			`Its numbers can’t be drawn here: ${template}. It came in as one number; look at its text and its answer.`
		);
		return example;
	}
	const { answer: _, ...rest } = example;
	const question: CalculatedQuestion = { ...rest, kind: 'calculated', ...template };
	const fault = calculatedFault(question);
	if (fault) told.push(fault);
	return question;
}

function interactionNames(body: XmlNode): string[] {
	const names = new Set<string>();
	const look = (node: XmlNode) =>
		node.children.filter(isElement).forEach((one) => {
			if (one.name.endsWith(ENDS)) names.add(one.name);
			look(one);
		});
	look(body);
	return [...names];
}

/** The kind of question and what belongs to it. */
function asked(item: Item, interactions: XmlNode[]) {
	const [first] = interactions;
	const response = declarationOf(item, first);
	const right = correctOf(response);
	const isPartial = hasClass(first, 'partial') || (!item.isOurs && child(response, 'mapping') !== null);
	switch (first.name) {
		case 'choiceinteraction': {
			const choices = choicesOf(item, first, 'simplechoice');
			const stem = stemOf(item, [first]);
			const identifiers = childrenOf(first, 'simplechoice').map(({ attributes }) => attributes.identifier);
			if (hasClass(first, 'true-false') && identifiers.join() === 'true,false')
				return { ...stem, kind: 'true_false' as const, answer: right[0] === 'true' };
			const keyed = right.map((one) => choices.idOf.get(one)).filter((one) => one !== undefined);
			if (response?.attributes.cardinality === 'multiple')
				return { ...stem, kind: 'multiple' as const, choices: choices.list, answer: keyed, partial: isPartial };
			return { ...stem, kind: 'single' as const, choices: choices.list, answer: keyed[0] ?? '' };
		}
		case 'orderinteraction': {
			const choices = choicesOf(item, first, 'simplechoice');
			const answer = right.map((one) => choices.idOf.get(one)).filter((one) => one !== undefined);
			return {
				...stemOf(item, [first]),
				kind: 'ordering' as const,
				choices: choices.list,
				answer: answer.length === choices.list.length ? answer : choices.list.map(({ id }) => id),
				partial: isPartial
			};
		}
		case 'matchinteraction': {
			const [left, other] = childrenOf(first, 'simplematchset').map((set) =>
				choicesOf(item, set, 'simpleassociablechoice')
			);
			const pairs = right.map((pair) => pair.trim().split(/\s+/));
			const answer = Object.fromEntries(
				pairs
					.map(([from, to]) => [left?.idOf.get(from), other?.idOf.get(to)])
					.filter((pair) => pair.every((one) => one !== undefined)) as [string, string][]
			);
			return {
				...stemOf(item, [first]),
				kind: 'matching' as const,
				items: left?.list ?? [],
				matches: other?.list ?? [],
				answer,
				partial: isPartial
			};
		}
		case 'extendedtextinteraction': {
			const words = /\bwords-(\d+)-(\d+)\b/.exec(first.attributes.class ?? '');
			return {
				...stemOf(item, [first]),
				kind: 'essay' as const,
				words: words ? { from: Number(words[1]), to: Number(words[2]) } : null
			};
		}
		case 'uploadinteraction': {
			const most = Number(/\bmost-(\d+)\b/.exec(first.attributes.class ?? '')?.[1] ?? 1);
			return { ...stemOf(item, [first]), kind: 'upload' as const, most: Math.min(10, Math.max(1, most)) };
		}
		default:
			return written(item, interactions, right);
	}
}

/** Text entries: one that stands by itself is a short answer or a number, others are gaps in the text. */
function written(item: Item, interactions: XmlNode[], right: string[]) {
	const [first] = interactions;
	const block = below(item.body, 'p', 'div').find((one) => one.children.includes(first)) ?? null;
	const isAlone = item.isOurs
		? block !== null && hasClass(block, 'answer')
		: interactions.length === 1 &&
			first.name === 'textentryinteraction' &&
			(block === null || block.children.every((one) => one === first || textOf(one).trim() === '' || isUnit(one)));
	if (isAlone) {
		const stem = stemOf(item, block && block !== item.body ? [first, block] : [first]);
		const declaration = declarationOf(item, first);
		const isNumber = ['float', 'integer'].includes(declaration?.attributes.basetype ?? '');
		if (!isNumber) return { ...stem, kind: 'short' as const, accepted: acceptedOf(item, declaration, right) };
		const unit = block ? textIn(childrenOf(block, 'span').find((span) => hasClass(span, 'unit')) ?? null) : '';
		return {
			...stem,
			kind: 'numeric' as const,
			answer: Number(right[0] ?? 0) || 0,
			tolerance: toleranceOf(item, first),
			unit
		};
	}
	const names = new Map<XmlNode, string>();
	const gaps = interactions.map((one, i) => {
		const asIs = (one.attributes.responseidentifier ?? '').replace(/^GAP_/, '');
		const id = item.isOurs && /^[A-Za-z0-9]{1,12}$/.test(asIs) ? asIs : `g${i + 1}`;
		names.set(one, id);
		const declaration = declarationOf(item, one);
		if (one.name === 'textentryinteraction')
			return { id, accepted: acceptedOf(item, declaration, correctOf(declaration)) };
		item.told.push('A list to choose from inside the text came in as a gap to fill in.');
		const chosen = childrenOf(one, 'inlinechoice').find(
			({ attributes }) => attributes.identifier === correctOf(declaration)[0]
		);
		return { id, accepted: chosen ? [textIn(chosen).trim()] : [] };
	});
	const isWhole = item.isOurs && below(item.body, 'p').some((one) => hasClass(one, 'all-or-nothing'));
	return { ...stemOf(item, [], names), kind: 'fill_in' as const, gaps, partial: !isWhole };
}

const isUnit = (node: XmlNode | string) => isElement(node) && hasClass(node, 'unit');
const textOf = (node: XmlNode | string) => (isElement(node) ? textIn(node) : node);

/** What is asked: the body without these, and what the interaction itself says before its choices. */
function stemOf(item: Item, without: XmlNode[] = [], gaps: Map<XmlNode, string> = new Map()): { stem: string } {
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

function choicesOf(item: Item, within: XmlNode, name: string): { list: Choice[]; idOf: Map<string, string> } {
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

function declarationOf({ root }: Item, interaction: XmlNode): XmlNode | null {
	return (
		childrenOf(root, 'responsedeclaration').find(
			({ attributes }) => attributes.identifier === interaction.attributes.responseidentifier
		) ?? null
	);
}

function correctOf(declaration: XmlNode | null): string[] {
	return childrenOf(child(declaration, 'correctresponse'), 'value').map(textIn);
}

/** The right answer and every spelling that a mapping gives points for. */
function acceptedOf({ isOurs }: Item, declaration: XmlNode | null, right: string[]): string[] {
	const mapped = childrenOf(child(declaration, 'mapping'), 'mapentry')
		.filter(({ attributes }) => isOurs || Number(attributes.mappedvalue) > 0)
		.map(({ attributes }) => attributes.mapkey ?? '');
	return mapped.length > 0 ? [...new Set([...mapped])] : right;
}

/** The tolerance of the comparison that gives the points; QTI tells a relative one in per cent. */
function toleranceOf({ root, told }: Item, interaction: XmlNode): Tolerance {
	const processing = child(root, 'responseprocessing');
	const about = interaction.attributes.responseidentifier;
	const equal = processing
		? below(processing, 'equal').find((one) =>
				below(one, 'variable').some(({ attributes }) => attributes.identifier === about)
			)
		: undefined;
	const amounts = (equal?.attributes.tolerance ?? '').trim().split(/\s+/).map(Number);
	const amount = Math.max(0, ...amounts.filter(Number.isFinite));
	if (amounts.length > 1 && amounts[0] !== amounts[1])
		told.push('Its tolerance differs upwards and downwards; the larger of both was taken.');
	return equal?.attributes.tolerancemode === 'relative'
		? { kind: 'relative', amount: amount / 100 }
		: { kind: 'absolute', amount };
}

/** What it is worth: MAXSCORE, else what its outcome can reach, else one point. */
function pointsOf({ root }: Item): number {
	const outcome = (name: string) =>
		childrenOf(root, 'outcomedeclaration').find(({ attributes }) => attributes.identifier === name);
	const most = outcome('MAXSCORE');
	const said = [
		most ? textIn(child(child(most, 'defaultvalue'), 'value')) : '',
		outcome('SCORE')?.attributes.normalmaximum ?? ''
	].find((text) => text.trim() !== '' && Number(text) >= 0 && Number(text) <= 1_000);
	return said === undefined ? 1 : Number(said);
}

function notesOf({ body }: Item): { hint?: string; note?: string } {
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

function translationsOf({ root, isOurs }: Item): Record<string, Wording> | null {
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
function feedbackOf({ root }: Item): Question['feedback'] | null {
	const found: Record<string, string> = {};
	for (const one of childrenOf(root, 'modalfeedback')) {
		const name = (one.attributes.identifier ?? '').toLowerCase();
		const end = /^(right|correct)$/.test(name) ? 'right' : /^(wrong|incorrect)$/.test(name) ? 'wrong' : null;
		const { text } = readBody(child(one, 'contentbody')?.children ?? one.children);
		if (end && text.trim()) found[end] = text.slice(0, 2_000);
	}
	return Object.keys(found).length > 0 ? found : null;
}

function stimulusOf({ root }: Item, inItem: XmlNode | undefined): ReadItem['stimulus'] {
	if (inItem) return readStimulus(inItem);
	const reference = child(root, 'assessmentstimulusref');
	return reference?.attributes.href ? { href: reference.attributes.href } : null;
}
