import {
	checkSession,
	rulesSentence,
	sessionSentence,
	type Finding,
	type SentencePart,
	type SessionFacts,
	type SessionRules
} from '$core/session';
import { protectionInWords, protectionOf } from '$core/rules';
import { counted, capital, listed } from '$core/names';
import { dealtCount, limitsCalculator, type Paper } from '$core/paper';
import { readLocalWindow, shortDate, withWholeLimit, type Window } from '$core/time';
import { whatBinds, type ToldSubject } from '$core/told';
import type { Query } from '../db';
import { giveWay } from '../event-loop';
import { gatherFacts, type PaperRow, type RoomRow } from './facts';
import { partsOf, type FieldErrors, type SessionInput } from './input';
import { rosterFor, type Roster } from './roster';
import { splitInput } from './split';

/** A session as it would be, told before it is saved. */
export type Plan = {
	input: SessionInput;
	facts: SessionFacts;
	sentence: SentencePart[];
	/** What happens when time is up, how one moves, and what is seen afterwards. */
	rulesInShort: string;
	findings: Finding[];
	/** What protects it and what does not, read off its settings. */
	protection: string;
	/** What candidates are told, by everything that binds them. */
	told: ToldSubject[];
	rules: SessionRules;
	window: Window;
	name: string;
	siteId: string;
	roster: Roster;
};

export type Planned = { ok: true; plan: Plan } | { ok: false; errors: FieldErrors };

/**
 * Works a form's input out into a session, without writing anything.
 * @param editing the session that is being edited; its own roster is not in its own way
 */
export async function planSession(
	db: Query,
	administrationId: string,
	input: SessionInput,
	now: number,
	editing?: string
): Promise<Planned> {
	const errors: FieldErrors = {};
	const room: RoomRow | undefined = await db('room')
		.join('site', 'site.id', 'room.site_id')
		.where('room.id', input.roomId)
		.first('room.*', 'site.zone', 'site.opens_daily', 'site.closes_daily');
	const paper: PaperRow | undefined = await db('paper').where({ id: input.paperId }).first();
	if (!room) errors.roomId = 'Choose a room from the list.';
	if (!paper) errors.paperId = 'Choose a paper from the list.';
	if (!room || !paper) return { ok: false, errors };

	const { date, time, until, untilDate } = input;
	const read = readLocalWindow({ date, opens: time, closes: until, lastDate: untilDate }, room.zone);
	if (!read.ok) {
		const { at, message, instead } = read;
		return { ok: false, errors: { [at === 'opens' ? 'time' : 'until']: [message, instead].filter(Boolean).join(' ') } };
	}
	const { window } = read;
	const roster = await rosterFor(db, {
		...input,
		administrationId,
		sessionId: editing,
		attempts: input.rules.attempts,
		opens: window.opens
	});
	await giveWay();
	const content: Paper = JSON.parse(paper.content);
	const rules = withWholeLimit(input.rules, dealtCount(content));
	const place = { administrationId, input, rules, window, room, paper, content, roster, editing };
	const facts = await gatherFacts(db, place, now);
	const left = roster.leftOut.map((message): Finding => ({
		code: 'left_out',
		level: 'warn',
		field: 'who',
		title: 'Left out.',
		message: capital(message.replace('Left out, ', '')),
		fixes: []
	}));
	return {
		ok: true,
		plan: {
			input,
			facts,
			sentence: sessionSentence(facts, now),
			rulesInShort: rulesSentence(rules),
			findings: [...checkSession(facts, now), ...left].map((finding) => withSplits(finding, input, facts, roster)),
			protection: protectionInWords(
				protectionOf({
					rules,
					networks: facts.networks.named.map((one) => one.name),
					lostNetworks: facts.networks.lost,
					ownQuestions: facts.paper.pools.length > 0,
					elsewhere: facts.elsewhere,
					siteHasClients: facts.siteHasClients
				})
			),
			told: whatBinds({
				rules,
				window,
				zone: room.zone,
				networks: facts.networks.named.map((one) => one.name),
				limitsCalculator: limitsCalculator(content),
				own: null
			}),
			rules,
			window,
			name: input.name || proposedName(paper.title, roster.groups, input.kind, window.opens, room.zone),
			siteId: room.site_id,
			roster
		}
	};
}

