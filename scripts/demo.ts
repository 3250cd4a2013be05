import { existsSync, mkdirSync, readdirSync, rmSync } from 'node:fs';
import { showDoorCode } from '$core/access';
import { openDb } from '$lib/server/db';
import { DEMO_PASSWORD, DEMO_STAFF, demoDevices, seedWithAutumn, setDemoClock } from '$lib/server/demo';
import { startOtium } from '$lib/server/otium';
import { findSessions } from '$lib/server/session';
import { runCrowd } from '../stand-ins/crowd';
import { findRoster } from './crowd-roster';
import { fail, numberOption, readOptions } from './options';
import { addressesOf, portIsTaken, startServer } from './server-process';

const options = readOptions({
	port: { type: 'string' },
	host: { type: 'string', default: '0.0.0.0' },
	data: { type: 'string', default: 'data/demo' },
	clock: { type: 'string', default: '09:42' },
	keep: { type: 'boolean', default: false },
	'no-crowd': { type: 'boolean', default: false }
});
const port = numberOption(options.port, 'port', 4600);
if (await portIsTaken(port, options.host))
	fail(`Port ${port} is in use. Choose another: ./otium demo --port ${port + 1}`);

const isFresh = await prepareData();
const server = await startServer({ port, host: options.host, dataDir: options.data });
const url = `http://localhost:${port}`;
await greet();
if (!options['no-crowd']) await sendCrowd();
process.on('SIGINT', () => server.kill('SIGTERM'));
process.on('SIGTERM', () => server.kill('SIGTERM'));
server.on('exit', (code) => process.exit(code ?? 0));

/** A demo is made anew each time, unless it is to be kept; what is not a demo is never touched. */
async function prepareData(): Promise<boolean> {
	const dir = options.data;
	const isDemo = existsSync(`${dir}/demo-clock.json`);
	if (existsSync(dir) && readdirSync(dir).length > 0 && !isDemo) {
		fail(`${dir} holds data that is not a demo's. Choose another folder with --data.`);
	}
	if (isDemo && options.keep) return false;
	rmSync(dir, { recursive: true, force: true });
	mkdirSync(dir, { recursive: true });
	const now = setDemoClock(dir, options.clock);
	const clock = { at: now };
	console.log('Making the demo day.');
	const otium = await startOtium({ dataDir: dir, now: () => clock.at, sweep: false, logLevel: 'silent' });
	await seedWithAutumn(otium, clock, now);
	await otium.stop();
	// The seconds that went by while it was made.
	setDemoClock(dir, options.clock);
	return true;
}

async function greet() {
	const db = await openDb(`${options.data}/otium.sqlite`);
	const sessions = await findSessions(db, (query) => query.whereNotNull('door_code').whereNull('ended_at'));
	const chart = sessions.find((session) => session.room.name === 'Chart Room');
	const [late] = chart ? await findRoster(db, chart.id, ['expected']) : [];
	await db.destroy();
	console.log(`\nOtium is running${isFresh ? ` on a demo day; its clock started at ${options.clock}` : ''}.\n`);
	for (const address of addressesOf(port, options.host))
		console.log(`  Staff       ${address}      Candidates  ${address}/sit`);
	console.log(`\n  Sign in as (password ${DEMO_PASSWORD}):`);
	for (const person of DEMO_STAFF)
		console.log(
			`    ${person.signIn.padEnd(8)} ${person.name}, ${person.roles.map((held) => held.role.replace('_', ' ')).join(', ')}`
		);
	console.log('\n  Door codes now:');
	for (const session of sessions)
		console.log(`    ${showDoorCode(session.doorCode!)}  ${session.name}, ${session.room.name}`);
	if (late) {
		console.log('\n  To sit a paper yourself:');
		console.log(
			`    1. As ode, on the Grants page, press G, find ${late.family}, choose "Own window" and give it from now on.`
		);
		console.log(
			`    2. In another browser open ${url}/sit: the Chart Room's code, number ${late.number}, family name ${late.family}.`
		);
		console.log('    3. As ode, in the live room, let them in with Enter.');
	}
	console.log(
		'\n  Over plain HTTP, other devices than this one do without cameras, offline reloads and sealed clients.'
	);
	console.log('  Stop with Ctrl+C.\n');
}

/** The candidates who are at work go on working, over HTTP like anybody else. */
async function sendCrowd() {
	const db = await openDb(`${options.data}/otium.sqlite`);
	const sessions = await findSessions(db, (query) =>
		query
			.whereNotNull('door_code')
			.whereNull('ended_at')
			.where('opens', '<', Date.now() + 86_400_000)
	);
	const rosters = await Promise.all(
		sessions.map(async (session) => ({
			code: session.doorCode!,
			people: await findRoster(db, session.id, ['working', 'at_door', 'on_hold'])
		}))
	);
	await db.destroy();
	const devices = demoDevices(options.data);
	for (const [i, { code, people }] of rosters.entries()) {
		void runCrowd({
			url,
			code,
			candidates: people,
			devices,
			seed: 7 + i,
			tempo: 1,
			kinds: ['steady', 'steady', 'slow', 'steady', 'dropper'],
			promptly: true
		});
	}
}
