import { readerOf, type Query } from './open';

/** The form that was dealt to a sitting, as JSON, as it was committed last; undefined: none is dealt yet. */
export function dealtForm(db: Query, sittingId: string): string | undefined {
	return readerOf(db).prepare('SELECT form FROM form WHERE sitting_id = ?').pluck().get(sittingId) as
		| string
		| undefined;
}
