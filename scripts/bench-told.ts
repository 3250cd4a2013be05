import { measureCalm } from './bench-calm';
import { measureGrants } from './bench-grants';
import { measureHostile } from './bench-hostile';
import { longPaper, measurePapers } from './bench-papers';
import { measurePages } from './bench-pages';
import { measureScroll } from './bench-scroll';
import { measureTyping } from './bench-typing';

/** One figure, with what is aimed at beside it. */
export function row(what: string, value: string, beside = '') {
	console.log(`${what.padEnd(48)} ${value.padEnd(24)} ${beside}`);
}

/** What honest candidates notice of somebody who sends all that an outsider can. */
export async function tellHostile(seconds: number) {
	const { quiet, hostile, attacks } = await measureHostile(seconds);
	for (const [name, answers] of Object.entries(attacks))
		row(
			name,
			Object.entries(answers)
				.map(([status, times]) => `${times} × ${status}`)
				.join(', ')
		);
	for (const [name, { median, p99, requests }] of Object.entries({ quiet, hostile }))
		row(
			`500 honest candidates, ${name}`,
			`median ${median.toFixed(1)} ms, 99 % within ${p99.toFixed(1)} ms`,
			`${requests} requests`
		);
	row('99 % beside that of quiet', (hostile.p99 / quiet.p99).toFixed(2), '(aim: at most 2)');
}

/** What a grant costs, and a day of them. */
export async function tellGrants() {
	const made = await measureGrants();
	console.log('10,000 people, 200 sessions, 20 rooms:');
	row('One grant foreseen: the day and the windows that fit', `${made.foreseeMs.toFixed(0)} ms`, '(aim: under 50)');
	row(`A day of 29 sessions, ${made.dayPeople} people with a grant`, `${made.dayMs.toFixed(0)} ms`);
	row('Who is owed a sitting', `${made.owedMs.toFixed(0)} ms`);
	row(
		`Windows for ${made.unfitting} whose time does not fit`,
		`${made.planSeconds.toFixed(1)} s, ${made.placed} placed`,
		'(aim: under 20)'
	);
	row('Longest wait of other requests at that time', `${made.longestWaitMs.toFixed(0)} ms`);
}

/** What authors wait for, and what dealing costs. */
export async function tellPapers() {
	const { dealSeconds, fillSeconds, formsSeconds, packageSeconds, listMs, searchMs } = await measurePapers();
	row('1,000 forms of 100 questions, ten calculated', `${dealSeconds.toFixed(2)} s`, '(aim: under 1)');
	row('A plan of 60 filled from 5,000 questions', `${fillSeconds.toFixed(2)} s`, '(aim: under 10)');
	row('Four forms of 40 made of 400 questions', `${formsSeconds.toFixed(2)} s`, '(aim: under 10)');
	row('A package of 500 questions, out and in', `${packageSeconds.toFixed(2)} s`, '(aim: under 5)');
	const { medianMs, most95Ms, keys } = await measureTyping(longPaper());
	row(
		'A key in the editor, paper of 300 questions',
		`${medianMs.toFixed(1)} ms, 95 % within ${most95Ms.toFixed(1)} ms`,
		`of ${keys} keys (aim: 16)`
	);
	row('A page of a bank of 20,000', `${listMs.toFixed(0)} ms`, '(aim: under 100)');
	row('A search in it', `${searchMs.toFixed(0)} ms`, '(aim: under 100)');
}

/** How smoothly a large room scrolls. */
export async function tellScroll(seats: number) {
	for (const { view, framesASecond, gap95Ms, longTasks, longestMs } of await measureScroll(seats))
		row(
			`Scrolling ${seats} in the ${view}`,
			`${framesASecond.toFixed(0)} frames a second, 95 % within ${gap95Ms.toFixed(1)} ms`,
			`${longTasks} tasks over 50 ms, the longest ${Math.round(longestMs)} ms (aim: 60 frames, none)`
		);
}

/** Pages of the staff in large houses for which everybody else waits longest. */
export async function tellPages(size: number) {
	const figures = (await measurePages(size)).sort((a, b) => b.longestWaitMs - a.longestWaitMs);
	for (const { house, path, tookMs, longestWaitMs } of figures.slice(0, MOST_PAGES))
		row(
			`${house}: ${path}`,
			`others wait ${Math.round(longestWaitMs)} ms`,
			`${Math.round(tookMs)} ms in all (aim: 50 ms)`
		);
	row(
		`The other ${figures.length - MOST_PAGES}`,
		`others wait ${Math.round(figures[MOST_PAGES].longestWaitMs)} ms`,
		'at the most'
	);
}

const MOST_PAGES = 15;

/** How long the event loop stood still while something large was done beside two hundred candidates who save. */
export async function tellCalm(size: number) {
	for (const { what, tookMs, longestTaskMs, saves } of await measureCalm(size))
		row(
			`While ${what}`,
			`longest task ${Math.round(longestTaskMs)} ms`,
			`${Math.round(tookMs)} ms in all, ${saves} answers saved meanwhile (aim: no task over 50 ms)`
		);
}
