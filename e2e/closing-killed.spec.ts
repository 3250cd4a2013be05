import { existsSync, readdirSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { expect, test } from '@playwright/test';
import { verifyArchive, archivesIn } from '../src/lib/server/archive';
import { decideAlike, decideIncident, isAlikeOpen, signOff } from '../src/lib/server/closing';
import { seedWithAutumn } from '../src/lib/server/demo';
import { confirm, foresee, giveMark, propose, savePlan, workOfMarker } from '../src/lib/server/marking';
import { owedAmong, waive } from '../src/lib/server/owed';
import { findSessions } from '../src/lib/server/session';
import type { StaffMember } from '../src/core/access';
import { house } from './house';

/** The past administration with every gate settled by those who may. */
const home = house({
	made: '16:20',
	furnish: async (otium, clock, now) => {
		await seedWithAutumn(otium, clock, now);
		const { db } = otium;
		const staffId = async (sign_in: string) => (await db('staff').where({ sign_in }).first('id'))!.id as string;
		const ode: StaffMember = {
			id: await staffId('ode'),
			name: 'Maren Ode',
			roles: [{ role: 'coordinator', siteId: null }]
		};
		const by = { role: 'coordinator' as const, id: ode.id };
		const { id: paperId } = await db('paper').where({ title: 'Marks and Signals' }).first('id');
		const of = { administrationId: 'autumn', paperId, questionId: 'MS-15' };
		const plan = { markers: [{ id: ode.id, share: 1 }], secondPercent: 0, tolerance: 0, rubric: [] };
		await savePlan(otium, by, of, plan, 1);
		for (const [i, { key }] of (await workOfMarker(db, ode.id, of)).queue.entries())
			await giveMark(otium, by, of, { id: `mark-${i}-x`, key, points: 4, criteria: {}, comment: '', tookMs: 9 });
		const wrong = { ...of, questionId: 'MS-6' };
		await propose(otium, by, 'correction-1', wrong, { kind: 'for_all' }, 'wrong key');
		const { basis } = await foresee(otium, wrong, { kind: 'for_all' });
		await confirm(otium, { role: 'closing_officer', id: await staffId('lorne') }, 'correction-1', basis);
		const people: string[] = await db('incident_person').where({ incident_id: 'autumn-alarm' }).pluck('sitting_id');
		await decideIncident(otium, by, 'autumn-alarm', people, 'time_given', '');
		const absent: string[] = await db('sitting').where({ administration_id: 'autumn', state: 'absent' }).pluck('id');
		await waive(otium, by, await owedAmong(db, ode, absent, otium.now()), 'left');
		for (const session of await findSessions(db, (query) => query.where({ 'session.administration_id': 'autumn' }))) {
			if (await isAlikeOpen(otium, session)) await decideAlike(otium, by, session, 'looked at');
			await signOff(otium, ode, by, 'autumn', session.site.id);
		}
	}
});

test('a server that is killed at any step of a closing has either closed with its archive, or is as before', async ({
	browser
}) => {
	test.setTimeout(480_000);
	const closed = () => home.read((db) => db('closing').first('archive', 'sha256'));
	const there = (end: string) =>
		existsSync(archivesIn(home.dir)) && readdirSync(archivesIn(home.dir)).some((name) => name.endsWith(end));
	let tries = 0;
	// While the archive is written, when it has its name, and so many ms later, up to the closing and beyond.
	for (const [step, later] of [
		['.part', 0],
		['.zip', 0],
		['.zip', 6],
		['.zip', 2_000]
	] as const) {
		rmSync(archivesIn(home.dir), { recursive: true, force: true });
		const lorne = await home.staff(browser, 'lorne');
		await lorne.goto('/close-out?of=autumn');
		await lorne.getByTestId('close').click();
		await lorne.getByRole('checkbox').check();
		await lorne.getByLabel(/^Type its name/).fill('Autumn Deck Officer Examinations');
		await lorne.getByTestId('confirm').click();
		const until = Date.now() + 100_000;
		while (!there(step) && Date.now() < until) await new Promise((resolve) => setTimeout(resolve, 1));
		await new Promise((resolve) => setTimeout(resolve, later));
		await home.kill();
		tries++;
		const is = await closed();
		await home.closeContexts();
		await home.start();
		if (is) {
			const verdict = await verifyArchive(join(archivesIn(home.dir), is.archive));
			expect(verdict).toMatchObject({ faults: [], remarked: 50 });
			break;
		}
		expect(await home.read((db) => db('question_figure').where({ administration_id: 'autumn' }))).toEqual([]);
	}
	expect(await closed(), `not closed after ${tries} tries`).toBeTruthy();
	expect(tries).toBeGreaterThan(1);
	const ode = await home.staff(browser);
	await ode.goto('/close-out?of=autumn');
	await expect(ode.getByTestId('closing-sentence')).toContainText('Petra Lorne closed it');
});
