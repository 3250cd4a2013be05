import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Choice, Paper, Part, Question, Stimulus } from '../paper';
import { isSame } from '../paper';
import { readPackage, writePackage } from '.';
import { runs } from '$core/testing/runs';

let ids = 0;
const newId = () => `new${++ids}`;

const id = fc.stringMatching(/^[A-Za-z0-9_-]{1,12}$/);
const words = fc.constantFrom(
	'The tide',
	'rises & falls',
	'< 3 m',
	'"twice"',
	'maré',
	'שלום',
	'$h = \\frac{1}{2}$',
	'[x]',
	'😀',
	'**not** H~2~O',
	'__so__ `x * y` 10^3^',
	'2 * 3 ** 4',
	']]>'
);
const line = fc.array(words, { minLength: 1, maxLength: 4 }).map((parts) => parts.join(' '));
const blocks = fc.constantFrom(
	'- one\n- **two**',
	'1. first\n2. H~2~O',
	'| Port | Range & |\n| --- | --- |\n| $h$ | 4 m |'
);
const text = fc
	.array(fc.oneof({ weight: 4, arbitrary: line }, fc.constant(''), blocks), { minLength: 1, maxLength: 3 })
	.map((lines) => lines.join('\n'));
const odd = fc.oneof(text, fc.constantFrom('', ' leads', 'ends ', 'two  spaces', 'a\ttab', '– a dash'));
const choices = (least: number): fc.Arbitrary<Choice[]> =>
	fc
		.uniqueArray(id, { minLength: least, maxLength: 5 })
		.chain((all) =>
			fc.tuple(
				...all.map((one) =>
					fc.record({ id: fc.constant(one), text: odd, pinned: fc.boolean() }, { requiredKeys: ['id', 'text'] })
				)
			)
		);
