import { afterEach, beforeEach, expect, it } from 'vitest';
import { may } from '$core/access';
import { buildHouse, type House } from '../testing/house';
import { somebody } from '../testing/staff';
import { technicalList, tickTask } from '.';

let house: House;
const quill = somebody('quill', 'technician', 'quayside');
const by = { role: 'proctor' as const, id: 'quill' };
beforeEach(async () => {
	house = await buildHouse();
	await house.otium.db('staff').insert({ id: 'quill', name: 'Imre Quill', sign_in: 'quill', password_hash: '-' });
});
afterEach(() => house.close());

it('lists the sessions of one’s own sites with what they need, and who has seen to what', async () => {
	const { otium } = house;
	const [session] = await technicalList(otium.db, quill);
	expect(session.tasks.map(({ key, done }) => [key, done])).toEqual([
		['browser', null],
		['reach', null],
		['rehearsed', null]
	]);
	const tick = (on: boolean, task = 'reach') => tickTask(otium, quill, by, { sessionId: 's1', task, on, note: '' });
	await tick(true);
	await tick(true);
	const done = async () => (await technicalList(otium.db, quill))[0].tasks[1].done;
	expect(await done()).toMatchObject({ by: 'Imre Quill' });
	await tick(false);
	expect(await done()).toBeNull();
	await expect(tick(true, 'made-up')).rejects.toMatchObject({ problem: { code: 'not_found' } });
	const stranger = somebody('x', 'technician', 'lighthouse');
	expect(await technicalList(otium.db, stranger)).toEqual([]);
	await expect(
		tickTask(otium, stranger, by, { sessionId: 's1', task: 'reach', on: true, note: '' })
	).rejects.toMatchObject({ problem: { code: 'not_found' } });
});

it('a proctor of a site runs every session of it, and of no other', () => {
	const here = { siteId: 'quayside', proctorIds: [] };
	const all = somebody('x', 'site_proctor', 'quayside');
	const one = somebody('y', 'proctor', 'quayside');
	expect([may(all, 'run_session', here), may(one, 'run_session', here)]).toEqual([true, false]);
	expect(may(all, 'run_session', { ...here, siteId: 'lighthouse' })).toBe(false);
	expect(may(all, 'prepare', here)).toBe(false);
});
