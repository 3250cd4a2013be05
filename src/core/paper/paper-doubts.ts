import { counted } from '../names';
import { type Choice, type Paper, type Question, questionsOf, sumOfPoints } from './question';
import { formsOf } from './paper-forms';
import { type Pool, poolsOf } from './pools';
import { partLetter } from './edit';
import { leadOf } from './units';
import { type Doubt, doubtsOf, ENOUGH_TO_TELL } from './quality';

/** What is doubtful about a paper, its questions included; the grave come first. */
export function doubtsOfPaper(paper: Paper): Doubt[] {
	const all = questionsOf(paper);
	const doubts = all.flatMap((question) => doubtsOf(question, paper));
	if (paper.forms) doubts.push(...doubtsOfForms(paper));
	else for (const part of paper.parts) doubts.push(...doubtsOfPart(part), ...doubtsOfShared(part));
	doubts.push(...sharedApart(paper), ...stepsApart(paper));
	const silent = paper.material?.find(({ pages }) => pages.some(({ alt }) => !alt.trim()));
	if (silent)
		doubts.push({
			code: 'no_alternative_text',
			text: `A page of “${silent.name}” has no description for people who can’t see it.`,
			isGrave: false,
			questionIds: []
		});
	const single = all.filter((question) => question.kind === 'single');
	const told = single.filter((question) => isLongest(question));
	if (single.length >= ENOUGH_TO_TELL && told.length > single.length * 0.7)
		doubts.push({
			code: 'longest_is_right',
			text: `In ${told.length} of ${counted(single.length, 'question')} the longest choice is the right one. Anyone who notices can guess.`,
			isGrave: false,
			questionIds: told.map(({ id }) => id)
		});
	doubts.push(...sameLetter(single), ...missingLanguages(all));
	return doubts.sort((a, b) => Number(b.isGrave) - Number(a.isGrave));
}

function doubtsOfPart(part: Paper['parts'][number]): Doubt[] {
	if (part.draw === null) return [];
	const pools = poolsOf(part);
	const doubts = pools.flatMap(doubtsOfPool);
	const inNone = part.questions.filter((one) => !pools.some(({ units }) => units.flat().includes(one)));
	if (part.strata && inNone.length > 0)
		doubts.push({
			code: 'never_dealt',
			text: `${inNone.length === 1 ? 'One question' : `${inNone.length} questions`} of ${part.title || 'a pool'} can never be dealt: none of that difficulty are wanted.`,
			isGrave: false,
			questionIds: inNone.map(({ id }) => id)
		});
	return doubts;
}

function doubtsOfPool({ name: title, draw, units }: Pool): Doubt[] {
	const questionIds = units.flat().map(({ id }) => id);
	if (draw > units.length)
		return [
			{
				code: 'too_few_in_pool',
				text: `${title || 'A pool'} deals ${draw} and has ${units.length}. Add ${draw - units.length}, or deal fewer.`,
				isGrave: true,
				questionIds
			}
		];
	const points = [...new Set(units.map(sumOfPoints))];
	if (points.length <= 1) {
		if (new Set(units.map(({ length }) => length)).size <= 1) return [];
		return [
			{
				code: 'steps_differ',
				text: `Some questions of ${title || 'a pool'} have others that go with them and some have not: candidates would get different numbers of questions.`,
				isGrave: true,
				questionIds
			}
		];
	}
	return [
		{
			code: 'points_differ',
			text: `Questions of ${title || 'a pool'} have ${points.sort((a, b) => a - b).join(', ')} points: candidates could reach different scores.`,
			isGrave: true,
			questionIds
		}
	];
}

/** Forms that are not worth the same, and questions that nobody would get. */
function doubtsOfForms(paper: Paper): Doubt[] {
	const forms = formsOf(paper);
	const doubts: Doubt[] = [];
	const sizes = forms.map(({ name, questions }) => ({
		name,
		text: `${questions.length} ${questions.length === 1 ? 'question' : 'questions'} and ${sumOfPoints(questions)} points`
	}));
	const other = sizes.find(({ text }) => text !== sizes[0].text);
	if (other)
		doubts.push({
			code: 'forms_differ',
			text: `Form ${sizes[0].name} has ${sizes[0].text}, form ${other.name} ${other.text}: candidates could reach different scores.`,
			isGrave: true,
			questionIds: []
		});
	const inNone = questionsOf(paper).filter((one) => !forms.some(({ questions }) => questions.includes(one)));
	if (inNone.length > 0)
		doubts.push({
			code: 'in_no_form',
			text: `${inNone.length === 1 ? 'One question is' : `${inNone.length} questions are`} in no form: nobody gets ${inNone.length === 1 ? 'it' : 'them'}.`,
			isGrave: false,
			questionIds: inNone.map(({ id }) => id)
		});
	return doubts;
}

