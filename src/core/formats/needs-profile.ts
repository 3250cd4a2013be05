import { XMLParser, XMLValidator } from 'fast-xml-parser';

/** What a personal needs profile says of one candidate. */
export type NeedsProfile = {
	/** Multiplier of working time; 1: none. */
	factor: number;
	/** Extra minutes. */
	minutes: number;
	unlimited: boolean;
	/** 2: everything twice as large; null: not asked for. */
	magnification: number | null;
	contrast: boolean;
	/** BCP 47 tag of the language to be spoken to in. */
	language: string | null;
};
export type ReadProfile = { ok: true; profile: NeedsProfile } | { ok: false; message: string };

const MOST_BYTES = 256 * 1024;
const NAMESPACE = 'http://www.imsglobal.org/xsd/qti/qtiv3p0/imsafa3p0pnp_v1p0';

/**
 * Reads an AfA PNP 3.0 profile (element names from memory of the 1EdTech specification: `additional-testing-time` with
 * `time-multiplier`, `fixed-minutes` or `unlimited`; `magnification` with `zoom-amount`; `invert-display-polarity`;
 * `language-of-interface`). Declarations of documents and entities are refused unread: they are how XML is made to
 * swell or to fetch.
 */
export function readNeedsProfile(xml: string): ReadProfile {
	if (xml.length > MOST_BYTES)
		return { ok: false, message: 'This profile is larger than 256 kB; one person’s is not.' };
	if (/<!(DOCTYPE|ENTITY)/i.test(xml)) {
		return { ok: false, message: 'This file declares a document type or entities. Save it without them.' };
	}
	const valid = XMLValidator.validate(xml);
	if (valid !== true)
		return { ok: false, message: `Line ${valid.err.line}: this is not well-formed XML (${valid.err.msg})` };
	const parsed = parse(xml);
	if (parsed === null)
		return { ok: false, message: 'This file is nested too deep, or uses names that no profile has.' };
	const root = child(parsed, 'access-for-all-pnp');
	if (root === null) {
		return { ok: false, message: 'This is not an AfA PNP profile: its outermost element is not access-for-all-pnp.' };
	}
	const time = child(root, 'additional-testing-time');
	const factor = numberIn(time, 'time-multiplier') ?? 1;
	const minutes = numberIn(time, 'fixed-minutes') ?? 0;
	if (!(factor >= 1 && factor <= 10))
		return { ok: false, message: `A multiplier of ${factor} is not between 1 and 10.` };
	if (!(minutes >= 0 && minutes <= 1_440))
		return { ok: false, message: `${minutes} minutes are not between 0 and 1440.` };
	const magnification = numberIn(child(root, 'magnification'), 'zoom-amount');
	if (magnification !== null && !(magnification >= 1 && magnification <= 10))
		return { ok: false, message: `A magnification of ${magnification} is not between 1 and 10.` };
	return {
		ok: true,
		profile: {
			factor,
			minutes,
			unlimited: time !== null && Object.hasOwn(time, 'unlimited'),
			magnification,
			contrast: Object.hasOwn(root, 'invert-display-polarity'),
			language: textIn(root, 'language-of-interface')
		}
	};
}

type Element = Record<string, unknown>;

/** Null: the parser's own guards stopped it, as at `__proto__` or a thousand levels. */
function parse(xml: string): Element | null {
	const parser = new XMLParser({
		ignoreAttributes: false,
		attributeNamePrefix: '@',
		removeNSPrefix: true,
		processEntities: false,
		parseTagValue: false
	});
	try {
		return parser.parse(xml) as Element;
	} catch {
		return null;
	}
}

function child(element: Element | null, name: string): Element | null {
	if (!element || !Object.hasOwn(element, name)) return null;
	const found = element[name];
	return typeof found === 'object' && found !== null ? (found as Element) : { '#text': String(found) };
}

function textIn(element: Element | null, name: string): string | null {
	const found = child(element, name);
	const text = found?.['#text'] ?? found?.['@lang'];
	return typeof text === 'string' && text.trim() !== '' ? text.trim() : null;
}

function numberIn(element: Element | null, name: string): number | null {
	const text = textIn(element, name);
	return text === null ? null : Number(text);
}

/** The same profile, to be read back by others. */
export function writeNeedsProfile(profile: NeedsProfile): string {
	const time = [
		...(profile.factor > 1 ? [`<time-multiplier>${profile.factor}</time-multiplier>`] : []),
		...(profile.minutes > 0 ? [`<fixed-minutes>${profile.minutes}</fixed-minutes>`] : []),
		...(profile.unlimited ? ['<unlimited/>'] : [])
	];
	const lines = [
		...(profile.language ? [`<language-of-interface>${escaped(profile.language)}</language-of-interface>`] : []),
		...(profile.magnification
			? [`<magnification><zoom-amount>${profile.magnification}</zoom-amount></magnification>`]
			: []),
		...(profile.contrast ? ['<invert-display-polarity/>'] : []),
		...(time.length > 0 ? [`<additional-testing-time>${time.join('')}</additional-testing-time>`] : [])
	];
	return `<?xml version="1.0" encoding="UTF-8"?>\n<access-for-all-pnp xmlns="${NAMESPACE}">\n${lines.map((line) => `  ${line}\n`).join('')}</access-for-all-pnp>\n`;
}

function escaped(text: string): string {
	return text.replace(/[<>&"]/g, (sign) => `&#${sign.charCodeAt(0)};`);
}