const media = fc.array(
	fc.oneof(
		fc.record({
			file: fc.constantFrom('a1'.repeat(32), 'b2'.repeat(32)),
			type: fc.constant('image/webp' as const),
			alt: fc.constantFrom('', 'a "black" cone & a ball'),
			width: fc.constantFrom(1, 1_600),
			height: fc.constantFrom(1, 900)
		}),
		fc.record(
			{
				file: fc.constant('c3'.repeat(32)),
				type: fc.constantFrom('audio/mpeg' as const, 'audio/ogg' as const, 'video/mp4' as const, 'video/webm' as const),
				alt: fc.constantFrom('', 'MAYDAY, three times'),
				plays: fc.integer({ min: 1, max: 99 })
			},
			{ requiredKeys: ['file', 'type', 'alt'] }
		)
	),
	{ minLength: 1, maxLength: 3 }
);
const STIMULI: Stimulus[] = [
	{ id: 'a-log', text: 'From the log & more\n\n0800 $h < 3$' },
	{ id: '7-call', text: '', media: [{ file: 'd4'.repeat(32), type: 'audio/ogg', alt: 'a call', plays: 2 }] }
];
const shared = fc.record(
	{
		id,
		stem: odd,
		points: fc.integer({ min: 0, max: 20 }),
		topic: fc.constantFrom('', 'Tides', 'Tides / Heights & ranges'),
		difficulty: fc.constantFrom('easy' as const, 'medium' as const, 'hard' as const),
		seconds: fc.integer({ min: 5, max: 10_800 }),
		tags: fc.uniqueArray(fc.constantFrom('chart', 'two words', 'a&b'), { minLength: 1, maxLength: 3 }),
		source: line,
		note: text.filter((one) => one !== ''),
		follows: id,
		practice: fc.record({ tries: fc.integer({ min: 1, max: 10 }), costPercent: fc.nat(100) }),
		hint: text.filter((one) => one !== ''),
		picture: fc.constantFrom('cone', 'a mark & more'),
		media,
		stimulus: fc.constantFrom(...STIMULI),
		feedback: fc.constantFrom({ right: 'Well done.' }, { right: 'Yes.', wrong: 'See $h$ & the table.' }),
		isExtra: fc.constant(true as const),
		calculator: fc.constantFrom('none', 'basic'),
		inOther: fc.dictionary(
			fc.constantFrom('pt', 'ar'),
			fc.record({ stem: text, texts: fc.dictionary(id, text, { minKeys: 1, maxKeys: 2 }) }, { requiredKeys: ['stem'] }),
			{ minKeys: 1 }
		)
	},
	{ requiredKeys: ['id', 'stem', 'points', 'topic'] }
);
const partial = fc.boolean();
const accepted = fc.uniqueArray(fc.constantFrom('six', 'Six & a half', '6,0', 'seis <6>'), { maxLength: 3 });
const kinds: fc.Arbitrary<object> = fc.oneof(
	fc.record({ kind: fc.constant('true_false'), answer: fc.boolean() }),
	choices(1).chain((list) =>
		fc.record({
			kind: fc.constant('single'),
			choices: fc.constant(list),
			answer: fc.constantFrom('', ...list.map((one) => one.id))
		})
	),
	choices(1).chain((list) =>
		fc.record({
			kind: fc.constant('multiple'),
			choices: fc.constant(list),
			answer: fc.subarray(list.map((one) => one.id)),
			partial
		})
	),
	choices(2).chain((list) =>
		fc.record({
			kind: fc.constant('ordering'),
			choices: fc.constant(list),
			answer: fc.shuffledSubarray(
				list.map((one) => one.id),
				{ minLength: list.length }
			),
			partial
		})
	),
	fc.tuple(choices(1), choices(1)).map(([items, matches]) => ({
		kind: 'matching',
		items: items.map(({ id, text }) => ({ id, text })),
		matches: matches.map(({ id, text }) => ({ id, text })),
		answer: Object.fromEntries(items.map((item, i) => [item.id, matches[i % matches.length].id])),
		partial: true
	})),
	fc.record({ kind: fc.constant('upload'), most: fc.integer({ min: 1, max: 10 }) }),
	fc.record({ kind: fc.constant('short'), accepted }),
	fc
		.record({
			kind: fc.constant('numeric'),
			answer: fc.constantFrom(0, 6, -4.8, 1_852, 0.001),
			tolerance: fc.oneof(
				fc.record({ kind: fc.constant('absolute' as const), amount: fc.constantFrom(0, 0.05, 2) }),
				fc.record({ kind: fc.constant('relative' as const), amount: fc.constantFrom(0, 0.01, 0.125) })
			),
			unit: fc.constantFrom('', 'm', 'knots per hour'),
			unsimplified: fc.constantFrom(undefined, 0, 50)
		})
		.map(({ unsimplified, ...one }) => (unsimplified === undefined ? one : { ...one, unsimplified })),
	fc.record({
		kind: fc.constant('calculated'),
		parameters: fc.constant([
			{ name: 'high', from: 4, to: 6, step: 0.1 },
			{ name: 'low', values: [0.5, 1, 1.5] }
		]),
		conditions: fc.constantFrom([], ['high > low & 1'], ['high > low', 'low < 2']),
		formula: fc.constantFrom('high - low', 'sin(high) / low', ''),
		tolerance: fc.constant({ kind: 'absolute' as const, amount: 0.05 }),
		unit: fc.constantFrom('', 'm')
	}),
	fc.record({
		kind: fc.constant('essay'),
		words: fc.option(fc.record({ from: fc.nat(100), to: fc.integer({ min: 101, max: 900 }) }))
	})
);
const gapped = fc
	.tuple(
		shared,
		fc.uniqueArray(fc.stringMatching(/^[A-Za-z0-9]{1,6}$/), { minLength: 1, maxLength: 3 }),
		accepted,
		partial
	)
	.map(([one, names, said, isPartial]) => ({
		...one,
		kind: 'fill_in' as const,
		stem: names.map((name) => `Before [${name}] after`).join('\n'),
		gaps: names.map((name) => ({ id: name, accepted: said })),
		partial: isPartial
	}));
