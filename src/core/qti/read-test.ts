import { DIFFICULTIES, type Paper, type Part, type Question, sumOfStrata } from '../paper';
import { readBody } from './body-text';
import { AUTHORS_BLOCKS } from './write-package';
import { below, child, childrenOf, hasClass, readXml, textIn, type XmlNode } from './xml';
import type { Told } from './read-package';

/** How many of each difficulty make up what is dealt, as Otium writes it; what does not add up to it is none. */
export function strataOf(section: XmlNode, select: number): Pick<Part, 'strata'> {
	const block = childrenOf(section, 'rubricblock').find((one) => hasClass(one, 'strata'));
	const strata = block && (jsonIn(block) as Part['strata']);
	const isOne = Object.keys(strata ?? {}).every((key) => (DIFFICULTIES as readonly string[]).includes(key));
	return strata && isOne && sumOfStrata(strata) === select ? { strata } : {};
}

/** What Otium keeps in a block for authors; undefined: it is not of Otium's making. */
function jsonIn(block: XmlNode): unknown {
	try {
		return JSON.parse(textIn(block));
	} catch {
		return undefined;
	}
}

/** A question with the limit that its test sets for it, as the time that it is expected to take. */
export function timed(question: Question | null, ref: XmlNode): Question | null {
	const seconds = Math.round(Number(child(ref, 'timelimits')?.attributes.maxtime ?? NaN));
	return question && seconds >= 1 && seconds <= 7_200 ? { ...question, seconds } : question;
}

/** What a test rules that sessions rule here, in sentences: limits, tries, order by answers, weights. */
export function leftToSessions(test: XmlNode, where: string): Told[] {
	const all = [test, ...allBelow(test)];
	const isOurs = test.attributes.toolname === 'Otium';
	const has = (name: string) => all.some((node) => node.name === name);
	const of = (node: XmlNode) => Number(child(node, 'timelimits')?.attributes.maxtime ?? NaN);
	const wholes = all.filter(({ name }) => ['assessmenttest', 'testpart'].includes(name)).map(of);
	const limit = Math.max(...wholes.filter((seconds) => seconds > 0));
	const inSections = all.some((node) => node.name === 'assessmentsection' && of(node) > 0);
	const tries = Math.max(
		...all.filter(({ name }) => name === 'itemsessioncontrol').map((node) => Number(node.attributes.maxattempts ?? 1))
	);
	return [
		limit > 0 && `Its limit of ${Math.ceil(limit / 60)} minutes was not taken over: a session sets it.`,
		inSections &&
			'Limits for single sections were not taken over: a session has one limit, or a time for each question.',
		!isOurs && tries > 1 && `It allows ${tries} tries for a question: here only papers for practice do.`,
		(has('precondition') || has('branchrule')) &&
			'Which question comes next depends on answers in it; here everybody gets all that they are dealt.',
		has('weight') && 'Weights of its questions were not taken over: look at their points.'
	]
		.filter((message) => typeof message === 'string')
		.map((message) => ({ where, message }));
}

/** The test of a package, where it has one. */
export function testIn(files: ReadonlyMap<string, string>, path: string) {
	const xml = files.get(path);
	if (xml === undefined) return { ok: false, message: 'it is not in the package' } as const;
	const read = readXml(xml);
	return read.ok && read.root.name !== 'assessmenttest'
		? ({ ok: false, message: 'it is not an assessment test of QTI' } as const)
		: read;
}

/** Whether a section is inside another one. */
export function isInside(root: XmlNode, section: XmlNode): boolean {
	return below(root, 'assessmentsection').some(
		(other) => other !== section && below(other, section.name).includes(section)
	);
}

/** What the test says beside its questions: the proctor's script, formulas, instructions, and what authors alone know. */
export function aboutOf(test: XmlNode, paper: Paper): void {
	const instructions: string[] = [];
	for (const block of below(test, 'rubricblock')) {
		const classes = (block.attributes.class ?? '').split(/\s+/);
		if (/\bproctor\b/.test(block.attributes.view ?? '')) paper.script = readBody(block.children).text;
		else if (classes.includes('formula-sheet'))
			paper.formulaSheet = childrenOf(child(block, 'ul'), 'li').map((line) => readBody(line.children).text);
		else if (/\bcandidate\b/.test(block.attributes.view ?? '') && !classes.includes('material'))
			instructions.push(readBody(block.children).text);
		else for (const name of AUTHORS_BLOCKS) if (classes.includes(name)) Object.assign(paper, { [name]: jsonIn(block) });
	}
	if (instructions.length > 0) paper.instructions = instructions.join('\n\n');
}

/** Every element below this one, in the order of the document. */
export function allBelow(node: XmlNode): XmlNode[] {
	return node.children.flatMap((one) => (typeof one === 'string' ? [] : [one, ...allBelow(one)]));
}
