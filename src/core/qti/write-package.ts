import { materialPages, mediaBeside, questionsOf, type Paper, type Part, type Question } from '../paper';
import { writeText } from './body-text';
import { QTI_2, QTI_3, type Dialect } from './dialect';
import { identifierOf } from './identifier';
import { lomOf } from './metadata';
import { mediumFile, mediumOf, stimulusFile, writeStimulus } from './shared-text';
import { writeItem } from './write-item';
import { element, writeXml, type XmlNode } from './xml';

/**
 * A paper as the files of a QTI package, by their paths: a manifest, a test with a section for each part, an item for each
 * question, shared texts, pictures. The files that questions show and play are added by whoever has them, at `mediumFile`.
 * QTI 2.1 has no place for other languages; they are left out of it.
 */
export function writePackage(paper: Paper, version: '3.0' | '2.1' = '3.0'): Map<string, string> {
	const to = version === '3.0' ? QTI_3 : QTI_2;
	const questions = questionsOf(paper);
	return new Map([
		['imsmanifest.xml', manifest(paper, questions, to, true)],
		['test.xml', testOf(paper, to)],
		...itemFiles(paper, questions, to)
	]);
}

/** Questions that are in no paper as the files of a QTI 3.0 package: without a test. */
export function writeBank(questions: Question[]): Map<string, string> {
	const bank: Paper = { title: '', parts: [{ title: '', draw: null, questions }] };
	return new Map([['imsmanifest.xml', manifest(bank, questions, QTI_3, false)], ...itemFiles(bank, questions, QTI_3)]);
}

/** Items, the texts that they share, and the drawings of their paper. */
function itemFiles(paper: Paper, questions: Question[], to: Dialect): Map<string, string> {
	const files = new Map<string, string>();
	for (const question of questions) files.set(itemFile(question), writeItem(question, paper, to));
	if (to.version === '3.0')
		for (const { stimulus } of questions)
			if (stimulus) files.set(stimulusFile(stimulus.id), writeStimulus(stimulus, paper, to));
	for (const [name, { svg }] of Object.entries(paper.pictures ?? {})) files.set(picturePath(name), svg);
	return files;
}

const itemFile = ({ id }: Question) => `items/${identifierOf(id)}.xml`;
const picturePath = (name: string) => `pictures/${encodeURIComponent(name)}.svg`;

function testOf(paper: Paper, to: Dialect): string {
	const { el } = to;
	const root = el('assessmentTest', { identifier: 'TEST', title: paper.title, toolName: 'Otium' }, [
		el('outcomeDeclaration', { identifier: 'SCORE', cardinality: 'single', baseType: 'float' }),
		el('testPart', { identifier: 'PART', navigationMode: 'nonlinear', submissionMode: 'simultaneous' }, [
			...(paper.practice ? [el('itemSessionControl', { maxAttempts: paper.practice.tries })] : []),
			...paper.parts.map((part, i) => section(part, i, i === 0 ? paper : null, to))
		]),
		el('outcomeProcessing', {}, [
			el('setOutcomeValue', { identifier: 'SCORE' }, [
				el('sum', {}, [el('testVariables', { variableIdentifier: 'SCORE' })])
			])
		])
	]);
	root.attributes = { xmlns: to.namespace, 'xml:lang': paper.language ?? 'en', ...root.attributes };
	return writeXml(root);
}

/** What of a paper QTI has no element for. It is kept in a block for authors, as its own. */
export const AUTHORS_BLOCKS = ['card', 'plan', 'practice', 'forms'] as const;

/** A part; the first also has what is said of the whole paper, for which a test has no place of its own. */
function section(part: Part, index: number, paper: Paper | null, { el }: Dialect): XmlNode {
	const formulas = (paper?.formulaSheet ?? []).map((line) => element('li', {}, writeText(line)));
	return el(
		'assessmentSection',
		{ identifier: `SECTION-${index + 1}`, title: part.title, visible: part.title === '' ? 'false' : 'true' },
		[
			...(part.draw === null ? [] : [el('selection', { select: part.draw })]),
			...(part.strata === undefined
				? []
				: [el('rubricBlock', { view: 'author', class: 'strata' }, writeText(JSON.stringify(part.strata)))]),
			...(paper?.script === undefined
				? []
				: [el('rubricBlock', { view: 'proctor', class: 'script' }, writeText(paper.script))]),
			...(paper?.formulaSheet === undefined
				? []
				: [el('rubricBlock', { view: 'candidate', class: 'formula-sheet' }, [element('ul', {}, formulas)])]),
			...(paper?.instructions === undefined
				? []
				: [el('rubricBlock', { view: 'candidate', class: 'instructions' }, writeText(paper.instructions))]),
			...(paper?.material ?? []).map(({ name, pages }) =>
				el('rubricBlock', { view: 'candidate', class: 'material' }, [
					element('h2', { 'xml:space': 'preserve' }, [name]),
					...pages.map((page) => mediumOf(page, ''))
				])
			),
			...AUTHORS_BLOCKS.filter((name) => paper?.[name] !== undefined).map((name) =>
				el('rubricBlock', { view: 'author', class: name }, writeText(JSON.stringify(paper![name])))
			),
			...part.questions.map((question) =>
				el('assessmentItemRef', { identifier: identifierOf(question.id), href: itemFile(question) })
			)
		]
	);
}

function manifest(paper: Paper, questions: Question[], to: Dialect, hasTest: boolean): string {
	const pictures = Object.keys(paper.pictures ?? {});
	const used = (question: Question) => [
		...(question.picture !== undefined && pictures.includes(question.picture)
			? [file(picturePath(question.picture))]
			: []),
		...mediaBeside(question).map((medium) => file(mediumFile(medium))),
		...(to.version === '3.0' && question.stimulus ? [file(stimulusFile(question.stimulus.id))] : [])
	];
	const root = element('manifest', { xmlns: to.packageNamespace, identifier: 'PACKAGE' }, [
		element('metadata', {}, [
			element('schema', {}, [to.version === '3.0' ? 'QTI Package' : 'QTIv2.1 Package']),
			element('schemaversion', {}, [to.schemaVersion])
		]),
		element('organizations'),
		element('resources', {}, [
			...(hasTest ? [testResource(paper, questions, to)] : []),
			...questions.map((question) =>
				element(
					'resource',
					{ identifier: `RES-${identifierOf(question.id)}`, type: to.itemType, href: itemFile(question) },
					[element('metadata', {}, [lomOf(question)]), file(itemFile(question)), ...used(question)]
				)
			)
		])
	]);
	return writeXml(root);
}

const file = (href: string) => element('file', { href });

/** The test with what belongs to all of the paper: its items, material, and drawings that no question names. */
function testResource(paper: Paper, questions: Question[], to: Dialect): XmlNode {
	const pictures = Object.keys(paper.pictures ?? {});
	return element('resource', { identifier: 'RES-TEST', type: to.testType, href: 'test.xml' }, [
		file('test.xml'),
		...questions.map(({ id }) => element('dependency', { identifierref: `RES-${identifierOf(id)}` })),
		...materialPages(paper).map((page) => file(mediumFile(page))),
		...pictures
			.filter((name) => !questions.some(({ picture }) => picture === name))
			.map((name) => file(picturePath(name)))
	]);
}
