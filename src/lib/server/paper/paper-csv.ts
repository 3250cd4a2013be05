import { writeCsv } from '$core/formats';
import { keyInWords, nameInPaper, QUESTION_KIND_NAMES, type Paper, type Question } from '$core/paper';

const HEADING = [
	'Part',
	'Number',
	'Kind',
	'Question',
	'Choices',
	'Right',
	'Points',
	'Topic',
	'Difficulty',
	'Seconds',
	'Tags',
	'Source'
];

/** A paper's questions with their keys as a table, for a spreadsheet. */
export function paperCsv(paper: Paper): string {
	const rows = paper.parts.flatMap(({ title, questions }) =>
		questions.map((question) => [
			title,
			nameInPaper(paper, question.id),
			QUESTION_KIND_NAMES[question.kind],
			question.stem,
			choicesOf(question),
			keyInWords(question),
			question.points,
			question.topic,
			question.difficulty ?? '',
			question.seconds ?? '',
			question.tags?.join(', ') ?? '',
			question.source ?? ''
		])
	);
	return writeCsv([HEADING, ...rows]);
}

function choicesOf(question: Question): string {
	const list = 'choices' in question ? question.choices : question.kind === 'matching' ? question.matches : [];
	return list.map(({ text }) => text).join('\n');
}
