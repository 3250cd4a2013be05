import { counted } from '../names';
import { bandOf, reachesPercent, type Band } from '../marking';

/** What somebody’s work came to, before and after. */
export type Remarked = { sittingId: string; points: number; outOf: number; toMark: number };
export type ResultRulesHere = { passPercent: number | null; bands: Pick<Band, 'fromPercent' | 'name' | 'message'>[] };

/** What a correction does to one result. */
export type Change = {
	sittingId: string;
	before: { points: number; outOf: number };
	after: { points: number; outOf: number };
	/** By share of what there is to reach: leaving a question out can raise a share while points fall. */
	gain: 'up' | 'down' | 'same_share';
	/** Passes now who did not, or the other way round; null: neither, or it is not known. */
	pass: 'now_passes' | 'now_fails' | null;
	/** Null: the band stays, or there are none. */
	band: { from: string | null; to: string | null } | null;
};

/** Points closer than this are the same: sums of binary fractions. */
const SAME = 1e-9;

/** Everyone whose result changes, in the order given. @param rulesOf the result rules of each sitting’s session */
export function changesOf(pairs: { before: Remarked; after: Remarked; rules: ResultRulesHere }[]): Change[] {
	return pairs.flatMap(({ before, after, rules }) => changeOf(before, after, rules) ?? []);
}

function changeOf(before: Remarked, after: Remarked, rules: ResultRulesHere): Change | null {
	const isSame = Math.abs(before.points - after.points) < SAME && Math.abs(before.outOf - after.outOf) < SAME;
	if (isSame) return null;
	const shares = [before, after].map(({ points, outOf }) => (outOf === 0 ? 0 : points / outOf));
	const gain = Math.abs(shares[0] - shares[1]) < SAME ? 'same_share' : shares[1] > shares[0] ? 'up' : 'down';
	const isKnown = before.toMark === 0 && after.toMark === 0;
	return {
		sittingId: before.sittingId,
		before: { points: before.points, outOf: before.outOf },
		after: { points: after.points, outOf: after.outOf },
		gain,
		pass: isKnown ? passOf(before, after, rules.passPercent) : null,
		band: isKnown ? bandChange(before, after, rules.bands) : null
	};
}

function passOf(before: Remarked, after: Remarked, percent: number | null): Change['pass'] {
	if (percent === null) return null;
	const [did, does] = [reachesPercent(before, percent), reachesPercent(after, percent)];
	return did === does ? null : does ? 'now_passes' : 'now_fails';
}

function bandChange(before: Remarked, after: Remarked, bands: Band[]): Change['band'] {
	const [from, to] = [before, after].map((score) => bandOf(bands, score)?.name ?? null);
	return from === to ? null : { from, to };
}

/** How many gain, lose, pass, fail and move a band: what is read before a correction counts. */
export type ChangeCount = {
	up: number;
	down: number;
	sameShare: number;
	nowPass: number;
	nowFail: number;
	bands: number;
};

export function countChanges(changes: Change[]): ChangeCount {
	const count = (holds: (change: Change) => boolean) => changes.filter(holds).length;
	return {
		up: count(({ gain }) => gain === 'up'),
		down: count(({ gain }) => gain === 'down'),
		sameShare: count(({ gain }) => gain === 'same_share'),
		nowPass: count(({ pass }) => pass === 'now_passes'),
		nowFail: count(({ pass }) => pass === 'now_fails'),
		bands: count(({ band }) => band !== null)
	};
}

const people = (n: number, verb: [string, string]) =>
	n === 0 ? `nobody ${verb[0]}` : n === 1 ? `1 ${verb[0]}` : `${n} ${verb[1]}`;

/** "20 of 51 gain, nobody loses. 2 pass who did not." */
export function changesInWords(count: ChangeCount, of: number): string {
	if (count.up + count.down + count.sameShare === 0) return `None of the ${counted(of, 'result')} changes.`;
	const first = `${count.up} of ${of} ${count.up === 1 ? 'gains' : 'gain'}, ${people(count.down, ['loses', 'lose'])}.`;
	const rest = [
		count.sameShare > 0 && `${people(count.sameShare, ['keeps', 'keep'])} the same share of other points.`,
		count.nowPass > 0 && `${people(count.nowPass, ['passes who did not', 'pass who did not'])}.`,
		count.nowFail > 0 && `${people(count.nowFail, ['fails who had passed', 'fail who had passed'])}.`,
		count.bands > 0 && `${people(count.bands, ['moves to another band', 'move to another band'])}.`
	];
	return [first, ...rest.filter(Boolean)].join(' ');
}
