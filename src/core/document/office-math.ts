import { groupedTex, signsAsTex, wordsAsTex } from '../tex';
import { below, child, childrenOf, valueOf, type Element } from './xml';

/** A formula as TeX, and whether all of it could be told. */
export type Tex = { tex: string; isWhole: boolean };

const NARY: Record<string, string> = {
	'∑': '\\sum',
	'∏': '\\prod',
	'∐': '\\coprod',
	'∫': '\\int',
	'∬': '\\iint',
	'∭': '\\iiint',
	'∮': '\\oint',
	'⋃': '\\bigcup',
	'⋂': '\\bigcap'
};
const ACCENTS: Record<string, string> = {
	'\u0300': '\\grave',
	'\u0301': '\\acute',
	'\u0302': '\\hat',
	'\u0303': '\\tilde',
	'\u0304': '\\bar',
	'\u0305': '\\overline',
	'\u0307': '\\dot',
	'\u0308': '\\ddot',
	'\u030c': '\\check',
	'\u20d6': '\\overleftarrow',
	'\u20d7': '\\vec',
	'^': '\\hat',
	'~': '\\tilde',
	'¯': '\\bar',
	'→': '\\vec'
};
const FENCES: Record<string, string> = {
	'{': '\\{',
	'}': '\\}',
	'⟨': '\\langle ',
	'⟩': '\\rangle ',
	'‖': '\\|',
	'⌊': '\\lfloor ',
	'⌋': '\\rfloor ',
	'⌈': '\\lceil ',
	'⌉': '\\rceil ',
	'': '.'
};

/**
 * A formula of a word processor (Office Math Markup, ECMA-376 part 1, 22.1) as TeX.
 * @param formula `m:oMath` or `m:oMathPara`
 */
export function texOfOfficeMath(formula: Element): Tex {
	const whole = { isWhole: true };
	const tex = all(formula.children, whole).replace(/\s+/g, ' ').trim();
	return { tex, isWhole: whole.isWhole };
}

type Whole = { isWhole: boolean };

function all(elements: Element[], whole: Whole): string {
	return elements.map((one) => piece(one, whole)).join('');
}

/** What stands in an element's child, as one. */
function of(element: Element, name: string, whole: Whole): string {
	return all(child(element, name)?.children ?? [], whole).trim();
}

function piece(element: Element, whole: Whole): string {
	const { name } = element;
	const e = () => of(element, 'm:e', whole);
	const properties = child(element, `${name}Pr`);
	switch (name) {
		case '':
			return '';
		case 'm:r':
			return run(element);
		case 'm:f': {
			const [num, den] = [of(element, 'm:num', whole), of(element, 'm:den', whole)];
			const type = valueOf(properties, 'm:type');
			if (type === 'lin' || type === 'skw') return `{${num}}/{${den}}`;
			return type === 'noBar' ? `{${num} \\atop ${den}}` : `\\frac{${num}}{${den}}`;
		}
		case 'm:rad': {
			const degree = of(element, 'm:deg', whole);
			return degree === '' ? `\\sqrt{${e()}}` : `\\sqrt[${degree}]{${e()}}`;
		}
		case 'm:sSup':
			return `${groupedTex(e())}^{${of(element, 'm:sup', whole)}}`;
		case 'm:sSub':
			return `${groupedTex(e())}_{${of(element, 'm:sub', whole)}}`;
		case 'm:sSubSup':
			return `${groupedTex(e())}_{${of(element, 'm:sub', whole)}}^{${of(element, 'm:sup', whole)}}`;
		case 'm:sPre':
			return `{}_{${of(element, 'm:sub', whole)}}^{${of(element, 'm:sup', whole)}}${groupedTex(e())}`;
		case 'm:nary': {
			const sign = valueOf(properties, 'm:chr') || '∫';
			const [sub, sup] = [of(element, 'm:sub', whole), of(element, 'm:sup', whole)];
			const limits = `${sub === '' ? '' : `_{${sub}}`}${sup === '' ? '' : `^{${sup}}`}`;
			return `${NARY[sign] ?? sign}${limits} ${e()} `;
		}
		case 'm:d': {
			const sign = (which: string, usual: string) => {
				const given = valueOf(properties, which) ?? usual;
				return FENCES[given] ?? given;
			};
			const inside = childrenOf(element, 'm:e').map((one) => all(one.children, whole).trim());
			const between = valueOf(properties, 'm:sepChr') ?? '|';
			return `\\left${sign('m:begChr', '(')}${inside.join(` ${between === '|' ? '\\mid' : between} `)}\\right${sign('m:endChr', ')')}`;
		}
		case 'm:func': {
			const named = of(element, 'm:fName', whole);
			return `${named} ${e()} `;
		}
		case 'm:limLow':
			return `${operator(e())}_{${of(element, 'm:lim', whole)}}`;
		case 'm:limUpp':
			return `${operator(e())}^{${of(element, 'm:lim', whole)}}`;
		case 'm:acc': {
			const accent = ACCENTS[valueOf(properties, 'm:chr') ?? '\u0302'];
			if (!accent) whole.isWhole = false;
			return accent ? `${accent}{${e()}}` : e();
		}
		case 'm:bar':
			return `${valueOf(properties, 'm:pos') === 'top' ? '\\overline' : '\\underline'}{${e()}}`;
		case 'm:groupChr':
			return `${valueOf(properties, 'm:pos') === 'top' ? '\\overbrace' : '\\underbrace'}{${e()}}`;
		case 'm:m': {
			const rows = childrenOf(element, 'm:mr').map((row) =>
				childrenOf(row, 'm:e')
					.map((cell) => all(cell.children, whole).trim())
					.join(' & ')
			);
			return `\\begin{matrix}${rows.join(' \\\\ ')}\\end{matrix}`;
		}
		case 'm:eqArr': {
			const rows = childrenOf(element, 'm:e').map((row) => all(row.children, whole).trim());
			return `\\begin{aligned}${rows.join(' \\\\ ')}\\end{aligned}`;
		}
		case 'm:borderBox':
			return `\\boxed{${e()}}`;
		case 'm:oMath':
		case 'm:oMathPara':
		case 'm:box':
		case 'm:e':
		case 'm:phant':
			return all(element.children, whole);
		default:
			// Properties say how it looks; what else is not known is told, with the letters that are in it.
			if (/Pr$/.test(name) || !name.startsWith('m:')) return '';
			whole.isWhole = false;
			return below(element.children, 'm:r').map(run).join('');
	}
}

function run(element: Element): string {
	const text = childrenOf(element, 'm:t')
		.flatMap((one) => one.children)
		.map((one) => one.text)
		.join('');
	const style = child(element, 'm:rPr');
	if (child(style, 'm:nor')) return wordsAsTex(text);
	// Letters that Unicode has in mathematical italics are letters.
	const plain = text.normalize('NFKC') === text ? text : [...text].map((sign) => letter(sign)).join('');
	const tex = signsAsTex(plain);
	const isUpright = valueOf(style, 'm:sty') === 'p' && tex === plain && /^[A-Za-z]{2,}$/.test(plain);
	return isUpright ? `\\mathrm{${plain}}` : tex;
}

/** 𝑥 as x; ½ and ² stay what they are. */
function letter(sign: string): string {
	const point = sign.codePointAt(0)!;
	return (point >= 0x1d400 && point <= 0x1d7ff) || sign === 'ℎ' ? sign.normalize('NFKC') : sign;
}

/** What has limits below or above. */
function operator(tex: string): string {
	return /^\\[a-z]+ ?$/.test(tex) ? tex.trim() : `\\mathop{${tex}}`;
}
