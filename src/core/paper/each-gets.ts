import { counted } from '../names';
import { minutesInWords } from '../time';
import type { SentencePart } from '../session';
import { EXPECTED_SHARE } from './difficulty';
import { dealtCount, dealtPoints, isMarkedByHand, pointsToReach, questionsOf, type Paper } from './question';
import { formsOf } from './paper-forms';
import { poolsOf, sharesOf } from './pools';
import { chanceOfAtLeast, poolStrength, type PoolStrength } from './pool-strength';
import { summarise } from './facts';

/** What each candidate gets, in a sentence or three: "16 of 31 questions, 31 points in four parts, about 38 minutes…". */
export function eachGets(paper: Paper): SentencePart[] {
	const all = questionsOf(paper);
	if (all.length === 0) return [{ text: 'There is no question yet.' }];
	const count = dealtCount(paper);
	const byHand = all.filter(isMarkedByHand).length;
	const hasPool = paper.parts.some(
		(part) => part.draw !== null && poolsOf(part).every(({ draw, units }) => draw <= units.length)
	);
	const { suggestedMinutes } = summarise(paper);
	const parts = paper.parts.length;
	const forms = formsOf(paper).length;
	const inWhat = forms > 0 ? ` in each of ${forms} forms` : parts > 1 ? ` in ${parts} parts` : '';
	return [
		{ text: `${count === all.length ? '' : `${count} of `}${counted(all.length, 'question')}`, strong: true },
		{ text: `, ${counted(dealtPoints(paper), 'point')}${inWhat}, about ` },
		{ text: minutesInWords(suggestedMinutes), strong: true },
		{ text: '. ' },
		...(hasPool || forms > 1
			? [
					{ text: 'Two neighbours share ' },
					{ text: sharedOnAverage(paper).toFixed(1).replace(/\.0$/, ''), strong: true },
					{ text: forms > 1 ? ' on average, where forms are drawn. ' : ' of them on average. ' }
				]
			: [{ text: 'Everybody gets the same questions. ' }]),
		...expectedInWords(paper),
		...(byHand > 0 ? [{ text: byHand === 1 ? 'One is marked by hand.' : `${byHand} are marked by hand.` }] : [])
	];
}

/** What is expected of the score, where its author has said how hard each question is. */
function expectedInWords(paper: Paper): SentencePart[] {
	const share = expectedShare(paper);
	return share === null ? [] : [{ text: `Expected score: ${Math.round(100 * share)} %. ` }];
}

/** The share of the points that a candidate is expected to reach; null: of a question nothing is said. */
export function expectedShare(paper: Paper): number | null {
	let [points, expected] = [0, 0];
	for (const { question, share } of sharesOf(paper)) {
		if (question.difficulty === undefined) return null;
		points += share * pointsToReach(question);
		expected += share * pointsToReach(question) * EXPECTED_SHARE[question.difficulty];
	}
	return points > 0 ? expected / points : null;
}

/** How many questions two candidates share on average, those that everybody gets included. */
export function sharedOnAverage(paper: Paper): number {
	return sharesOf(paper).reduce((sum, { share }) => sum + share ** 2, 0);
}

/** A pool in a sentence: what two neighbours share, how likely many are, and what twice as many would do. */
export function poolInWords(strength: PoolStrength): string {
	const { take, of, mean } = strength;
	if (take === 0) return 'Nobody is dealt a question of it.';
	if (take === of) return 'Everybody gets all of it.';
	// The largest number that is not far-fetched: one pair in a hundred is a pair or two in a room.
	let many = Math.min(take, Math.max(2, Math.ceil(mean * 2)));
	while (many > 1 && chanceOfAtLeast(strength, many) < 0.01) many--;
	const chance = chanceOfAtLeast(strength, many);
	const twice = poolStrength(take, 2 * of).mean;
	const told = many > 1 ? `, and ${many} or more in ${oneIn(chance)}` : '';
	return `Two neighbours share ${figure(mean)} on average${told}. With twice as many in the pool: ${figure(twice)}.`;
}

const figure = (value: number) => value.toFixed(2).replace(/\.?0+$/, '');
function oneIn(chance: number): string {
	if (chance > 0.5) return `${Math.round(chance * 100)} % of pairs`;
	return `one pair of ${Math.round(1 / chance)}`;
}
