import type { CheckResult } from '../access';

/** `pt` is `Portuguese`. */
export function languageName(tag: string): string {
	try {
		return new Intl.DisplayNames(['en'], { type: 'language' }).of(tag) ?? tag;
	} catch {
		return tag;
	}
}

/** `pt` and `pt-PT` are: who asks for the one is served by the other. */
export function isSameLanguage(a: string, b: string): boolean {
	return a.split('-')[0].toLowerCase() === b.split('-')[0].toLowerCase();
}

/** Whether the device speaks the paper's language: keys and spelling follow the device. */
export function languageCheck(device: string, paper: string, name: (tag: string) => string): CheckResult {
	return isSameLanguage(device, paper)
		? { key: 'language', ok: true, says: `set to ${name(device)}` }
		: {
				key: 'language',
				ok: false,
				says: `set to ${name(device)}, and the paper is in ${name(paper)}: check the keyboard`
			};
}
