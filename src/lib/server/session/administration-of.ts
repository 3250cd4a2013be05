import type { Query } from '../db';
import { administrationOn, listAdministrations, type AdministrationName } from '../places';
import type { SessionInput } from './input';

/**
 * The administration that a session is planned in: the one that was chosen, else the one of its day. A session that is
 * there stays in its own. null: there is none to plan in.
 */
export async function administrationOf(
	db: Query,
	input: Pick<SessionInput, 'administrationId' | 'date'>,
	editing: string | null
): Promise<AdministrationName | null> {
	const row = editing === null ? undefined : await db('session').where({ id: editing }).first('administration_id');
	const chosen = row?.administration_id ?? input.administrationId;
	if (chosen === null) return administrationOn(db, input.date);
	return (await listAdministrations(db)).find((one) => one.id === chosen) ?? null;
}