const question = fc.oneof(
	fc.tuple(shared, kinds).map(([one, kind]) => ({ ...one, ...kind }) as Question),
	gapped as fc.Arbitrary<Question>
);
const part: fc.Arbitrary<Part> = fc.oneof(
	fc.record({
		title: fc.constantFrom('', 'Buoyage', 'Tides & currents'),
		draw: fc.option(fc.integer({ min: 0, max: 6 })),
		questions: fc.array(question, { maxLength: 4 })
	}),
	fc.record({
		title: fc.constant('Strata'),
		draw: fc.constant(3),
		strata: fc.constantFrom({ easy: 3 }, { easy: 1, hard: 2 }),
		questions: fc.array(question, { maxLength: 4 })
	})
);
const SVG = '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 10 10"><circle cx="5" cy="5" r="4"/></svg>';
const PICTURES = { cone: { svg: SVG, alt: 'a black cone' }, 'a mark & more': { svg: SVG, alt: '"two" cones' } };
const paper: fc.Arbitrary<Paper> = fc
	.record(
		{
			title: fc.constantFrom('Coastal Navigation I', 'A & B'),
			parts: fc.array(part, { minLength: 1, maxLength: 3 }),
			language: fc.constantFrom('pt', 'cy'),
			script: text.filter((one) => one !== ''),
			formulaSheet: fc.array(line, { minLength: 1, maxLength: 3 }),
			instructions: text.filter((one) => one !== ''),
			practice: fc.record(
				{
					tries: fc.integer({ min: 1, max: 10 }),
					costPercent: fc.nat(100),
					hints: fc.constantFrom('asked' as const, 'after_wrong' as const)
				},
				{ requiredKeys: ['tries', 'costPercent'] }
			),
			card: fc.record({ subject: fc.constant('Navigation & tides'), year: fc.constant('2026') }),
			plan: fc.constant<NonNullable<Paper['plan']>>([{ topic: 'Lights < shapes', difficulty: null, count: 3 }]),
			material: fc.array(fc.record({ name: fc.constantFrom('Tide tables', 'A & B'), pages: media }), {
				minLength: 1,
				maxLength: 2
			}),
			forms: fc.constant<NonNullable<Paper['forms']>>([
				{ name: 'A', questions: ['q1', 'q2'] },
				{ name: 'B', questions: [] }
			])
		},
		{ requiredKeys: ['title', 'parts'] }
	)
	.map((made) => {
		// Ids are once in a paper; pictures are those that questions show.
		const seen = new Set<string>();
		const parts = made.parts.map((one) => ({
			...one,
			questions: one.questions.filter(({ id }) => !seen.has(id) && seen.add(id))
		}));
		const shown = new Set(parts.flatMap(({ questions }) => questions.map(({ picture }) => picture)));
		const pictures = Object.fromEntries(Object.entries(PICTURES).filter(([name]) => shown.has(name)));
		return { ...made, parts, ...(Object.keys(pictures).length > 0 ? { pictures } : {}) };
	});

/** The files that questions show and play are added to a package by whoever has them. */
const isThere = () => true;

describe('a QTI package', () => {
	it('3.0 of any paper of ours comes in as the same', () => {
		fc.assert(
			fc.property(paper, (written) => {
				const read = readPackage(writePackage(written), newId, isThere);
				expect(read).toMatchObject({ ok: true, told: [] });
				if (read.ok && !isSame(read.paper, written)) expect(read.paper).toEqual(written);
			}),
			{ numRuns: runs(120) }
		);
	});

	it('2.1 as well, but for other languages', () => {
		fc.assert(
			fc.property(paper, (written) => {
				const without = {
					...written,
					parts: written.parts.map((one) => ({
						...one,
						questions: one.questions.map(({ inOther: _, ...rest }) => rest as Question)
					}))
				};
				const read = readPackage(writePackage(written, '2.1'), newId, isThere);
				expect(read).toMatchObject({ ok: true, told: [] });
				if (read.ok && !isSame(read.paper, without)) expect(read.paper).toEqual(without);
			}),
			{ numRuns: runs(60) }
		);
	});
});

