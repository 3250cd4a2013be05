import { readQuantity } from '../quantity';
import { calculatedFault, type CalculatedQuestion, type Question } from '../paper';
import { readBody, type ReadMedium } from './body-text';
import { decoded, idOf, isId } from './identifier';
import { readTemplate } from './template';
import { CALCULATED, ENDS } from './item-names';
import { below, child, childrenOf, hasClass, isElement, readXml, textIn, writeXml, type XmlNode } from './xml';
import { acceptedOf, correctOf, declarationOf, pointsOf, tellMarking, toleranceOf } from './read-key';
import { choicesOf, feedbackOf, isUnit, notesOf, stemOf, stimulusOf, textOf, translationsOf } from './read-words';

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

const SOURCE_LETTERS = 3_500;

type NumericQuestion = Extract<Question, { kind: 'numeric' }>;

export type Item = { root: XmlNode; body: XmlNode; isOurs: boolean; told: string[]; newId: () => string };

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
	tellMarking(item);
	const shared = { id, points, topic: '', ...notesOf(item) };
	let question: Question;
	if (interactions.length === 0) {
		item.told.push('It asks for nothing; it came in as an essay, marked by hand.');
		question = { ...shared, ...stemOf(item), kind: 'essay', words: null };
	} else if (stranger || (interactions.length > 1 && texts.length !== interactions.length)) {
		const names = stranger
			? stranger.name.replace(ENDS, ' interaction')
			: kinds.size === 1
				? 'row of interactions'
				: `${kinds.size} kinds of interaction at once`;
		item.told.push(
			`It has ${stranger || kinds.size === 1 ? 'a ' : ''}${names}, which has no counterpart here: it came in as an essay with its source in the notes.`
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

/** A number that is asked for within a sentence, `g = … m/s²`: a numeric question, with what stands behind it as its unit. */
function numberInSentence(item: Item, interactions: XmlNode[], right: string[]) {
	const [first] = interactions;
	const declaration = declarationOf(item, first);
	const isNumber = ['float', 'integer'].includes(declaration?.attributes.basetype ?? '');
	if (interactions.length !== 1 || first.name !== 'textentryinteraction' || !isNumber) return null;
	const { stem, ...rest } = stemOf(item, [], new Map([[first, 'N']]));
	const [before, after = ''] = stem.split('[N]');
	const unit = /^[ \t]*([^\s.,;:!?][^\n]{0,29}?)[ \t]*$/.exec(after)?.[1] ?? '';
	// A unit has no words; what else stands there stays where it is.
	const isUnit = unit !== '' && readQuantity(`1 ${unit}`).values.length > 0 && !/[A-Za-z]{4,} [A-Za-z]{3,}/.test(unit);
	return {
		...rest,
		stem: (isUnit ? before.trimEnd() : `${before}…${after}`).trim(),
		kind: 'numeric' as const,
		answer: Number(right[0] ?? 0) || 0,
		tolerance: toleranceOf(item, first),
		unit: isUnit ? unit : ''
	};
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
	const number = item.isOurs ? null : numberInSentence(item, interactions, right);
	if (number) return number;
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
