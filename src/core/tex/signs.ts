/** Signs of formulas whose own name TeX wants. Greek letters, relations and operators are read as they are (KaTeX, supported symbols). */
const SIGNS: Record<string, string> = {
	'\\': '\\backslash ',
	'{': '\\{',
	'}': '\\}',
	$: '\\$',
	'%': '\\%',
	'#': '\\#',
	'&': '\\&',
	_: '\\_',
	'^': '\\hat{}',
	'~': '\\sim ',
	'−': '-',
	'∗': '*',
	'⋅': '\\cdot ',
	'·': '\\cdot ',
	'×': '\\times ',
	'÷': '\\div ',
	'±': '\\pm ',
	'∓': '\\mp ',
	'≤': '\\le ',
	'≥': '\\ge ',
	'≠': '\\ne ',
	'≈': '\\approx ',
	'≡': '\\equiv ',
	'→': '\\to ',
	'⇒': '\\Rightarrow ',
	'⇔': '\\Leftrightarrow ',
	'∞': '\\infty ',
	'°': '^{\\circ}',
	'′': "'",
	'∂': '\\partial ',
	'∇': '\\nabla ',
	'∈': '\\in ',
	'…': '\\dots ',
	'⋯': '\\cdots ',
	'∑': '\\sum ',
	'∏': '\\prod ',
	'∫': '\\int ',
	// Signs that nobody sees: a function applied, a product, a list.
	'\u2061': '',
	'\u2062': '',
	'\u2063': '',
	'\u00a0': '~'
};

/** Functions that TeX sets upright by their own name. */
const FUNCTIONS = new Set(
	'arccos arcsin arctan arg cos cosh cot coth csc deg det dim exp gcd hom inf ker lg lim ln log max min sec sin sinh sup tan tanh'.split(
		' '
	)
);

/** The signs of a formula as TeX; a function by its name. */
export function signsAsTex(text: string): string {
	if (FUNCTIONS.has(text.trim())) return `\\${text.trim()} `;
	return [...text].map((sign) => SIGNS[sign] ?? sign).join('');
}

/** Words within a formula. */
export function wordsAsTex(text: string): string {
	return text.trim() === '' ? ' ' : `\\text{${text.replace(/[\\{}$%#&_^~]/g, '\\$&')}}`;
}

/** What something is raised over, in braces where it is more than one sign. */
export function groupedTex(tex: string): string {
	return /^(?:[A-Za-z0-9]|\\[A-Za-z]+|\\left\(.*\\right\))$/s.test(tex.trim()) ? tex.trim() : `{${tex}}`;
}
