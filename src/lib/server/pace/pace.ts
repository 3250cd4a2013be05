import { groupBy } from '$core/group-by';
import { questionsOf } from '$core/paper';
import { nanoid } from 'nanoid';
import { checkedTimes, HOLD_IN_A_ROW, isRapid, paceOf, thresholdMs, wordsOf, type Response } from '$core/pace';
import { transact, type Query } from '../db';
import { unionLength } from '$core/time';
import type { House } from '../house';
import { paperVersion } from '../paper';
import { act, loadSittings, type Loaded } from '../sitting';
import { latest } from '../latest';

/** What this needs of the house. */
type Needs = Pick<House, 'db' | 'now' | 'hub'>;

/** Observations are counted anew so often; between, a threshold stays as it is. */
const REFRESH_MS = 60_000;
/** So many sittings are looked at in one turn of the sweep; the others wait for the next. */
const A_TURN = 250;

type News = { one: Loaded; pace: ReturnType<typeof paceOf> };
type Thresholds = { at: number; byQuestion: Map<string, number> };

/**
 * Looks at how fast answers come, beside the saving and never in its way: what was answered since the last turn is
 * worked out anew, kept where lists read it, and told when it changed.
 */
export class PaceWatch {
	#dirty = new Set<string>();
	#thresholds = latest<Thresholds>(100);
	/** How many answers there were when a sitting was last held for its pace. */
	#heldAt = latest<number>(20_000);

	constructor(private readonly otium: Needs) {}

	answered(sittingIds: Iterable<string>) {
		for (const id of sittingIds) this.#dirty.add(id);
	}

	async sweep(): Promise<void> {
		const ids = [...this.#dirty].slice(0, A_TURN);
		if (ids.length === 0) return;
		for (const id of ids) this.#dirty.delete(id);
		const { db, now } = this.otium;
		const loaded = (await loadSittings(db, ids, now())).filter((one) => one.session.rules.pace.watched);
		const responses = await this.responsesOf(db, loaded);
		const news: News[] = [];
		for (const one of loaded) {
			const { questions } = await paperVersion(db, one.paperId);
			const pace = paceOf(responses.get(one.sitting.id) ?? [], questions);
			if (pace.level !== one.pace || pace.rapid !== one.rapid) news.push({ one, pace });
		}
		await this.#keep(news);
		for (const one of loaded) await this.#holdIfRapid(one, responses.get(one.sitting.id) ?? []);
	}

	/** Those who come to the same are written together: a commit and a statement each would be most of a busy server's. */
	async #keep(news: News[]) {
		if (news.length === 0) return;
		await transact(this.otium.db, async (trx) => {
			for (const [, same] of groupBy(news, ({ pace }) => `${pace.level} ${pace.rapid}`)) {
				const [{ pace }] = same;
				const ids = same.map(({ one }) => one.sitting.id);
				await trx('progress').whereIn('sitting_id', ids).update({ pace: pace.level, rapid: pace.rapid });
			}
		});
		this.otium.hub.answered(news.map(({ one }) => ({ sessionId: one.session.id, sittingId: one.sitting.id })));
	}

	async #holdIfRapid(one: Loaded, responses: Response[]) {
		const { sitting, session } = one;
		if (!session.rules.pace.holds || sitting.state !== 'working') return;
		const inARow = responses.length - 1 - responses.findLastIndex((response) => !isRapid(response));
		// Dealt with once: whoever was resumed is held again only after five more.
		const dealtWith = this.#heldAt.get(sitting.id) ?? 0;
		if (inARow < HOLD_IN_A_ROW || responses.length - dealtWith < HOLD_IN_A_ROW) return;
		this.#heldAt.set(sitting.id, responses.length);
		await act(this.otium, [
			{
				id: nanoid(),
				sittingId: sitting.id,
				by: { role: 'system', id: 'pace' },
				body: { kind: 'hold', reason: 'Five answers in a row came faster than reading takes', stopsClock: true }
			}
		]);
	}

	/** The answers of some sittings with their thresholds, in the order in which they came. */
	async responsesOf(db: Query, loaded: Loaded[]): Promise<Map<string, Response[]>> {
		const rows: { sitting_id: string; question_id: string; in_view_ms: number }[] = await db('answer_standing')
			.whereIn(
				'sitting_id',
				loaded.map((one) => one.sitting.id)
			)
			.where({ blank: 0 })
			.orderBy(['sitting_id', 'epoch', 'seq'])
			.select('sitting_id', 'question_id', 'in_view_ms');
		const bySitting = groupBy(rows, (row) => row.sitting_id);
		const result = new Map<string, Response[]>();
		for (const one of loaded) {
			const own = bySitting.get(one.sitting.id) ?? [];
			const thresholds = await this.thresholdsOf(db, one.paperId);
			// Holds, lost lines and the days between two sessions are not working time.
			const { beganAt, stops } = one.sitting;
			const now = this.otium.now();
			const elapsed = beganAt === null ? 0 : now - beganAt - unionLength(stops, beganAt, now);
			const times = checkedTimes(
				own.map((row) => row.in_view_ms),
				elapsed
			);
			result.set(
				one.sitting.id,
				own.map((row, i) => ({
					questionId: row.question_id,
					inViewMs: times[i],
					thresholdMs: thresholds.get(row.question_id) ?? 0
				}))
			);
		}
		return result;
	}

	/** By question: what people really took once enough have answered, until then what reading takes. */
	async thresholdsOf(db: Query, paperId: string): Promise<Map<string, number>> {
		const known = this.#thresholds.get(paperId);
		if (known && this.otium.now() - known.at < REFRESH_MS) return known.byQuestion;
		const rows = (await db('answer_standing')
			.join('sitting', 'sitting.id', 'answer_standing.sitting_id')
			.where({ paper_id: paperId, blank: 0 })
			.groupBy('question_id')
			.select('question_id')
			.count('* as count')
			.avg('in_view_ms as mean')) as { question_id: string; count: number; mean: number }[];
		const observed = new Map(rows.map((row) => [row.question_id, { count: row.count, meanMs: row.mean }]));
		const questions = questionsOf((await paperVersion(db, paperId)).content);
		const byQuestion = new Map(
			questions.map((question) => [question.id, thresholdMs(wordsOf(question), observed.get(question.id) ?? null)])
		);
		this.#thresholds.set(paperId, { at: this.otium.now(), byQuestion });
		return byQuestion;
	}
}
