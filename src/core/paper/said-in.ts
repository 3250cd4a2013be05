import { keyInWords } from './key-in-words';
import { mediaBeside } from './medium';
import type { Question } from './question';

/** All that a question says, to be searched: what is asked, its choices, its key, and what its author has noted about it. */
export function saidIn(question: Question): string {
	const choices = 'choices' in question ? question.choices.map(({ text }) => text) : [];
	const others = Object.values(question.inOther ?? {}).map(({ stem }) => stem);
	const media = mediaBeside(question).map(({ alt }) => alt);
	const { stem, topic, stimulus, tags = [], source = '' } = question;
	const said = [
		stem,
		topic,
		keyInWords(question),
		stimulus?.text ?? '',
		...choices,
		...others,
		...media,
		...tags,
		source
	];
	return said.join(' ');
}
