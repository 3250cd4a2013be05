import { readFileSync } from 'node:fs';
import katex from 'katex';
import { expect, it } from 'vitest';
import { decodeXml, readArchive } from '../formats';
import type { Question } from '../paper';
import { readPackage } from '.';
import { texOfMathMl } from './math-ml';
import { readXml } from './xml';

// Packages written by hand from the standard (QTI 2.1), not by Otium; how they were made stands beside them.
function read(name: string) {
	const bytes = readFileSync(new URL(`../../lib/server/testing/strangers/${name}`, import.meta.url));
	const archive = readArchive(new Uint8Array(bytes), undefined, true);
	if (!archive.ok) throw new Error(archive.message);
	const texts = [...archive.files].filter(([path]) => path.endsWith('.xml'));
	let made = 0;
	const files = new Map(texts.map(([path, content]) => [path, decodeXml(content)]));
	const found = readPackage(
		files,
		() => `n${++made}`,
		(path) => archive.files.has(path)
	);
	if (!found.ok) throw new Error(found.message);
	const told = (where: string) => found.told.filter((one) => one.where === where).map(({ message }) => message);
	return { questions: found.paper.parts.flatMap((part) => part.questions), told };
}
const asked = (questions: Question[], stem: string) => questions.find((one) => one.stem.startsWith(stem))!;

it('a number that is asked for in a sentence is a number, with its tolerance, its unit and its points', () => {
	const { questions } = read('items21.zip');
	expect(asked(questions, 'g =')).toMatchObject({
		kind: 'numeric',
		answer: 9.81,
		tolerance: { kind: 'absolute', amount: 0.05 },
		unit: 'm/s2',
		points: 3
	});
	expect(asked(questions, 'c =')).toMatchObject({ kind: 'numeric', tolerance: { kind: 'relative', amount: 0.01 } });
});

it('points come from the mapping, and what is worth different points is told; so is a key that the processing contradicts', () => {
	const { questions, told } = read('items21.zip');
	expect(asked(questions, 'Pick the primes').points).toBe(3);
	expect(told('multi_map.xml')[0]).toContain('different points (1, 2, -2)');
	expect(told('textentry.xml')[0]).toContain('different points (1, 0.5)');
	expect(told('custom_rp.xml')).toEqual(['Its processing gives 5 points to B, and its key says A: compare them.']);
	expect(told('composite.xml')[0]).toMatch(/^It has a row of interactions/);
});

it('formulas in MathML are formulas', () => {
	const { questions, told } = read('items21.zip');
	expect(asked(questions, 'Solve')).toMatchObject({
		stem: 'Solve $x^{2}=4$.',
		choices: [{ text: '$\\frac{1}{2}$' }, { text: '2' }]
	});
	expect(told('mathml.xml')).toEqual([]);
});

it('an item in another encoding has its letters, and a name that is a URI its file', () => {
	expect(JSON.stringify(read('latin1.zip').questions)).toContain('Zoë Müller');
	expect(read('encoded_href.zip').questions).toHaveLength(1);
});

// The meaning of each element: W3C, MathML Core. That what comes out is TeX is for KaTeX to say.
it.each([
	['<mroot><mn>8</mn><mn>3</mn></mroot>', '\\sqrt[3]{8}'],
	['<msubsup><mi>x</mi><mn>1</mn><mn>2</mn></msubsup>', 'x_{1}^{2}'],
	[
		'<munderover><mo>∑</mo><mrow><mi>k</mi><mo>=</mo><mn>1</mn></mrow><mi>n</mi></munderover><mi>k</mi>',
		'\\sum_{k=1}^{n}k'
	],
	['<mi>sin</mi><mi>θ</mi>', '\\sin θ'],
	['<mover><mi>v</mi><mo>→</mo></mover>', '\\vec{v}'],
	['<mfenced><mi>a</mi><mi>b</mi></mfenced>', '\\left(a,b\\right)'],
	['<mtable><mtr><mtd><mn>1</mn></mtd><mtd><mn>0</mn></mtd></mtr></mtable>', '\\begin{matrix}1 & 0\\end{matrix}'],
	['<mtext>if</mtext><msup><mrow><mo>(</mo><mi>a</mi><mo>)</mo></mrow><mn>2</mn></msup>', '\\text{if}{(a)}^{2}']
])('%s', (xml, tex) => {
	const document = readXml(`<math>${xml}</math>`);
	const made = document.ok ? texOfMathMl(document.root) : null;
	expect(made).toBe(tex);
	expect(() => katex.renderToString(made!, { throwOnError: true, strict: false })).not.toThrow();
});

it('what MathML has no counterpart for is not guessed', () => {
	const document = readXml('<math><mlongdiv><mn>1</mn></mlongdiv></math>');
	expect(document.ok && texOfMathMl(document.root)).toBeNull();
});
