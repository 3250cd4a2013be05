import { capital } from '../names';
import { forwardBy, rulesElsewhere, type SessionRules } from '../session';

/** What protects a session and what does not, read off the rules themselves and never off the name of a sheet. */
export type Protection = { inForce: string[]; gaps: string[] };

export type ProtectionFacts = {
	rules: SessionRules;
	/** Names of the networks the door is limited to, as far as they exist. */
	networks: string[];
	/** Networks that the rules name and that no longer exist. */
	lostNetworks: number;
	/** Whether each candidate is dealt questions of their own from pools. */
	ownQuestions: boolean;
	/** How many of them sit elsewhere, under the rules for that. */
	elsewhere: number;
	/** Whether a device of the site has enrolled, whose sealed client can prove itself. */
	siteHasClients: boolean;
};

/** "Own questions and own order, sealed, one network. Open: printing is allowed." */
export function protectionOf({
	rules,
	networks,
	lostNetworks,
	ownQuestions,
	elsewhere,
	siteHasClients
}: ProtectionFacts): Protection {
	const { lockdown, order, door, review, movement } = rules;
	const inForce: string[] = [];
	const gaps: string[] = [];

	if (ownQuestions) inForce.push('own questions');
	else gaps.push('everyone has the same questions');
	if (order.questionsInOwnOrder) inForce.push('own order');
	else gaps.push(order.choicesInOwnOrder ? 'choices are mixed, questions are not' : 'all questions in one order');
	// On one page for everything there is nothing to go back to.
	if (forwardBy(movement) !== null) inForce.push('no way back');

	if (lockdown.level === 'sealed' && siteHasClients) inForce.push(`sealed, client ${lockdown.clientVersion} or newer`);
	else if (lockdown.level === 'sealed')
		gaps.push('sealed, but no device of the site has enrolled: no client can prove itself');
	else if (lockdown.level === 'watched') inForce.push('watched, full screen');
	else gaps.push('nothing keeps other programs away');
	if (lockdown.level !== 'open') {
		if (lockdown.sites.length > 0) gaps.push(`${lockdown.sites.join(', ')} may be opened`);
		if (lockdown.printing) gaps.push('printing is allowed');
		if (!lockdown.alsoForReview && review.shows !== 'nothing') gaps.push('the review is open');
	}

	if (networks.length > 0) inForce.push(networks.length === 1 ? 'one network' : `${networks.length} networks`);
	else if (lostNetworks > 0) gaps.push('its networks no longer exist: nobody can enter');
	else gaps.push('any network');
	if (door.code === 'turning') inForce.push(`a code that changes every ${door.turnsEveryMinutes} min`);
	if (rules.startWord) inForce.push('start word');
	if (rules.admission === 'automatic') gaps.push('nobody checks who comes in');
	if (lockdown.snapshotSeconds !== null) inForce.push(`a snapshot every ${lockdown.snapshotSeconds} s`);
	if (elsewhere > 0) gaps.push(...gapsElsewhere(rules, elsewhere));
	if (lockdown.level === 'watched') gaps.push('leaving the page is seen but cannot be prevented');
	if (rules.pace.watched) inForce.push('pace watched');
	if (review.shows === 'own_answers' && review.when !== 'all_finished')
		gaps.push('questions can be read again while others still sit');
	return { inForce, gaps };
}

/** What holds for those who sit elsewhere, where it is less than in the room. */
function gapsElsewhere(rules: SessionRules, count: number): string[] {
	const there = rulesElsewhere(rules);
	const gaps = [
		rules.door.networks.length > 0 && there.door.networks.length === 0 && 'from any network',
		rules.admission !== 'automatic' && there.admission === 'automatic' && 'with nobody checking who comes in',
		there.lockdown.snapshotSeconds === null && 'unseen'
	].filter((gap) => gap !== false);
	return gaps.length > 0 ? [`${count === 1 ? 'one sits' : `${count} sit`} elsewhere, ${gaps.join(', ')}`] : [];
}

/** The same in a sentence or two. */
export function protectionInWords({ inForce, gaps }: Protection): string {
	const kept = inForce.length > 0 ? `${capital(inForce.join(', '))}.` : 'Nothing is enforced.';
	return gaps.length > 0 ? `${kept} Open: ${gaps.join('; ')}.` : kept;
}
