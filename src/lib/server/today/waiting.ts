import { may, mayAnywhere, type StaffMember } from '$core/access';
import { counted } from '$core/names';
import { owedFor } from '$core/owed';
import { localDate } from '$core/time';
import { administrationsFor, incidentsToDecide } from '../closing';
import type { Query } from '../db';
import { handProgress } from '../marking';
import { countOwed } from '../owed';
import { countRequests } from '../requests';

/** Something that waits for whoever looks: `what` is the link, `then` the rest of its sentence. */
export type Waiting = { key: string; what: string; then: string; href: string; presses: boolean };

/** What waits for this person, by each of their roles; what presses most first. */
export async function waitingFor(db: Query, staff: StaffMember, now: number): Promise<Waiting[]> {
	return [
		...(mayAnywhere(staff, 'grant') ? await grantsWaiting(db, staff, now) : []),
		...(mayAnywhere(staff, 'mark') ? await marksWaiting(db, staff, now) : []),
		...(mayAnywhere(staff, 'see_closing') ? await closingWaiting(db, staff, now) : [])
	].sort((a, b) => Number(b.presses) - Number(a.presses));
}

async function grantsWaiting(db: Query, staff: StaffMember, now: number): Promise<Waiting[]> {
	const found: Waiting[] = [];
	const owed = await countOwed(db, staff, now);
	if (owed.count > 0)
		found.push({
			key: 'owed',
			what: owed.count === 1 ? 'One person is owed a sitting' : `${owed.count} people are owed a sitting`,
			then: `, ${owed.count === 1 ? '' : 'the longest '}${owedFor(owed.since ?? now, now)}.`,
			href: '/grants/owed',
			presses: true
		});
	const requests = await countRequests(db, staff);
	if (requests > 0)
		found.push({
			key: 'requests',
			what: requests === 1 ? 'One request waits' : `${requests} requests wait`,
			then: ' for a decision.',
			href: '/grants/requests',
			presses: false
		});
	return found;
}

/** Answers that this person is named to mark. What is being marked is counted only for whoever is named at all. */
async function marksWaiting(db: Query, staff: StaffMember, now: number): Promise<Waiting[]> {
	const found: Waiting[] = [];
	for (const { id, name } of (await administrationsFor(db, staff, 'mark', now, null)).open) {
		const plans: string[] = await db('hand_plan').where({ administration_id: id }).pluck('body');
		if (!plans.some((body) => body.includes(staff.id))) continue;
		const answers = (await handProgress(db, id)).reduce(
			(sum, { byMarker }) => sum + (byMarker.find((marker) => marker.id === staff.id)?.waits ?? 0),
			0
		);
		if (answers > 0)
			found.push({
				key: `marks ${id}`,
				what: `${counted(answers, 'answer')} to mark`,
				then: ` in ${name}.`,
				href: `/close-out/marking?of=${id}`,
				presses: false
			});
	}
	return found;
}

async function closingWaiting(db: Query, staff: StaffMember, now: number): Promise<Waiting[]> {
	const found: Waiting[] = [];
	const today = localDate(now, 'UTC');
	for (const { id, name, closesOn } of (await administrationsFor(db, staff, 'see_closing', now, null)).open) {
		const sees = ({ siteId }: { siteId: string }) => may(staff, 'see_closing', { siteId, proctorIds: [] });
		const incidents = (await incidentsToDecide(db, id)).filter((one) => !one.isDecided && sees(one)).length;
		if (incidents > 0)
			found.push({
				key: `incidents ${id}`,
				what: incidents === 1 ? 'One incident waits' : `${incidents} incidents wait`,
				then: ` for a decision in ${name}.`,
				href: `/close-out/decide?of=${id}`,
				presses: false
			});
		const corrections = mayAnywhere(staff, 'correct')
			? Number(
					(
						await db('correction')
							.where({ administration_id: id, confirmed_at: null, declined_at: null })
							.whereNot({ proposed_by: staff.id })
							.count('* as n')
							.first()
					)?.n ?? 0
				)
			: 0;
		if (corrections > 0)
			found.push({
				key: `corrections ${id}`,
				what: corrections === 1 ? 'One correction waits' : `${corrections} corrections wait`,
				then: ` to be confirmed in ${name}.`,
				href: `/close-out/questions?of=${id}`,
				presses: false
			});
		if (closesOn !== null && closesOn < today)
			found.push({
				key: `close ${id}`,
				what: `${name} is over`,
				then: ' and not closed yet.',
				href: `/close-out?of=${id}`,
				presses: false
			});
	}
	return found;
}
