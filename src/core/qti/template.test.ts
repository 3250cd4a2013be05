import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { answerFor, draw, steadyPick, type CalculatedQuestion } from '../paper';
import { readItem } from './read-item';
import { writeItem } from './write-item';
import { QTI_2, QTI_3 } from './dialect';

let next = 0;
const newId = () => `n${next++}`;

const question = (change: Partial<CalculatedQuestion>): CalculatedQuestion => ({
	id: 'q',
	kind: 'calculated',
	stem: 'High water is {hw} m and low water {lw} m. What then?',
	points: 2,
	topic: '',
	parameters: [
		{ name: 'hw', from: 4.2, to: 6.6, step: 0.2 },
		{ name: 'lw', values: [0.5, 1, 1.4] }
	],
	conditions: ['hw - lw > 3'],
	formula: 'hw - lw',
	tolerance: { kind: 'absolute', amount: 0.05 },
	unit: 'm',
	...change
});
/** As another system would have written it: neither its name nor the block that only Otium reads. */
const byOthers = (xml: string) =>
	xml
		.replace(/tool-?[nN]ame="Otium"/, '')
		.replace(/<(qti-rubric-block|rubricBlock)[^>]*class="calculated"[^]*?<\/\1>/, '');
const readAs = (xml: string) => {
	const read = readItem(byOthers(xml), newId);
	if (!read.ok) throw new Error(read.message);
	return read.item;
};

describe('a calculated question as an item template', () => {
	it.each([
		'hw - lw',
		'-hw ^ 2 + lw',
		'lw + (hw - lw) * (1 - cos(30 * hw)) / 2',
		'sin(hw) + tan(lw * 10)',
		'asin(lw / hw) + atan2(lw, hw)',
		'mod(lw - hw * 100, 360)',
		'round(hw / lw, 2) * max(hw, lw, 3)',
		'sqrt(abs(lw - hw)) + log(hw) - ln(lw) + exp(1)',
		'floor(hw) + ceil(lw) + pi'
	])('%s comes to the same for whatever is drawn, read without what only Otium reads', (formula) => {
		for (const to of [QTI_2, QTI_3]) {
			const ours = question({ formula });
			const { question: theirs, told } = readAs(writeItem(ours, { title: '' }, to));
			expect(told).toEqual([]);
			expect(theirs).toMatchObject({ kind: 'calculated', stem: ours.stem, parameters: ours.parameters, unit: 'm' });
			const pick = steadyPick();
			for (let i = 0; i < 20; i++) {
				const drawn = draw(ours, pick);
				const [mine, other] = [answerFor(ours, drawn), answerFor(theirs as CalculatedQuestion, drawn)];
				expect(other).toBeCloseTo(mine, 9);
				expect(mine).not.toBeNaN();
			}
		}
	});

	it('keeps its conditions: what they draw fulfils ours', () => {
		const { question: theirs } = readAs(writeItem(question({}), { title: '' }, QTI_3));
		fc.assert(
			fc.property(fc.nat(100_000), (seed) => {
				let at = seed;
				const { hw, lw } = draw(
					theirs as CalculatedQuestion,
					(most) => (at = (at * 16_807 + 1) % 2_147_483_647) % (most + 1)
				);
				return hw - lw > 3;
			})
		);
	});

	it('of a formula without a counterpart goes out as one example, and is ours again when it comes back', () => {
		const odd = question({ conditions: ['0 < lw < 2'] });
		const xml = writeItem(odd, { title: '' }, QTI_3);
		expect(xml).not.toContain('template-processing');
		const back = readItem(xml, newId);
		expect(back.ok && back.item.question).toMatchObject({ kind: 'calculated', conditions: ['0 < lw < 2'] });
	});
});

