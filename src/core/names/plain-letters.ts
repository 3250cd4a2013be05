/** Letters that Unicode decomposition leaves whole, as they are commonly written without their strokes. */
const UNSTROKED: Record<string, string> = {
	ß: 'ss',
	æ: 'ae',
	œ: 'oe',
	ø: 'o',
	đ: 'd',
	ð: 'd',
	ł: 'l',
	þ: 'th',
	ı: 'i',
	ħ: 'h'
};

/** A text in lower case and without accents, as somebody in a hurry types it: `Inês Łuczak` is `ines luczak`. */
export function plainLetters(text: string): string {
	return text
		.normalize('NFKD')
		.toLowerCase()
		.replace(/\p{M}/gu, '')
		.replace(/[ßæœøđðłþıħ]/g, (letter) => UNSTROKED[letter]);
}
