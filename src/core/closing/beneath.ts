/** What a signature rests on: of each part a digest. */
export const BENEATH = {
	ledger: 'who sat and how it ended',
	answers: 'answers that count',
	marks: 'marks',
	corrections: 'corrections',
	incidents: 'incidents and their decisions',
	validity: 'decisions about results',
	waivers: 'who was let off',
	grants: 'what was granted',
	sessions: 'the sessions'
} as const;
export type Beneath = Record<keyof typeof BENEATH, string>;

/** What has changed beneath a signature, in words; none: it stands. */
export function changedBeneath(then: Partial<Beneath>, now: Beneath): string[] {
	return (Object.keys(BENEATH) as (keyof Beneath)[])
		.filter((part) => then[part] !== now[part])
		.map((part) => BENEATH[part]);
}
