import katex from 'katex';
import { describe, expect, it } from 'vitest';
import { texOfOfficeMath } from './office-math';
import { elementsOf } from './xml';

// Element names and their meaning: ECMA-376 part 1, 22.1 (from memory). That what comes out is TeX is for KaTeX to say.
const tex = (xml: string) => texOfOfficeMath(elementsOf(`<m:oMath>${xml}</m:oMath>`)[0]);
const r = (text: string, look = '') => `<m:r>${look}<m:t xml:space="preserve">${text}</m:t></m:r>`;
const e = (xml: string, name = 'e') => `<m:${name}>${xml}</m:${name}>`;

/** The formula for roots, as the gallery of a word processor puts it in. */
const ROOTS = `${r('𝑥=')}<m:f>${e(
	`${r('−𝑏±')}<m:rad><m:radPr><m:degHide m:val="1"/></m:radPr><m:deg/>${e(
		`<m:sSup>${e(r('𝑏'))}${e(r('2'), 'sup')}</m:sSup>${r('−4𝑎𝑐')}`
	)}</m:rad>`,
	'num'
)}${e(r('2𝑎'), 'den')}</m:f>`;

const FORMULAS: [string, string, string][] = [
	['the roots of a quadratic', ROOTS, 'x=\\frac{-b\\pm \\sqrt{b^{2}-4ac}}{2a}'],
	['a power', `<m:sSup>${e(r('10'))}${e(r('3'), 'sup')}</m:sSup>`, '{10}^{3}'],
	['an index and a power', `<m:sSubSup>${e(r('x'))}${e(r('1'), 'sub')}${e(r('2'), 'sup')}</m:sSubSup>`, 'x_{1}^{2}'],
	[
		'a sum with its limits',
		`<m:nary><m:naryPr><m:chr m:val="∑"/></m:naryPr>${e(r('k=1'), 'sub')}${e(r('n'), 'sup')}${e(r('k'))}</m:nary>`,
		'\\sum_{k=1}^{n} k'
	],
	['a root of the third degree', `<m:rad>${e(r('3'), 'deg')}${e(r('8'))}</m:rad>`, '\\sqrt[3]{8}'],
	[
		'brackets that grow',
		`<m:d><m:dPr><m:begChr m:val="["/><m:endChr m:val="]"/></m:dPr>${e(r('a+b'))}</m:d>`,
		'\\left[a+b\\right]'
	],
	[
		'a function',
		`<m:func>${e(r('sin', '<m:rPr><m:sty m:val="p"/></m:rPr>'), 'fName')}${e(r('θ'))}</m:func>`,
		'\\sin θ'
	],
	['a vector', `<m:acc><m:accPr><m:chr m:val="\u20d7"/></m:accPr>${e(r('v'))}</m:acc>`, '\\vec{v}'],
	[
		'a matrix',
		`<m:m>${['1', '0'].map((a) => e(e(r(a)) + e(r('x')), 'mr')).join('')}</m:m>`,
		'\\begin{matrix}1 & x \\\\ 0 & x\\end{matrix}'
	],
	['signs that TeX reads otherwise', r('50% of {a_1} &amp; $2'), '50\\% of \\{a\\_1\\} \\& \\$2'],
	['words in it', r('if x', '<m:rPr><m:nor/></m:rPr>'), '\\text{if x}'],
	['a limit below', `<m:limLow>${e(r('lim'))}${e(r('n→∞'), 'lim')}</m:limLow>`, '\\lim_{n\\to \\infty}']
];

describe('a formula of a word processor', () => {
	it.each(FORMULAS)('%s', (_, xml, expected) => {
		const read = tex(xml);
		expect(read).toEqual({ tex: expected, isWhole: true });
		expect(() => katex.renderToString(read.tex, { throwOnError: true, strict: false })).not.toThrow();
	});

	it('what is not known keeps its letters, and is told', () => {
		expect(tex(`<m:strange>${e(r('a+b'))}</m:strange>${r('=c')}`)).toEqual({ tex: 'a+b=c', isWhole: false });
	});
});