/**
 * The parts that one setup would be split into.
 * @param split as `splitInput` knows it
 */
export async function splitAsked(
	db: Query,
	administrationId: string,
	input: SessionInput,
	split: string,
	now: number
): Promise<SessionInput['parts']> {
	const planned = await planSession(db, administrationId, { ...input, parts: null }, now);
	if (!planned.ok) return null;
	const { facts, roster } = planned.plan;
	const parts = splitInput(split, input, facts, roster);
	return parts.length > 1 ? parts : null;
}

export type PlannedAll = { ok: true; plans: Plan[] } | { ok: false; errors: FieldErrors };

/** Plans each of the sessions that one setup stands for, and looks whether they are in each other's way. */
export async function planAll(
	db: Query,
	administrationId: string,
	input: SessionInput,
	now: number,
	editing?: string
): Promise<PlannedAll> {
	const plans: Plan[] = [];
	const errors: FieldErrors = {};
	for (const [i, part] of partsOf(input).entries()) {
		const planned = await planSession(db, administrationId, part, now, editing);
		if (planned.ok) plans.push(planned.plan);
		else
			for (const [field, message] of Object.entries(planned.errors))
				errors[input.parts === null ? field : `parts.${i}.${field}`] = message;
	}
	if (Object.keys(errors).length > 0) return { ok: false, errors };
	if (input.parts !== null) lookAcross(plans, input);
	return { ok: true, plans };
}

/** Sessions of one setup that would take the same room, or the same people, at once. */
function lookAcross(plans: Plan[], input: SessionInput) {
	const block = (plan: Plan, code: string, field: Finding['field'], title: string, message: string) =>
		plan.findings.unshift({ code, level: 'block', field, title, message, fixes: [] });
	for (const [i, plan] of plans.entries()) {
		for (const [j, earlier] of plans.slice(0, i).entries()) {
			const [a, b] = [input.parts![j].label, input.parts![i].label];
			const shared = plan.roster.people.filter((person) =>
				earlier.roster.people.some((other) => other.candidateId === person.candidateId)
			);
			if (shared.length > 0)
				block(
					plan,
					'twice',
					'who',
					'Expected twice.',
					`${shared[0].name}${shared.length > 1 ? ` and ${shared.length - 1} more` : ''} would be in ${a} and in ${b}.`
				);
		}
		// In groups one after the other they may share a room, as long as there is a seat for each when the last of them comes.
		const { room } = plan.facts;
		const there = plans.flatMap((other, j) =>
			other.facts.room.id === room.id &&
			other.window.opens <= plan.window.opens &&
			(other.facts.busyUntil > plan.window.opens || other === plan)
				? [{ label: input.parts![j].label, seated: other.facts.candidates - other.facts.elsewhere }]
				: []
		);
		const together = there.reduce((sum, { seated }) => sum + seated, 0);
		const isFirst =
			plans.findIndex((one) => one.window.opens === plan.window.opens && one.facts.room.id === room.id) === i;
		if (there.length > 1 && together > room.seats && isFirst)
			block(
				plan,
				'room_twice',
				'where',
				'Room taken twice.',
				`${listed(there.map(({ label }) => label))} would be in the ${room.name} at once: ${counted(together, 'person', 'people')}, ${counted(room.seats, 'seat')}.`
			);
	}
}

/** A fix that splits is worked out here, where the people are known, into the parts that it would make. */
function withSplits(finding: Finding, input: SessionInput, facts: SessionFacts, roster: Roster): Finding {
	return {
		...finding,
		fixes: finding.fixes.map((fix) =>
			typeof fix.set.split === 'string'
				? { ...fix, set: { parts: splitInput(fix.set.split, input, facts, roster) } }
				: fix
		)
	};
}

/** With its day, and without the time, which stands beside it wherever it is listed. */
function proposedName(paper: string, groups: { name: string }[], kind: string, opens: number, zone: string): string {
	const what = kind === 'live' ? '' : kind === 'rehearsal' ? ', rehearsal' : ', make-up';
	return `${paper}${what} · ${groups.map((group) => group.name).join(' and ')} · ${shortDate(opens, zone)}`;
}