/** By the elements of the specification’s chapter on item templates, from memory; white space as people write it. */
const theirs = (
	template: string,
	body = 'A boat makes <printedVariable identifier="SPEED"/> knots for <printedVariable identifier="HOURS"/> h.'
) =>
	`<assessmentItem xmlns="http://www.imsglobal.org/xsd/imsqti_v2p1" identifier="boat" title="Boat" adaptive="false" timeDependent="false">
	<responseDeclaration identifier="DIST" cardinality="single" baseType="float"/>
	<templateDeclaration identifier="SPEED" cardinality="single" baseType="integer" mathVariable="false" paramVariable="false"/>
	<templateDeclaration identifier="HOURS" cardinality="single" baseType="float"/>
	<templateProcessing>
		${template}
	</templateProcessing>
	<itemBody><p>${body}</p><p> <textEntryInteraction responseIdentifier="DIST" expectedLength="5"/> </p></itemBody>
	<responseProcessing template="http://www.imsglobal.org/question/qti_v2p1/rptemplates/match_correct"/>
</assessmentItem>`;
const DRAWN = `<setTemplateValue identifier="SPEED"><randomInteger min="4" max="8" step="2"/></setTemplateValue>
	<setTemplateValue identifier="HOURS"><random><multiple><baseValue baseType="float"> 1.5 </baseValue><baseValue baseType="float">2</baseValue></multiple></random></setTemplateValue>`;
const ANSWER = `<setCorrectResponse identifier="DIST"><product><variable identifier="SPEED"/><variable identifier="HOURS"/></product></setCorrectResponse>`;
const item = (xml: string) => {
	const read = readItem(xml, newId);
	if (!read.ok) throw new Error(read.message);
	return read.item;
};

describe('an item template of another system', () => {
	it('is a calculated question: what is drawn, what must hold, what is reckoned on the way', () => {
		const { question: read, told } = item(
			theirs(`${DRAWN}
				<templateConstraint><and><lt><variable identifier="SPEED"/><baseValue baseType="integer">8</baseValue></lt>
				<not><equal><variable identifier="HOURS"/><baseValue baseType="float">0</baseValue></equal></not></and></templateConstraint>
				<setTemplateValue identifier="MORE"><sum><variable identifier="SPEED"/><baseValue baseType="integer">1</baseValue></sum></setTemplateValue>
				${ANSWER.replaceAll('"SPEED"', '"MORE"')}`)
		);
		expect(told).toEqual([]);
		expect(read).toMatchObject({
			kind: 'calculated',
			stem: 'A boat makes {SPEED} knots for {HOURS} h.',
			parameters: [
				{ name: 'SPEED', from: 4, to: 8, step: 2 },
				{ name: 'HOURS', values: [1.5, 2] }
			],
			conditions: ['(SPEED < 8)', '(HOURS != 0)']
		});
		expect(answerFor(read as CalculatedQuestion, { SPEED: 6, HOURS: 1.5 })).toBe(10.5);
	});

	it.each([
		['a rule of another kind', `${DRAWN}<templateCondition/>${ANSWER}`, 'templatecondition'],
		['no answer', DRAWN, 'does not say what its answer is reckoned from'],
		['an operator without a counterpart', `${DRAWN}${ANSWER.replaceAll('product>', 'gcd>')}`, 'no counterpart'],
		[
			'a reckoned value in the text',
			`${DRAWN.replace('<randomInteger min="4" max="8" step="2"/>', '<sum><baseValue baseType="integer">3</baseValue></sum>')}${ANSWER}`,
			'SPEED stands in the text and is not drawn'
		]
	])('with %s comes in as a number, told', (_, template, message) => {
		const { question: read, told } = item(theirs(template));
		expect(read.kind).toBe('numeric');
		expect(told.join(' ')).toContain(message);
		expect(told.join(' ')).toContain('look at its text and its answer');
	});

	it('around another kind of question is told, and the question comes in without it', () => {
		const { question: read, told } = item(theirs(DRAWN).replace('baseType="float"/>', 'baseType="string"/>'));
		expect(read.kind).toBe('short');
		expect(told).toEqual(['Its template was left out: only numbers are drawn here. Look at its text and its answer.']);
	});
});
