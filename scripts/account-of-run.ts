import { accountFor } from '$lib/server/closing';
import type { Db } from '$lib/server/db';
import type { AnswerValue, Form } from '$core/paper';
import { verifyRecord } from '$lib/server/proof';
import { OwnIds } from '$lib/server/sitting';
import { findSession } from '$lib/server/session';
import { evolve, isSittingEvent, newSitting, type Sitting, type SittingEvent } from '$core/sitting';
import type { Acknowledged } from '../stand-ins/crowd';

/** What is left after a run in which servers and candidates were killed. */
export type AccountOfRun = {
	/** Answers that were acknowledged and are not on the disk as they were given. */
	lost: Acknowledged[];
	/** Sittings whose stored state is not the one that their events make. */
	twoStates: string[];
	ledgerAddsUp: boolean;
	handedIn: number;
	/** What of the record is not as it was written; null: all is. */
	recordBroken: string | null;
};

/** Reads a run's database and holds it against what the crowd was told. */
export async function accountOfRun(
	db: Db,
	dataDir: string,
	sessionId: string,
	acknowledged: Acknowledged[]
): Promise<AccountOfRun> {
	const rows: { number: string; question_id: string; value: string }[] = await db('answer')
		.join('sitting', 'sitting.id', 'answer.sitting_id')
		.join('candidate', 'candidate.id', 'sitting.candidate_id')
		.select('number', 'question_id', 'value');
	// A number that was used twice is kept under the next: what was answered counts here, not the number.
	const stored = new Set(
		rows.map((row) => `${row.number} ${row.question_id} ${JSON.stringify(JSON.parse(row.value).value)}`)
	);
	const forms: { number: string; sitting_id: string; form: string }[] = await db('form')
		.join('sitting', 'sitting.id', 'form.sitting_id')
		.join('candidate', 'candidate.id', 'sitting.candidate_id')
		.select('number', 'sitting_id', 'form');
	// Each device has names of its own for what is on its form.
	const ids = new Map(
		forms.map(({ number, sitting_id, form }) => [
			number,
			new OwnIds(db, sitting_id, (JSON.parse(form) as Form).questions)
		])
	);
	const lost = acknowledged.filter((one) => {
		const { questionId, value } = ids
			.get(one.number)!
			.fromDevice({ ...one, value: one.value as AnswerValue, struck: [] })!;
		return !stored.has(`${one.number} ${questionId} ${JSON.stringify(value)}`);
	});
	const { ledger } = await accountFor(db, (await findSession(db, sessionId))!);
	const { broken } = await verifyRecord({ db, dataDir });
	return {
		lost,
		twoStates: await statesThatDiffer(db, sessionId),
		ledgerAddsUp: ledger.addsUp,
		handedIn: ledger.columns.handed_in.length,
		recordBroken: broken
	};
}

/** Tells every sitting again from the logbook and compares it with what its row says. */
async function statesThatDiffer(db: Db, sessionId: string): Promise<string[]> {
	const sittings: { id: string; state: string }[] = await db('sitting')
		.where({ session_id: sessionId })
		.select('id', 'state');
	const entries: { sitting_id: string; kind: string; at: number; actor_role: string; body: string }[] = await db(
		'logbook'
	)
		.where({ session_id: sessionId })
		.whereNotNull('sitting_id')
		.orderBy('seq')
		.select('sitting_id', 'kind', 'at', 'actor_role', 'body');
	const told = new Map<string, Sitting>(sittings.map(({ id }) => [id, newSitting(id, sessionId, 0)]));
	for (const [i, entry] of entries.entries()) {
		const sitting = told.get(entry.sitting_id);
		if (!sitting || !isSittingEvent(entry.kind)) continue;
		const event = {
			...JSON.parse(entry.body),
			kind: entry.kind,
			at: entry.at,
			by: entry.actor_role,
			commandId: String(i)
		} as SittingEvent;
		told.set(entry.sitting_id, evolve(sitting, event));
	}
	return sittings.filter(({ id, state }) => told.get(id)!.state !== state).map(({ id }) => id);
}
