import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setTimeout as sleep } from 'node:timers/promises';
import { STAFF_ROLES } from '$core/access';
import { localDate, MINUTE } from '$core/time';
import { addStaff } from '$lib/server/identity';
import { startOtium, type Otium } from '$lib/server/otium';
import { furnish as toBeClosed } from './bench-closing';
import { furnish as week } from './bench-grants';
import { staffCookie } from './bench-room';
import { addYears } from './bench-years';
import { CROWD_STAFF, makeCrowdSession } from './crowd-session';
import { freePort, startServer } from './server-process';

/** How long everybody else waits while one page is opened. */
export type PageFigure = { house: string; path: string; tookMs: number; longestWaitMs: number };

const EVERY_PAGE = [
	'/',
	'/live',
	'/prepare',
	'/prepare/administration',
	'/prepare/clients',
	'/prepare/contacts',
	'/prepare/devices',
	'/prepare/mail',
	'/prepare/networks',
	'/prepare/new',
	'/prepare/parts',
	'/prepare/people',
	'/prepare/people/import',
	'/prepare/ready',
	'/prepare/rooms',
	'/prepare/rules',
	'/prepare/staff',
	'/grants',
	'/grants/fit',
	'/grants/owed',
	'/grants/requests',
	'/close-out',
	'/close-out/archive',
	'/close-out/decide',
	'/close-out/marking',
	'/close-out/questions',
	'/close-out/results',
	'/close-out/sessions',
	'/results',
	'/logbook',
	'/papers',
	'/papers/bank',
	'/technical'
];
const OF_SESSION = [
	'/live/ID',
	'/live/ID/board',
	'/live/ID/answers',
	'/live/ID/chart',
	'/prepare/ID',
	'/prepare/ID/ready',
	'/prepare/ID/seen'
];
const OF_ENDED = [
	'/close-out/alike/ID',
	'/close-out/ID',
	'/close-out/ID/results.csv',
	...['csv', 'jsonl', 'qti', 'oneroster'].map((as) => `/close-out/results/winter?as=${as}`)
];
/** Searches that run with each key, and one for a word that is in no entry. */
const SEARCHES = [
	'/find?text=watch',
	'/find?text=sailor12',
	'/find?text=hold%20sailor12',
	'/grants/find?text=former',
	'/live/ID/find?text=sailor12',
	'/logbook?text=nowhere',
	'/prepare?part=past&text=watch%209',
	'/prepare/people/find?text=former&group=&page=0&left=no'
];
/** Of these the middle one counts: a collection of garbage is nobody's page. */
const TIMES = 3;

/** Opens every page of the staff in four large houses. */
export async function measurePages(large: number): Promise<PageFigure[]> {
	const day = localDate(Date.now() + 24 * 60 * MINUTE, 'Europe/London');
	return [
		...(await inHouse(`a room of ${large}`, (dir) => makeCrowdSession(dir, large), {
			session: 's'
		})),
		...(await inHouse(
			'years behind it',
			async (dir) => {
				await makeCrowdSession(dir, 1_000);
				await furnishedBy(addYears)(dir);
			},
			{ session: 's', searches: true }
		)),
		...(await inHouse('5,000 sittings to close', furnishedBy(toBeClosed), { session: 's1', ended: true })),
		...(await inHouse(
			'200 sessions of 10,000',
			furnishedBy((otium) => week(otium, day)),
			{ session: 's0' }
		))
	];
}

const furnishedBy = (furnish: (otium: Otium) => Promise<unknown>) => async (dataDir: string) => {
	const otium = await startOtium({ dataDir, sweep: false, logLevel: 'silent' });
	await furnish(otium);
	await otium.stop();
};

async function inHouse(
	house: string,
	furnish: (dir: string) => Promise<unknown>,
	of: { session: string; ended?: boolean; searches?: boolean }
): Promise<PageFigure[]> {
	const dir = mkdtempSync(join(tmpdir(), 'otium-pages-'));
	await furnish(dir);
	await everyRole(dir);
	const port = await freePort();
	const server = await startServer({ port, host: '127.0.0.1', dataDir: dir, log: 'error' });
	try {
		const cookie = await staffCookie(port);
		const paths = [...EVERY_PAGE, ...OF_SESSION, ...(of.ended ? OF_ENDED : []), ...(of.searches ? SEARCHES : [])];
		const figures: PageFigure[] = [];
		for (const path of paths.map((path) => path.replace('ID', of.session))) {
			const tries = [];
			for (let i = 0; i < TIMES; i++) tries.push(await opened(port, path, cookie));
			tries.sort((a, b) => a.longestWaitMs - b.longestWaitMs);
			figures.push({ house, path, ...tries[Math.floor(TIMES / 2)] });
		}
		return figures;
	} finally {
		server.kill('SIGKILL');
		rmSync(dir, { recursive: true, force: true });
	}
}

/** Somebody who may see all of it. */
const everyRole = furnishedBy(async ({ db }) => {
	await db('staff').where({ sign_in: CROWD_STAFF.signIn }).update({ sign_in: 'before' });
	const roles = STAFF_ROLES.map((role) => ({ role, siteId: null }));
	await addStaff(db, { ...CROWD_STAFF, name: 'Trial', roles });
});

/** Opens it while somebody else asks, over and over, for what costs nothing. */
async function opened(port: number, path: string, cookie: string) {
	let [longestWaitMs, isOn] = [0, true];
	const asking = (async () => {
		while (isOn) {
			const from = performance.now();
			await fetch(`http://localhost:${port}/health`);
			longestWaitMs = Math.max(longestWaitMs, performance.now() - from);
			await sleep(1);
		}
	})();
	await sleep(20);
	const from = performance.now();
	const headers = { cookie, accept: 'text/html' };
	const response = await fetch(`http://localhost:${port}${path}`, { headers, redirect: 'manual' });
	await response.text();
	const tookMs = performance.now() - from;
	isOn = false;
	await asking;
	if (response.status >= 500) throw new Error(`${path} answered ${response.status}`);
	return { tookMs, longestWaitMs };
}
