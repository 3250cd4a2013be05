/** Scripts that are written from right to left, and languages whose usual script is one (Unicode, UAX #9; ISO 15924 names). */
const RIGHT_TO_LEFT = {
	scripts: ['Arab', 'Hebr', 'Thaa', 'Syrc', 'Nkoo', 'Adlm', 'Rohg'],
	languages: ['ar', 'ckb', 'dv', 'fa', 'he', 'ps', 'sd', 'ug', 'ur', 'yi']
};

/** Which way a language is written. @param tag as `pt`, `ar-EG` or `az-Arab` (BCP 47) */
export function directionOf(tag: string): 'ltr' | 'rtl' {
	const [language, ...rest] = tag.split('-');
	const script = rest.find((part) => /^[A-Za-z]{4}$/.test(part));
	if (script) return RIGHT_TO_LEFT.scripts.some((one) => one.toLowerCase() === script.toLowerCase()) ? 'rtl' : 'ltr';
	return RIGHT_TO_LEFT.languages.includes(language.toLowerCase()) ? 'rtl' : 'ltr';
}
