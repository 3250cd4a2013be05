import { questionsOf } from '$core/paper';
import { parse } from 'csv-parse/sync';
import { expect, it } from 'vitest';
import { DEMO_PAPERS } from '../demo';
import { paperCsv } from './paper-csv';

it('a paper as a table is read back by csv-parse, a row for each question, and nothing in it is run', () => {
	for (const { paper } of DEMO_PAPERS) {
		const rows: Record<string, string>[] = parse(paperCsv(paper), { bom: true, columns: true });
		const questions = questionsOf(paper);
		expect(rows.map(({ Question }) => Question)).toEqual(questions.map(({ stem }) => stem));
		expect(rows.map(({ Points }) => Number(Points))).toEqual(questions.map(({ points }) => points));
	}
	const question = { id: 'a', kind: 'short', stem: '=1+1', points: 1, topic: '', accepted: ['x'] } as const;
	const hostile = { title: 'x', parts: [{ title: '@sum', draw: null, questions: [{ ...question, accepted: ['x'] }] }] };
	expect(paperCsv(hostile)).toContain(`"'=1+1"`);
	expect(paperCsv(hostile)).toContain(`"'@sum"`);
});
