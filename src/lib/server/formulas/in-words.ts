import { DOMParser, XMLSerializer, type Element } from '@xmldom/xmldom';
import speech from 'speech-rule-engine';

/** Languages in which Speech Rule Engine 4.1 reads formulas; others are read in English. */
const READ_IN = new Set(['af', 'ca', 'da', 'de', 'en', 'es', 'fr', 'hi', 'it', 'ko', 'nb', 'nn', 'sv']);
/** Names that are read as functions, `H of x`, wherever something follows them. */
const FUNCTIONS = /^[fghFGHP]$/;
const SCRIPTED = new Set(['msub', 'msup', 'msubsup']);
const INVISIBLE_TIMES = '\u2062';
const ARROW_ABOVE = '\u20d7';

let readyFor: string | null = null;
/** The engine has one state for all: who asks has to wait for it, one after the other. */
async function ready(language: string): Promise<void> {
	const base = language.toLowerCase().split('-')[0];
	const locale = READ_IN.has(base) ? base : 'en';
	if (readyFor === locale) return;
	await speech.setupEngine({ locale, domain: 'clearspeak', modality: 'speech', markup: 'none' });
	await speech.engineReady();
	readyFor = locale;
}

/**
 * A formula as somebody would read it aloud, by the rules of Clearspeak: `x squared`, `the square root of 2`.
 * @param mathml as KaTeX writes it
 * @param language BCP 47; one that the engine does not read is read in English
 * @returns null: nothing can be said of it
 */
export async function inWords(mathml: string, language: string): Promise<string | null> {
	await ready(language);
	try {
		return speech.toSpeech(readable(mathml)).replace(/\s+/g, ' ').trim() || null;
	} catch {
		return null;
	}
}

/** Tells the engine what a reader sees by himself: units, degrees, decimal commas, and names that stand side by side. */
function readable(mathml: string): string {
	const doc = new DOMParser({ onError: () => {} }).parseFromString(mathml, 'text/xml');
	const all = (name: string) => [...doc.getElementsByTagName(name)];
	for (const note of all('annotation')) note.parentNode!.removeChild(note);
	for (const semantics of all('semantics')) {
		while (semantics.firstChild) semantics.parentNode!.insertBefore(semantics.firstChild, semantics);
		semantics.parentNode!.removeChild(semantics);
	}
	// Upright is how units and capitals are printed, not what they are.
	for (const name of [...all('mi'), ...all('mo')])
		if (name.getAttribute('mathvariant') === 'normal') name.removeAttribute('mathvariant');
	for (const name of all('mi')) if (name.textContent === 'Δ') name.textContent = 'Delta';
	for (const sign of all('mo')) if (sign.textContent === ARROW_ABOVE) sign.textContent = '→';
	for (const raised of all('msup')) readDegrees(raised);
	for (const number of all('mn')) joinDecimals(number);
	for (const name of all('mi'))
		if (FUNCTIONS.test(name.textContent ?? '')) {
			const isScripted = SCRIPTED.has(name.parentElement!.tagName) && name.parentElement!.firstChild === name;
			const whole = isScripted ? name.parentElement! : name;
			const next = whole.nextSibling as Element | null;
			if (whole.parentElement?.tagName !== 'mrow' || !next || next.tagName === 'mo') continue;
			const times = doc.createElement('mo');
			times.textContent = INVISIBLE_TIMES;
			whole.parentNode!.insertBefore(times, next);
		}
	return new XMLSerializer().serializeToString(doc);
}

/** A raised ring is degrees; a stroke after a number is no feet. */
function readDegrees(raised: Element): void {
	const [base, sign] = [...raised.childNodes] as Element[];
	const isRing = sign?.textContent === '∘';
	if (!isRing && !(base?.tagName === 'mn' && sign?.textContent === '′')) return;
	const read = raised.ownerDocument!.createElement(isRing ? 'mi' : 'mtext');
	read.textContent = isRing ? '°' : '′';
	const row = raised.ownerDocument!.createElement('mrow');
	row.appendChild(base);
	row.appendChild(read);
	raised.parentNode!.replaceChild(row, raised);
}

/** `3{,}5` is one number; `(3,5)` is two. */
function joinDecimals(number: Element): void {
	const comma = number.nextSibling as Element | null;
	const after = comma?.nextSibling as Element | null;
	if (comma?.textContent !== ',' || after?.tagName !== 'mn') return;
	if (number.previousSibling?.textContent === '(' && after.nextSibling?.textContent === ')') return;
	number.textContent += `,${after.textContent}`;
	comma.parentNode!.removeChild(comma);
	after.parentNode!.removeChild(after);
}
