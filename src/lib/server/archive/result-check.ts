import { StringDecoder } from 'node:string_decoder';
import { markForm, treatmentsOf, type Correction, type Mark } from '$core/marking';
import { handStanding, NO_PLAN, type HandMark, type HandPlan } from '$core/by-hand';
import type { AnswerValue, Form, Paper } from '$core/paper';
import { completeRules, type SessionRules } from '$core/session';
import type { Sitting } from '$core/sitting';

type Result = { sitting: string; paper: string; session: string; points: number; outOf: number; marks: Mark[] };
type Line = Record<string, unknown>;

/** What results are worked out from; all else is hashed and let go. */
const READ = [
	'results',
	'session',
	'sitting',
	'paper',
	'form',
	'answer-standing',
	'correction',
	'hand-plan',
	'hand-mark'
];

/**
 * Works every result of an archive out again. Files come piece by piece and in their order, so what is large is read down
 * to what marking needs of it.
 */
export class ResultCheck {
	checked = 0;
	#results: Result[] = [];
	#rules = new Map<string, SessionRules>();
	#papers = new Map<string, Paper>();
	#leftMs = new Map<string, number>();
	/** Of each form the questions and what was drawn for them. */
	#forms = new Map<string, Form>();
	#answers = new Map<string, Map<string, AnswerValue>>();
	#corrections: { paper: string; place: number; questionId: string; correction: Correction }[] = [];
	#plans = new Map<string, HandPlan>();
	#marks = new Map<string, (HandMark & { at: number; id: string })[]>();
	#unreadable = false;
	#rest = '';
	#decoder = new StringDecoder('utf8');

	/** The next piece of a file. */
	read(name: string, chunk: Uint8Array, isLast: boolean) {
		const kind = name.replace(/\.jsonl$/, '');
		if (!name.endsWith('.jsonl') || !READ.includes(kind)) return;
		const lines = (this.#rest + this.#decoder.write(Buffer.from(chunk))).split('\n');
		this.#rest = isLast ? '' : lines.pop()!;
		try {
			for (const line of lines) if (line !== '') this.#take(kind, JSON.parse(line) as Line);
		} catch {
			this.#unreadable = true;
		}
	}

	#take(kind: string, line: Line) {
		const sitting = line.sitting_id as string;
		switch (kind) {
			case 'results':
				return void this.#results.push(line as Result);
			case 'session':
				return void this.#rules.set(line.id as string, completeRules(line.rules as SessionRules));
			case 'sitting': {
				const { leftMs } = (line.fold as Sitting).ended ?? {};
				if (leftMs !== undefined) this.#leftMs.set(line.id as string, leftMs);
				return;
			}
			case 'paper':
				return void this.#papers.set(line.id as string, line.content as Paper);
			case 'form': {
				const form = line.form as Form;
				const questions = form.questions.map(({ id, kind, points, part, drawn }) => ({
					id,
					kind,
					points,
					part,
					stem: '',
					drawn
				}));
				return void this.#forms.set(sitting, { seed: form.seed, questions });
			}
			case 'answer-standing': {
				const own = this.#answers.get(sitting) ?? new Map<string, AnswerValue>();
				own.set(line.question_id as string, (line.value as { value: AnswerValue }).value);
				return void this.#answers.set(sitting, own);
			}
			case 'correction':
				if (line.place !== null)
					this.#corrections.push({
						paper: line.paper_id as string,
						place: line.place as number,
						questionId: line.question_id as string,
						correction: line.body as Correction
					});
				return;
			case 'hand-plan':
				return void this.#plans.set(`${line.paper_id} ${line.question_id}`, { ...NO_PLAN, ...(line.body as HandPlan) });
			case 'hand-mark': {
				if (line.taken_back_at !== null) return;
				const key = `${sitting} ${line.question_id}`;
				const { marker, points, at, id } = line as unknown as HandMark & { at: number; id: string };
				this.#marks.set(key, [...(this.#marks.get(key) ?? []), { marker, points, at, id }]);
			}
		}
	}

	/** What does not come out as it was sealed. @param asBefore an archive of before 0.24, worked out as it was then */
	faults(asBefore: boolean): string[] {
		if (this.#unreadable) return ['Some lines can’t be read, so the results were not worked out again.'];
		const corrections = this.#corrections.sort((a, b) => a.place - b.place);
		const wrong = this.#results.filter((result) => {
			this.checked++;
			const paper = this.#papers.get(result.paper);
			const form = this.#forms.get(result.sitting);
			const rules = this.#rules.get(result.session);
			if (!paper || !form || !rules) return true;
			const treatments = treatmentsOf(corrections.filter((one) => one.paper === result.paper));
			const byHand = this.#byHand(result, form);
			const score = markForm(paper, form, this.#answers.get(result.sitting) ?? new Map(), rules.marking, {
				treatments,
				byHand,
				leftMs: this.#leftMs.get(result.sitting) ?? null,
				asBefore
			});
			return Math.abs(score.points - result.points) > 1e-9 || Math.abs(score.outOf - result.outOf) > 1e-9;
		});
		if (wrong.length === 0) return [];
		return [
			`${wrong.length} of ${this.#results.length} results do not follow from their answers: ${wrong
				.slice(0, 3)
				.map(({ sitting }) => sitting)
				.join(', ')}.`
		];
	}

	#byHand({ sitting, paper }: Result, form: Form): Map<string, number> {
		const points = new Map<string, number>();
		for (const { id } of form.questions) {
			const marks = this.#marks.get(`${sitting} ${id}`);
			if (!marks) continue;
			const inOrder = marks.sort((a, b) => a.at - b.at || a.id.localeCompare(b.id));
			const standing = handStanding(this.#plans.get(`${paper} ${id}`) ?? NO_PLAN, id, sitting, inOrder);
			if (standing.points !== null) points.set(id, standing.points);
		}
		return points;
	}
}
