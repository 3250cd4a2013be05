import { may, sitesWith, type StaffMember } from '$core/access';
import { fullName } from '$core/names';
import { owedState, type OwedWhy } from '$core/owed';
import type { Query } from '../db';
import { placeOf, type Session } from '../session';
import { loadSittings, minutesToWork, whereOf, type Loaded } from '../sitting';

/** Somebody who is owed a sitting, or was until it was arranged or waived. */
export type Owed = {
	sittingId: string;
	candidateId: string;
	name: string;
	number: string;
	state: 'owed' | 'arranged' | 'waived';
	why: OwedWhy;
	since: number;
	paper: { id: string; title: string };
	administrationId: string;
	session: { id: string; name: string; opens: number; zone: string; siteId: string };
	answered: number;
	/** They go on where they stopped. */
	hasBegun: boolean;
	/** Working time left, in minutes; null: no limit, or not begun. */
	minutesLeft: number | null;
	/** What is arranged for them, at the site of their session. */
	arranged: { what: string; opens: number; room: string } | null;
	waiver: { id: string; reason: string; by: string } | null;
};

/** Everyone who is owed a sitting at the sites where this person gives grants, over all days; longest first. */
export async function owedTo(db: Query, staff: StaffMember, now: number): Promise<Owed[]> {
	const loaded = await loadSittings(db, await candidatesFor(db, staff), now);
	const mine = loaded.filter((one) => may(staff, 'grant', placeOf(one.session)));
	const waivers = await waiversOf(
		db,
		mine.map((one) => one.sitting.id)
	);
	return mine
		.flatMap((one) => toOwed(one, waivers.get(one.sitting.id) ?? null, now) ?? [])
		.sort((a, b) => a.since - b.since || a.name.localeCompare(b.name));
}

/** How many nothing is arranged for: what the day and the tabs tell. */
export async function countOwed(
	db: Query,
	staff: StaffMember,
	now: number
): Promise<{ count: number; since: number | null }> {
	const owed = (await owedTo(db, staff, now)).filter((one) => one.state === 'owed');
	return { count: owed.length, since: owed[0]?.since ?? null };
}

/** Sittings that may be owed: what is looked at closely is little. Rehearsals are owed to nobody. */
async function candidatesFor(db: Query, staff: StaffMember): Promise<string[]> {
	const sites = sitesWith(staff, 'grant');
	return db('sitting')
		.join('session', 'session.id', 'sitting.session_id')
		.where({ counts: 1 })
		.whereNull('next_attempt_id')
		.modify((query) => {
			if (sites !== null) query.whereIn('session.room_id', db('room').whereIn('site_id', sites).select('id'));
		})
		.where((any) =>
			any.whereIn('sitting.state', ['absent', 'carried_over', 'set_aside']).orWhere((moved) =>
				moved.where('sitting.state', 'expected').whereExists(
					db('roster')
						.where({ 'roster.sitting_id': db.ref('sitting.id') })
						.whereNot({ 'roster.session_id': db.ref('sitting.session_id') })
				)
			)
		)
		.pluck('sitting.id');
}

type Waiver = { id: string; sitting_id: string; reason: string; by: string };

async function waiversOf(db: Query, sittingIds: string[]): Promise<Map<string, Waiver>> {
	const rows: Waiver[] = await db('waiver')
		.leftJoin('staff', 'staff.id', 'waiver.by')
		.whereIn('sitting_id', sittingIds)
		.whereNull('withdrawn_at')
		.select('waiver.id', 'sitting_id', 'reason', 'staff.name as by');
	return new Map(rows.map((row) => [row.sitting_id, row]));
}

function toOwed(one: Loaded, waiver: Waiver | null, now: number): Owed | null {
	const { sitting, session, candidate, merge } = one;
	const found = owedState(
		{
			state: sitting.state,
			allowsFresh: sitting.allowsFresh,
			wasElsewhere: sitting.visits.length > 1,
			sessionEnded: session.endedAt !== null,
			ownWindowEnds: merge.ownWindow ? (merge.ownWindow.closes ?? Infinity) : null,
			isWaived: waiver !== null
		},
		now
	);
	if (!found) return null;
	const hasBegun = sitting.beganAt !== null;
	return {
		sittingId: sitting.id,
		candidateId: candidate.id,
		name: fullName(candidate),
		number: candidate.number,
		...found,
		since: sitting.since,
		paper: { id: one.paperId, title: session.paper.title },
		administrationId: session.administrationId,
		session: {
			id: session.id,
			name: session.name,
			opens: session.window.opens,
			zone: session.site.zone,
			siteId: session.site.id
		},
		answered: one.answered,
		hasBegun,
		minutesLeft: hasBegun ? minutesToWork(one) : null,
		arranged: found.state === 'arranged' ? arrangedAs(one, session) : null,
		waiver: waiver && { id: waiver.id, reason: waiver.reason, by: waiver.by }
	};
}

const arrangedAs = ({ merge }: Loaded, session: Session): NonNullable<Owed['arranged']> => ({
	what: merge.ownWindow ? 'own window' : session.name,
	opens: merge.ownWindow?.opens ?? session.window.opens,
	room: whereOf({ merge, session }, null).room
});
