import { existsSync } from 'node:fs';
import { readDoorCode, showDoorCode } from '$core/access';
import { markOf, openDb, transact } from '$lib/server/db';
import { findSessions } from '$lib/server/session';
import { runCrowd } from '../stand-ins/crowd';
import { enrol, findRoster } from './crowd-roster';
import { fail, numberOption, readOptions } from './options';

const options = readOptions({
	session: { type: 'string' },
	candidates: { type: 'string' },
	seed: { type: 'string' },
	url: { type: 'string', default: 'http://localhost:4600' },
	data: { type: 'string', default: 'data/demo' },
	/** The code by which the simulated devices enrol for the sealed client. */
	enrol: { type: 'string' },
	fast: { type: 'boolean', default: false }
});
if (!options.session) fail('Say which session by its door code: ./otium crowd --session K7PX-3MQ');
const file = `${options.data}/otium.sqlite`;
if (!existsSync(file)) fail(`There is no database in ${options.data}. Name the server's folder with --data.`);

const code = readDoorCode(options.session);
const db = await openDb(file);
const [session] = await findSessions(db, (query) => query.where('session.door_code_mark', markOf(db, code)));
if (!session) {
	await db.destroy();
	fail(`No session is open with the code ${showDoorCode(code)}. Look at the door board.`);
}
const isDemo = existsSync(`${options.data}/demo-clock.json`);
// On a demo those who are at work are simulated already; others come besides.
const roster = await findRoster(
	db,
	session.id,
	isDemo ? ['expected', 'carried_over'] : ['expected', 'at_door', 'let_in', 'working', 'carried_over']
);
const wanted = numberOption(options.candidates, 'candidates', roster.length, 100_000);
const people = roster.slice(0, wanted);
if (people.length < wanted && isDemo) {
	const missing = wanted - people.length;
	people.push(...(await transact(db, (trx) => enrol(trx, session, missing))));
	console.log(`${missing} invented candidates were put on the roster of ${session.name}.`);
} else if (people.length < wanted) {
	console.log(
		`${session.name} expects ${people.length} more candidates, so ${people.length} come instead of ${wanted}.`
	);
}
await db.destroy();
const seed = numberOption(options.seed, 'seed', 7, 2 ** 31 - 1);
const report = await runCrowd({
	url: options.url,
	code,
	candidates: people,
	seed,
	tempo: options.fast ? 0.02 : 1,
	clientCode: options.enrol,
	log: console.log
});
const reasons = [...report.refusals].map(([reason, count]) => `${count} ${reason.replaceAll('_', ' ')}`).join(', ');
console.log(
	`${report.handedIn} handed in, ${report.saved} answers acknowledged, ${report.refused} refused${reasons ? `: ${reasons}` : ''}.`
);