/** Written by hand from the standard's text (from memory), as other systems write: prefixes, odd white space, 2.1 and 3.0. */
const MANIFEST = (resources: string) => `<?xml version="1.0"?>
<imscp:manifest xmlns:imscp="http://www.imsglobal.org/xsd/imscp_v1p1" identifier="M">
	<imscp:resources>${resources}</imscp:resources>
</imscp:manifest>`;
const ITEM_RESOURCE = (href: string, version = 'v2p1') =>
	`<imscp:resource identifier="${href}" type="imsqti_item_xml${version}" href="${href}"><imscp:file href="${href}"/></imscp:resource>`;
const single = (items: Record<string, string>, version?: string) =>
	readPackage(
		new Map([
			[
				'imsmanifest.xml',
				MANIFEST(
					Object.keys(items)
						.map((href) => ITEM_RESOURCE(href, version))
						.join('\n')
				)
			],
			...Object.entries(items)
		]),
		newId
	);
const only = (xml: string, version?: string) => {
	const read = single({ 'q/one.xml': xml }, version);
	if (!read.ok) throw new Error(read.message);
	return {
		question: read.paper.parts[0].questions[0],
		told: read.told.map(({ message }) => message),
		paper: read.paper
	};
};

describe('a package from elsewhere', () => {
	it('a choice of QTI 2.1, with a prefix and white space, has its prompt, its key and ids of ours', () => {
		const { question, told } = only(`<?xml version="1.0"?>
<q:assessmentItem xmlns:q="http://www.imsglobal.org/xsd/imsqti_v2p1" identifier="choice.1" title="Unattended" adaptive="false" timeDependent="false">
	<q:responseDeclaration identifier="R1" cardinality="single" baseType="identifier">
		<q:correctResponse> <q:value>ChoiceA</q:value> </q:correctResponse>
	</q:responseDeclaration>
	<q:outcomeDeclaration identifier="SCORE" cardinality="single" baseType="float" normalMaximum="3"/>
	<q:itemBody>
		<p>Look at the
		   text below.</p>
		<blockquote><p>NEVER LEAVE <b>LUGGAGE</b> UNATTENDED</p></blockquote>
		<q:choiceInteraction responseIdentifier="R1" shuffle="false" maxChoices="1">
			<q:prompt>What does it say?</q:prompt>
			<q:simpleChoice identifier="ChoiceA">You must stay with your luggage.</q:simpleChoice>
			<q:simpleChoice identifier="ChoiceB" fixed="true">None of these
			</q:simpleChoice>
		</q:choiceInteraction>
	</q:itemBody>
</q:assessmentItem>`);
		expect(question).toMatchObject({
			kind: 'single',
			points: 3,
			stem: 'Look at the text below.\nNEVER LEAVE **LUGGAGE** UNATTENDED\nWhat does it say?',
			choices: [{ text: 'You must stay with your luggage.' }, { text: 'None of these', pinned: true }]
		});
		if (question.kind === 'single') expect(question.answer).toBe(question.choices[0].id);
		expect(question.id).toMatch(/^new\d+$/);
		expect(told).toEqual([]);
	});

	it('of QTI 3.0: several answers with a mapping, matches, an order, a number with a tolerance, a text', () => {
		const item = (body: string, declarations: string, processing = '') =>
			only(
				`<qti-assessment-item xmlns="http://www.imsglobal.org/xsd/imsqtiasi_v3p0" identifier="i" title="t">
${declarations}<qti-item-body>${body}</qti-item-body>${processing}</qti-assessment-item>`,
				'v3p0'
			).question;
		const declared = (cardinality: string, type: string, values: string[], more = '') =>
			`<qti-response-declaration identifier="RESPONSE" cardinality="${cardinality}" base-type="${type}"><qti-correct-response>${values
				.map((value) => `<qti-value>${value}</qti-value>`)
				.join('')}</qti-correct-response>${more}</qti-response-declaration>`;
		const choice = (id: string) => `<qti-simple-choice identifier="${id}">${id}!</qti-simple-choice>`;

		const water = item(
			`<qti-choice-interaction response-identifier="RESPONSE" max-choices="0"><qti-prompt>Which elements form water, H<sub>2</sub>O?</qti-prompt>${['H', 'He', 'O'].map(choice).join('')}</qti-choice-interaction>`,
			declared(
				'multiple',
				'identifier',
				['H', 'O'],
				'<qti-mapping><qti-map-entry map-key="H" mapped-value="1"/></qti-mapping>'
			)
		);
		expect(water).toMatchObject({ kind: 'multiple', partial: true, stem: 'Which elements form water, H~2~O?' });
		if (water.kind === 'multiple') expect(water.answer).toEqual([water.choices[0].id, water.choices[2].id]);

		const order = item(
			`<p>Who won?</p><qti-order-interaction response-identifier="RESPONSE">${['A', 'B'].map(choice).join('')}</qti-order-interaction>`,
			declared('ordered', 'identifier', ['B', 'A'])
		);
		if (order.kind !== 'ordering') throw new Error(order.kind);
		expect(order.answer).toEqual([order.choices[1].id, order.choices[0].id]);

		const match = item(
			`<qti-match-interaction response-identifier="RESPONSE">
				<qti-simple-match-set><qti-simple-associable-choice identifier="C">Capulet</qti-simple-associable-choice></qti-simple-match-set>
				<qti-simple-match-set><qti-simple-associable-choice identifier="R">Romeo and Juliet</qti-simple-associable-choice></qti-simple-match-set>
			</qti-match-interaction>`,
			declared('multiple', 'directedPair', ['C R'])
		);
		if (match.kind !== 'matching') throw new Error(match.kind);
		expect(match.answer).toEqual({ [match.items[0].id]: match.matches[0].id });

		const number = item(
			'<p>How far is it?</p><p><qti-text-entry-interaction response-identifier="RESPONSE"/></p>',
			declared('single', 'float', ['42.5']),
			`<qti-response-processing><qti-response-condition><qti-response-if>
				<qti-equal tolerance-mode="relative" tolerance="5 5"><qti-variable identifier="RESPONSE"/><qti-correct identifier="RESPONSE"/></qti-equal>
			</qti-response-if></qti-response-condition></qti-response-processing>`
		);
		expect(number).toMatchObject({
			kind: 'numeric',
			stem: 'How far is it?',
			answer: 42.5,
			tolerance: { kind: 'relative', amount: 0.05 }
		});

		const gap = item(
			'<p>Now is the winter of our <qti-text-entry-interaction response-identifier="RESPONSE"/>.</p>',
			declared(
				'single',
				'string',
				['discontent'],
				'<qti-mapping><qti-map-entry map-key="discontent" mapped-value="1"/><qti-map-entry map-key="content" mapped-value="0"/></qti-mapping>'
			)
		);
		expect(gap).toMatchObject({
			kind: 'fill_in',
			stem: 'Now is the winter of our [g1].',
			gaps: [{ id: 'g1', accepted: ['discontent'] }]
		});

		const essay = item(
			'<p>Write Sam a postcard.</p><qti-extended-text-interaction response-identifier="RESPONSE" expected-length="200"/>',
			'<qti-response-declaration identifier="RESPONSE" cardinality="single" base-type="string"/>'
		);
		expect(essay).toMatchObject({ kind: 'essay', stem: 'Write Sam a postcard.', words: null });
	});

	it('lists inside a text become gaps, and it is told', () => {
		const { question, told } =
			only(`<assessmentItem xmlns="http://www.imsglobal.org/xsd/imsqti_v2p1" identifier="x" title="x">
<responseDeclaration identifier="A" cardinality="single" baseType="identifier"><correctResponse><value>Y</value></correctResponse></responseDeclaration>
<itemBody><p>Son of <inlineChoiceInteraction responseIdentifier="A"><inlineChoice identifier="G">Gloucester</inlineChoice><inlineChoice identifier="Y">York</inlineChoice></inlineChoiceInteraction>;</p></itemBody></assessmentItem>`);
		expect(question).toMatchObject({ kind: 'fill_in', stem: 'Son of [g1];', gaps: [{ accepted: ['York'] }] });
		expect(told).toEqual(['A list to choose from inside the text came in as a gap to fill in.']);
	});

	it('an interaction without a counterpart comes in as what it is, with its source, and is told', () => {
		const { question, told } = only(`<assessmentItem identifier="x" title="x"><itemBody><p>Where is Edinburgh?</p>
<hotspotInteraction responseIdentifier="R"><hotspotChoice identifier="H1" shape="circle" coords="77,115,8"/></hotspotInteraction></itemBody></assessmentItem>`);
		expect(question).toMatchObject({ kind: 'essay', stem: 'Where is Edinburgh?' });
		expect(question.note).toContain('hotspotchoice');
		expect(told[0]).toContain('hotspot interaction');
	});

	it('a section that selects becomes a pool, metadata come along, and what is missing is named by its file', () => {
		const item = (title: string) =>
			`<assessmentItem identifier="${title}" title="${title}"><itemBody><p>${title}?</p><extendedTextInteraction responseIdentifier="R"/></itemBody></assessmentItem>`;
		const read = readPackage(
			new Map([
				[
					'in/imsmanifest.xml',
					MANIFEST(
						`<imscp:resource identifier="t" type="imsqti_test_xmlv2p1" href="tests/t.xml"/>
${ITEM_RESOURCE('items/a.xml').replace('><', `><imscp:metadata><lom xmlns="http://ltsc.ieee.org/xsd/LOM"><educational><difficulty><value>very difficult</value></difficulty><typicalLearningTime><duration>PT1M30S</duration></typicalLearningTime></educational></lom></imscp:metadata><`)}
${ITEM_RESOURCE('items/gone.xml')}${ITEM_RESOURCE('items/alone.xml')}`
					)
				],
				[
					'in/tests/t.xml',
					`<assessmentTest identifier="t" title="Winter" xml:lang="cy"><testPart identifier="p"><assessmentSection identifier="s" title="Pool" visible="true">
<selection select="1"/><assessmentItemRef identifier="a" href="../items/a.xml"/><assessmentItemRef identifier="g" href="../items/gone.xml"/>
</assessmentSection></testPart></assessmentTest>`
				],
				['in/items/a.xml', item('a')],
				['in/items/alone.xml', item('alone')]
			]),
			newId
		);
		expect(read).toMatchObject({
			ok: true,
			paper: {
				title: 'Winter',
				language: 'cy',
				parts: [{ title: 'Pool', draw: 1, questions: [{ stem: 'a?', difficulty: 'hard', seconds: 90 }] }]
			},
			told: [{ where: 'in/items/gone.xml' }, { where: 'in/items/alone.xml' }]
		});
	});

	it('what its test rules that sessions rule here is told; instructions and times for a question come along', () => {
		const read = readPackage(
			new Map([
				[
					'imsmanifest.xml',
					MANIFEST(`<imscp:resource identifier="t" type="imsqti_test_xmlv2p1" href="t.xml"/>${ITEM_RESOURCE('a.xml')}`)
				],
				[
					't.xml',
					`<assessmentTest identifier="t" title="Winter"><timeLimits maxTime="3600"/>
<testPart identifier="p"><itemSessionControl maxAttempts="3"/><assessmentSection identifier="s" title="S" visible="true"><timeLimits maxTime="600"/>
<rubricBlock view="candidate"><p>Read every question twice.</p></rubricBlock>
<assessmentItemRef identifier="a" href="a.xml"><branchRule target="x"/><timeLimits maxTime="75"/><weight identifier="W" value="2"/></assessmentItemRef>
</assessmentSection></testPart></assessmentTest>`
				],
				[
					'a.xml',
					'<assessmentItem identifier="a" title="a"><itemBody><p>Why?</p><extendedTextInteraction responseIdentifier="R"/></itemBody></assessmentItem>'
				]
			]),
			newId
		);
		if (!read.ok) throw new Error(read.message);
		expect(read.paper).toMatchObject({
			instructions: 'Read every question twice.',
			parts: [{ questions: [{ seconds: 75 }] }]
		});
		const messages = read.told.map(({ where, message }) => `${where}: ${message}`).join('\n');
		for (const told of ['60 minutes', 'single sections', '3 tries', 'depends on answers', 'Weights'])
			expect(messages).toContain(told);
		expect(read.told).toHaveLength(5);
	});
});

