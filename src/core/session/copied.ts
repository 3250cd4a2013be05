import { someNames } from '../names';

/** What is known of a session that another is made from. Names as they are shown. */
export type CopyFacts = {
	paper: string;
	groups: string[];
	room: string;
	/** Local times, `09:00`; `until` null: the end is open. */
	time: string;
	until: string | null;
	/** The rule sheet it was set up with, and in how many rules it differs from it; null: no sheet, or it was withdrawn. */
	sheet: string | null;
	otherRules: number;
	/** Words that are given out in the room. */
	words: ('start word' | 'finish word')[];
	proctors: string[];
	/** Whom it had beyond its groups, and how many of its groups were not in it. */
	added: string[];
	leftOut: number;
	/** Grants that were given for that session alone. */
	grants: number;
};

/** What comes along to a new session, and what stays with the one before, each in a few words. */
export function whatCameAlong(facts: CopyFacts): { came: string[]; stayed: string[] } {
	const { paper, groups, room, time, until, sheet, otherRules, words, proctors, added, leftOut, grants } = facts;
	const others = `${otherRules === 1 ? 'one of them' : `${otherRules} of them`} other than ${sheet === null ? 'the defaults' : `“${sheet}” says`}`;
	return {
		came: [
			paper,
			someNames(groups),
			`the ${room}`,
			until === null ? `${time}, end open` : `${time} to ${until}`,
			otherRules === 0
				? sheet === null
					? 'the safe default rules'
					: `the rules of “${sheet}”`
				: `its rules, ${others}`,
			...words.map((word) => `the same ${word}: change it if candidates may know it`),
			proctors.length === 0 ? '' : `${someNames(proctors)} as ${proctors.length === 1 ? 'proctor' : 'proctors'}`
		].filter((one) => one !== ''),
		stayed: [
			'its day and its name',
			'its door code and slips',
			added.length === 0 ? '' : `${someNames(added)}, who ${added.length === 1 ? 'was' : 'were'} added by hand`,
			leftOut === 0
				? ''
				: `that ${leftOut === 1 ? 'one person of its groups was' : `${leftOut} people of its groups were`} left out: all are in again`,
			grants === 0 ? '' : `${grants === 1 ? 'one grant' : `${grants} grants`} for that session alone`
		].filter((one) => one !== '')
	};
}