/** Of a pool some are dealt and others not: what builds on the one before it may come without it. */
function doubtsOfShared({ title, draw, questions }: Paper['parts'][number]): Doubt[] {
	const shared = questions.filter(({ stimulus }) => stimulus);
	if (draw === null || shared.length === 0) return [];
	return [
		{
			code: 'shared_text_in_pool',
			text: `${title || 'A pool'} deals single questions, and ${shared.length} of them share a text: candidates may get only some of those.`,
			isGrave: false,
			questionIds: shared.map(({ id }) => id)
		}
	];
}

/** What goes with a question that is not in its part, or that goes with another itself, stands alone. */
function stepsApart({ parts }: Paper): Doubt[] {
	return parts.flatMap(({ questions }) =>
		questions
			.filter((one) => one.follows !== undefined && !leadOf(questions, one))
			.map(({ id }) => ({
				code: 'steps_apart' as const,
				text: 'The question that it goes with is not in this part: it is dealt by itself.',
				isGrave: false,
				questionIds: [id]
			}))
	);
}

/** One text that says two things, or whose questions stand in two parts, is two texts. */
function sharedApart({ parts }: Paper): Doubt[] {
	const seen = new Map<string, { part: number; text: string; ids: string[] }>();
	const doubts: Doubt[] = [];
	for (const [part, { questions }] of parts.entries())
		for (const { id, stimulus } of questions) {
			if (!stimulus) continue;
			const text = JSON.stringify([stimulus.text, stimulus.media ?? []]);
			const first = seen.get(stimulus.id);
			if (!first) seen.set(stimulus.id, { part, text, ids: [id] });
			else if (first.part !== part || first.text !== text)
				doubts.push({
					code: 'shared_text_apart',
					text:
						first.part === part
							? 'Two questions share a text, and it differs between them. Change it in one of them.'
							: `Questions that share a text stand in parts ${partLetter(first.part)} and ${partLetter(part)}: move them into one.`,
					isGrave: first.part === part,
					questionIds: [first.ids[0], id]
				});
		}
	return doubts;
}

/** Whether the right choice is longer than each other one by more than a little. */
function isLongest(question: Extract<Question, { kind: 'single' }>): boolean {
	const right = question.choices.find(({ id }) => id === question.answer);
	const others = question.choices.filter((choice) => choice !== right);
	return right !== undefined && others.every(({ text }) => right.text.length > text.length * 1.2);
}

/** The right choice stands at the same letter more often than chance would have it, and candidates see it there. */
function sameLetter(single: Extract<Question, { kind: 'single' }>[]): Doubt[] {
	if (single.length < ENOUGH_TO_TELL) return [];
	const at = single.map((question) => question.choices.findIndex(({ id }) => id === question.answer));
	for (const place of new Set(at)) {
		const there = single.filter((_, i) => at[i] === place);
		if (place < 0 || there.length <= single.length * 0.8) continue;
		return [
			{
				code: 'same_letter',
				text: `In ${there.length} of ${counted(single.length, 'question')} the right choice is ${partLetter(place)}. It does not matter where candidates have their own order of choices.`,
				isGrave: false,
				questionIds: there.map(({ id }) => id)
			}
		];
	}
	return [];
}

function missingLanguages(questions: Question[]): Doubt[] {
	const tags = new Set(questions.flatMap((question) => Object.keys(question.inOther ?? {})));
	return [...tags].flatMap((tag): Doubt[] => {
		const missing = questions.filter((question) => !isWhole(question, tag));
		if (missing.length === 0) return [];
		return [
			{
				code: 'language_not_whole',
				text: `${missing.length} of ${counted(questions.length, 'question')} are not complete in ${tag}: candidates who read it get the paper’s own language there.`,
				isGrave: false,
				questionIds: missing.map(({ id }) => id)
			}
		];
	});
}

function isWhole(question: Question, tag: string): boolean {
	const wording = question.inOther?.[tag];
	if (!wording?.stem.trim()) return false;
	const texts: Choice[] = [
		...('choices' in question ? question.choices : []),
		...(question.kind === 'matching' ? [...question.items, ...question.matches] : [])
	];
	return texts.every(({ id, text }) => wording.texts?.[id]?.trim() || /^[^\p{L}]*$/u.test(text));
}
