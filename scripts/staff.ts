import { randomBytes } from 'node:crypto';
import { existsSync } from 'node:fs';
import { openDb, transact } from '$lib/server/db';
import { Passwords } from '../src/lib/server/identity/passwords';
import { appendToLogbook } from '$lib/server/logbook';
import { removeSecondSteps } from '$lib/server/sign-in';
import { fail } from './options';

const args = process.argv.slice(2);
const at = args.indexOf('--data');
const data = at < 0 ? 'data/otium' : (args.splice(at, 2)[1] ?? '');
const [what, name, ...rest] = args;
if (what !== 'reset' || !name || rest.length > 0) fail('Say whom: ./otium staff reset NAME');
const file = `${data}/otium.sqlite`;
if (!existsSync(file)) fail(`There is no database in ${data}. Name the server's folder with --data.`);

// The last way in: whoever has the machine has the house, and the logbook tells of it.
const db = await openDb(file);
const person = await db('staff').where({ sign_in: name.toLowerCase() }).first('id', 'name');
if (!person) {
	const others: string[] = await db('staff').orderBy('sign_in').limit(12).pluck('sign_in');
	await db.destroy();
	fail(`Nobody signs in as "${name}". There are: ${others.join(', ')}.`);
}
const password = randomBytes(12).toString('base64url');
const password_hash = await new Passwords().hash(password);
await transact(db, async (trx) => {
	await trx('staff').where({ id: person.id }).update({ password_hash, must_change: true });
	await removeSecondSteps(trx, person.id);
	await trx('staff_session').where({ staff_id: person.id }).delete();
	await trx('password_link').where({ staff_id: person.id }).delete();
	const by = { role: 'system' as const, id: 'machine' };
	const body = { what: 'all, and the password', of: person.name };
	await appendToLogbook(trx, [{ at: Date.now(), by, kind: 'second_step_removed', body }]);
});
await db.destroy();
console.log(
	`${person.name} signs in as "${name.toLowerCase()}" with ${password}, shown this once, and chooses a password of their own then. Their second step is taken away.`
);
