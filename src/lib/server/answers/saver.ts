import { answerShape, fitsQuestion, NOTES, type AnswerShape, type Form, type Revision } from '$core/paper';
import { fail } from '$core/problem';
import type { House } from '../house';
import { dealtForm, isUnavailable, transact } from '../db';
import { gather, giveWay } from '../event-loop';
import { appendToLogbook } from '../logbook';
import { OwnIds } from '../sitting';
import { writeGroup, type Kept, type Places, type Saved } from './write-group';
import { latest } from '../latest';

/** What this needs of the house. */
type Needs = Pick<House, 'db' | 'now' | 'log' | 'hub' | 'pace'>;

type Waiting = {
	sittingId: string;
	epoch: number;
	revisions: Revision[];
	places: Places;
	isUnproven: boolean;
	resolve: (saved: Saved) => void;
	reject: (error: unknown) => void;
};

/** `ids`: what the device calls what is on it; null: nothing is dealt yet. Without any words: there is one for each who sits. */
type KnownForm = { questions: Map<string, AnswerShape>; places: Places; ids: OwnIds | null };

/** So many saves go into one commit at the most; the rest wait for the next, which starts at once. */
const GROUP = 200;
/** So many changes one device makes at the most while its line is down: one a second for half a day. */
const MOST_AHEAD = 50_000;
/** A group larger than this means that saves come close together. */
const BUSY = 4;

/**
 * Saves answers durably. Whatever arrives while one commit is on its way to the disk goes into the next together:
 * a commit costs the same for one answer as for a hundred.
 */
export class AnswerSaver {
	#waiting: Waiting[] = [];
	#running: Promise<void> | null = null;
	#lastGroup = 0;
	/** Forms never change once dealt, so what is on them is read once. */
	#forms = latest<KnownForm>(10_000);
	/** By sitting and device, the highest number that is known to be on the disk; a lower bound. */
	#furthest = latest<number>(20_000);

	constructor(private readonly otium: Needs) {}

	/**
	 * Saves what a device has sent, under the names that it knows.
	 * @param isUnproven nothing shows that it comes from the bound device: it is kept for a person to decide about
	 * @throws ProblemError as `save` does; also where a number runs far ahead of what this server has told the device
	 */
	async saveSent(sittingId: string, epoch: number, sent: Revision[], { isUnproven = false } = {}): Promise<Saved> {
		const { ids } = this.#formOf(sittingId);
		const revisions = sent.map((revision) => ids?.fromDevice(revision) ?? fail('unknown_question'));
		await this.#mustBeNear(sittingId, epoch, Math.max(...sent.map(({ seq }) => seq)));
		return this.save(sittingId, epoch, revisions, { isUnproven });
	}

	/**
	 * Resolves after the commit, never before.
	 * @param revisions under the paper's own names
	 * @throws ProblemError when an answer is for a question that is not on the form, or of another
	 * shape than it asks for; nothing of the call is saved then
	 */
	async save(sittingId: string, epoch: number, revisions: Revision[], { isUnproven = false } = {}): Promise<Saved> {
		const { questions, places } = this.#formOf(sittingId);
		// Before somebody has begun there is no question, and nothing to take notes on.
		if (questions.size === 0) fail('unknown_question');
		for (const { questionId, value } of revisions) {
			if (questionId === NOTES && (value === null || typeof value === 'string')) continue;
			const question = questions.get(questionId);
			if (!question) fail('unknown_question');
			if (!fitsQuestion(question, value)) fail('unfitting_answer');
		}
		return new Promise((resolve, reject) => {
			this.#waiting.push({ sittingId, epoch, revisions, places, isUnproven, resolve, reject });
			this.#running ??= this.#run();
		});
	}

	/**
	 * A device counts on from the number that it was told, one for each change. A number far beyond would shut out all that
	 * comes after it.
	 * @throws ProblemError number_ahead
	 */
	async #mustBeNear(sittingId: string, epoch: number, seq: number): Promise<void> {
		const key = `${sittingId} ${epoch}`;
		if (seq <= (this.#furthest.get(key) ?? 0) + MOST_AHEAD) return;
		const row = await this.otium.db('answer').where({ sitting_id: sittingId, epoch }).max('seq as seq').first();
		const furthest = (row?.seq as number | null) ?? 0;
		this.#furthest.set(key, furthest);
		if (seq > furthest + MOST_AHEAD) fail('number_ahead');
	}

	/** Waits until nothing is left to write. */
	async drain(): Promise<void> {
		while (this.#running) await this.#running;
	}

	async #run() {
		while (this.#waiting.length > 0) {
			await this.#gather();
			await this.#writeNext(this.#waiting.splice(0, GROUP));
		}
		this.#running = null;
	}

	/**
	 * A busy server commits in larger groups. On a quiet one a save waits for a single turn of the event loop; on a busy one,
	 * where the last group had company, a turn is long enough for the next requests to be read.
	 */
	#gather(): Promise<void> {
		return gather(() => this.#waiting.length, GROUP, this.#lastGroup > BUSY ? undefined : giveWay);
	}

	async #writeNext(group: Waiting[]) {
		this.#lastGroup = group.length;
		await this.#write(group);
	}

	/** One that can't be written fails alone: the others of its group are written without it. */
	async #write(group: Waiting[]) {
		const now = this.otium.now();
		try {
			const verdicts = await transact(this.otium.db, async (trx) => {
				const verdicts = await writeGroup(trx, group, now);
				await appendToLogbook(trx, keptEntries(group, verdicts, now));
				return verdicts;
			});
			group.forEach((one, i) =>
				one.resolve({ seqs: one.revisions.map((revision) => revision.seq), at: now, kept: verdicts[i].kept })
			);
			this.otium.pace.answered(group.map((one) => one.sittingId));
			this.otium.hub.answered(group.map((one, i) => ({ sittingId: one.sittingId, sessionId: verdicts[i].sessionId })));
		} catch (error) {
			if (group.length > 1 && !isUnavailable(error)) {
				for (const one of group) await this.#write([one]);
				return;
			}
			// Without the statement: answers do not belong into a log.
			this.otium.log.error(
				{ code: (error as { code?: string }).code, saves: group.length },
				'answers could not be saved'
			);
			for (const one of group) one.reject(error);
		}
	}

	#formOf(sittingId: string): KnownForm {
		const known = this.#forms.get(sittingId);
		if (known) return known;
		const dealt = dealtForm(this.otium.db, sittingId);
		const form: Form | null = dealt === undefined ? null : JSON.parse(dealt);
		const questions = (form?.questions ?? []).map(answerShape);
		const fresh = {
			questions: new Map(questions.map((question) => [question.id, question])),
			places: new Map(questions.map((question, i) => [question.id, i])),
			ids: form && new OwnIds(this.otium.db, sittingId, questions)
		};
		if (form) this.#forms.set(sittingId, fresh);
		return fresh;
	}
}

/** Answers that were kept without standing are somebody's to decide about, so they are told. */
function keptEntries(group: Waiting[], verdicts: { kept: Kept | null; sessionId: string }[], now: number) {
	return group.flatMap((one, i) => {
		const { kept, sessionId } = verdicts[i];
		if (!kept) return [];
		const body = { because: kept, answers: one.revisions.length };
		return [
			{
				at: now,
				by: { role: 'system' as const, id: 'answers' },
				kind: 'answers_kept',
				sessionId,
				sittingId: one.sittingId,
				body
			}
		];
	});
}
