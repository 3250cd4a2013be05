import { expect, test } from '@playwright/test';
import { DEMO_PASSWORD } from '../src/lib/server/demo';
import { house } from './house';
import { firefox, webkit, type Tab } from './other-browsers';

const home = house();
const WATCH_A = 'Tides and Currents · Watch A';
/** A browser on a busy machine takes its time for what a person does not notice. */
const there = (tab: Tab, css: string) => expect.poll(() => tab.text(css), { message: css }).not.toBe('');
const says = (tab: Tab, css: string, words: string | RegExp) =>
	expect.poll(() => tab.text(css), { message: css }).toMatch(typeof words === 'string' ? new RegExp(words) : words);

/** What the server holds of them. */
const standing = (sessionId: string, number: string) =>
	home.read(async (db) => {
		const rows = db('answer')
			.join('sitting', 'sitting.id', 'answer.sitting_id')
			.join('candidate', 'candidate.id', 'sitting.candidate_id')
			.where({ number, session_id: sessionId });
		return (await rows.select('seq')).length;
	});

for (const [nth, open] of [firefox, webkit].entries()) {
	const number = ['DO-1020', 'DO-1021'][nth];

	test(`${open.name}: door, paper, a lost line and the live room`, async () => {
		test.setTimeout(300_000);
		const { id, code, family } = await home.makeWayFor(WATCH_A, number);
		await home.read((db) =>
			db('session')
				.where({ id })
				.update({ rules: db.raw("json_set(rules, '$.admission', 'proctor')") })
		);
		const browser = await open();
		try {
			const proctor = await browser.tab();
			await proctor.go(`${home.url}/sign-in`);
			await there(proctor, 'h1');
			await proctor.type('#name', 'dunmore');
			await proctor.type('#password', DEMO_PASSWORD);
			await proctor.press('button[type=submit]');
			await says(proctor, 'body', 'Today');
			await proctor.go(`${home.url}/live/${id}`);
			await there(proctor, '[data-testid=needs]');

			const candidate = await browser.tab();
			await candidate.go(`${home.url}/sit`);
			await there(candidate, '[data-testid=knock]:enabled');
			await candidate.type('[name=code]', code);
			await candidate.type('[name=number]', number);
			await candidate.type('[name=family]', family);
			await candidate.press('[data-testid=knock]');
			await says(candidate, '[data-testid=name]', family);
			await candidate.press('[data-testid=yes]');

			await says(proctor, '[data-testid=needs]', family);
			// Several are named before they are let in, one is not.
			const isOne = (await proctor.text('[data-testid=let-in-all]')).includes('Let in 1');
			await proctor.key('l');
			if (!isOne) {
				await there(proctor, '[data-testid=confirm]');
				await proctor.key('Enter');
			}
			await says(proctor, '[data-testid=notices]', 'Let in');
			await there(candidate, '[data-testid=begin]:enabled');
			await candidate.press('[data-testid=begin]');

			await there(candidate, '[data-question]');
			const before = await standing(id, number);
			await answer(candidate);
			await says(candidate, '[data-testid=saved]', /Saved \d\d/);
			await home.kill();
			await answer(candidate);
			await says(candidate, '[data-testid=saved]', '1 answer is kept here');
			await says(proctor, 'body', 'not live');
			await home.start();
			await says(candidate, '[data-testid=saved]', /Saved \d\d/);
			await expect.poll(() => standing(id, number)).toEqual(before + 2);
			await says(proctor, '[data-testid=seats]', family);

			await candidate.press('[data-testid=hand-in]');
			await there(candidate, '[data-testid=confirm-hand-in]');
			await candidate.press('[data-testid=confirm-hand-in]');
			await says(candidate, '[data-testid=confirm-hand-in]', /./);
			await candidate.press('[data-testid=confirm-hand-in]');
			await there(candidate, '[data-testid=receipt]');
		} finally {
			await browser.close();
		}
	});
}

/** Answers the next question that can be answered by one press or a word. */
async function answer(tab: Tab) {
	for (let nth = 1; nth < 24; nth++) {
		await tab.press('[data-testid=next]');
		await there(tab, '[data-question]');
		if (await tab.has('[data-question] :is([type=radio], [type=checkbox]):not(:checked)'))
			return tab.press('[data-question] :is([type=radio], [type=checkbox]):not(:checked)');
		if (await tab.has('[data-question] :is([type=text], textarea)'))
			return tab.type('[data-question] :is([type=text], textarea)', '7');
	}
}