describe('a package that was made to harm', () => {
	const body = (inside: string) =>
		`<assessmentItem identifier="x" title="x"><itemBody>${inside}<extendedTextInteraction responseIdentifier="R"/></itemBody></assessmentItem>`;
	const BOMB = `<!DOCTYPE x [<!ENTITY a "aaaaaaaaaa"><!ENTITY b "&a;&a;&a;&a;&a;&a;">]>${body('<p>&b;</p>')}`;

	it.each([
		['entities', BOMB, 'it declares a document type or entities'],
		['no XML', '<assessmentItem><p>', 'not well-formed'],
		['something else', '<html><body/></html>', 'it is not an assessment item'],
		['deep nesting', body('<div>'.repeat(500) + '</div>'.repeat(500)), '(nested too deep|cannot be read)']
	])('%s: the item is left out and named', (_, xml, message) => {
		const read = single({ 'bad.xml': xml, 'good.xml': body('<p>Fine?</p>') });
		expect(read).toMatchObject({ ok: true, paper: { parts: [{ questions: [{ stem: 'Fine?' }] }] } });
		if (read.ok)
			expect(read.told.map((one) => `${one.where} ${one.message}`).join()).toMatch(new RegExp(`bad.xml.*${message}`));
	});

	it('scripts, styles and forms in a text are left out and told; markup never reaches a stem', () => {
		const { question, told } = only(
			body(
				'<p onclick="steal()">Safe<script>alert(1)</script> &amp; <a href="javascript:x">sound</a> &lt;b&gt;</p><iframe src="x"/>'
			)
		);
		expect(question.stem).toBe('Safe & sound <b>');
		expect(told.join()).toMatch(/<script>.*<iframe>|<iframe>.*<script>/);
	});

	it.each([
		['a script', '<svg xmlns="http://www.w3.org/2000/svg"><script>x</script></svg>'],
		['a handler', '<svg xmlns="http://www.w3.org/2000/svg" onload="x()"/>'],
		['a fetch', '<svg xmlns="http://www.w3.org/2000/svg"><image href="https://elsewhere.example/x.png"/></svg>'],
		['a style that fetches', '<svg xmlns="http://www.w3.org/2000/svg"><style>@import url(x)</style></svg>']
	])('a drawing with %s is left out, its words stay', (_, svg) => {
		const read = readPackage(
			new Map([
				['imsmanifest.xml', MANIFEST(ITEM_RESOURCE('q.xml'))],
				['q.xml', body('<p>Which mark?</p><img src="m.svg" alt="two cones"/>')],
				['m.svg', svg]
			]),
			newId
		);
		expect(read).toMatchObject({ ok: true, told: [{ where: 'q.xml' }] });
		if (!read.ok) return;
		expect(read.paper.pictures).toBeUndefined();
		expect(read.paper.parts[0].questions[0]).toMatchObject({ stem: 'Which mark?\n(two cones)' });
	});

	it('no manifest, or one that cannot be read: refused in words', () => {
		expect(readPackage(new Map([['x.xml', '<x/>']]), newId)).toMatchObject({ ok: false });
		expect(readPackage(new Map([['imsmanifest.xml', '<x']]), newId)).toMatchObject({ ok: false });
	});

	it('names that objects have by themselves are names like any other', () => {
		const languages = JSON.parse('{"__proto__": {"stem": "x"}, "constructor": {"stem": "y"}}');
		const question = {
			id: 'a',
			kind: 'essay',
			stem: 'z',
			points: 1,
			topic: '',
			words: null,
			inOther: languages
		} as Question;
		const read = readPackage(
			writePackage({ title: 'x', parts: [{ title: '', draw: null, questions: [question] }] }),
			newId
		);
		expect(({} as { stem?: string }).stem).toBeUndefined();
		expect(read.ok && Object.entries(read.paper.parts[0].questions[0].inOther!)).toEqual(Object.entries(languages));
	});

	it('paths that lead outside lead nowhere', () => {
		const read = single({ '../../etc/one.xml': body('<p>x</p>') });
		expect(read).toMatchObject({ ok: true, paper: { parts: [{ questions: [] }] } });
	});
});
