import { groupedTex, signsAsTex, wordsAsTex } from '../tex';
import { textIn, type XmlNode } from './xml';

/** Marks above and below, as MathML writes them. */
const OVER: Record<string, string> = {
	'^': '\\hat',
	'¯': '\\bar',
	'‾': '\\overline',
	'→': '\\vec',
	'~': '\\tilde',
	'.': '\\dot',
	'˙': '\\dot',
	'¨': '\\ddot'
};
/**
 * A formula in presentation MathML (W3C, MathML Core) as TeX.
 * @returns null: it holds something that has no counterpart here
 */
export function texOfMathMl(math: XmlNode): string | null {
	const told = { isWhole: true };
	const tex = all(math, told).replace(/\s+/g, ' ').trim();
	return told.isWhole ? tex : null;
}

type Told = { isWhole: boolean };
const elements = (node: XmlNode): XmlNode[] => node.children.filter((one): one is XmlNode => typeof one !== 'string');

function all(node: XmlNode, told: Told): string {
	return elements(node)
		.map((one) => piece(one, told))
		.join('');
}

function piece(node: XmlNode, told: Told): string {
	const parts = () => elements(node).map((one) => piece(one, told).trim());
	switch (node.name) {
		case 'mi':
		case 'mn':
		case 'mo':
			return token(textIn(node).trim(), node.name);
		case 'mtext':
		case 'ms':
			return wordsAsTex(textIn(node));
		case 'mspace':
			return ' ';
		case 'mfrac': {
			const [over, under] = parts();
			return `\\frac{${over}}{${under}}`;
		}
		case 'msqrt':
			return `\\sqrt{${all(node, told).trim()}}`;
		case 'mroot': {
			const [base, degree] = parts();
			return `\\sqrt[${degree}]{${base}}`;
		}
		case 'msup':
		case 'msub': {
			const [base, script] = parts();
			return `${groupedTex(base)}${node.name === 'msup' ? '^' : '_'}{${script}}`;
		}
		case 'msubsup':
		case 'munderover': {
			const [base, under, over] = parts();
			return `${groupedTex(base)}_{${under}}^{${over}}`;
		}
		case 'munder': {
			const [base, under] = parts();
			return `${groupedTex(base)}_{${under}}`;
		}
		case 'mover': {
			const [base, over] = parts();
			const sign = textIn(elements(node)[1] ?? node).trim();
			return OVER[sign] ? `${OVER[sign]}{${base}}` : `${groupedTex(base)}^{${over}}`;
		}
		case 'mfenced': {
			const { open = '(', close = ')' } = node.attributes;
			return `\\left${open === '' ? '.' : signsAsTex(open)}${parts().join(',')}\\right${close === '' ? '.' : signsAsTex(close)}`;
		}
		case 'mtable': {
			const rows = elements(node).map((row) =>
				elements(row)
					.map((cell) => all(cell, told).trim())
					.join(' & ')
			);
			return `\\begin{matrix}${rows.join(' \\\\ ')}\\end{matrix}`;
		}
		case 'math':
		case 'mrow':
		case 'mstyle':
		case 'mpadded':
		case 'mphantom':
		case 'semantics':
			return all(node, told);
		case 'annotation':
		case 'annotationxml':
			return '';
		default:
			told.isWhole = false;
			return '';
	}
}

function token(text: string, name: string): string {
	const tex = signsAsTex(text);
	// A word is one name, set upright; a letter is a variable.
	return name === 'mi' && tex === text && /^[A-Za-z]{2,}$/.test(text) ? `\\mathrm{${text}}` : tex;
}
