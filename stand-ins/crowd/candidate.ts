import { setTimeout as sleep } from 'node:timers/promises';
import type { Behaviour } from './behaviour';
import { ClientDevice, cookieName } from '../sealed-client/device';
import { Browser, type Reply } from './browser';
import { someAnswer, type Question } from './some-answer';

/** `device`: what the device that they sat at was given, when they come back to it. */
export type Person = { number: string; family: string; device?: string };
/** An answer that the server has said is safe. */
export type Acknowledged = { number: string; questionId: string; seq: number; value: unknown };

export type Ears = {
	/** Somebody is at the door, at a device that is known by this from now on. */
	arrived: (number: string, device: string) => void;
	acknowledged: (answer: Acknowledged) => void;
	refused: (reply: Reply) => void;
	log: (line: string) => void;
	/** Goes on changing answers instead of handing in, until told to stop. */
	keepsWorking: boolean;
	/** The code by which devices enrol, for those who sit with the sealed client. */
	clientCode: string | null;
	/** Told to stop: finish the step and go. */
	stopping: () => boolean;
};

/** What is waited for when the server is not to be reached. */
const RETRY_MS = 700;
/** A proof is renewed well before it runs out. */
const PROVE_MS = 60_000;
/** Letters of answers in one request; the server takes a MiB. */
const MOST_SENT = 500_000;
/** Until the server has said how often. */
const BEAT_MS = 5_000;

/** One simulated candidate, from the door to the hand-in. It keeps what it has answered until the server has it. */
export class Candidate {
	#browser: Browser;
	#seq = 0;
	/** The question before it, from 0; null: none yet. */
	#at: number | null = null;
	/** Every question of the paper by its name, in order. */
	#order: string[] = [];
	/** Those that have come: where nobody may go back they come page by page. */
	#seen = new Map<string, Question>();
	#queue: { seq: number; questionId: string; value: unknown; marked: boolean; struck: string[]; inViewMs: number }[] =
		[];
	#isOnline = true;
	/** The server has said that answers no longer count. */
	#isOver = false;

	constructor(
		private readonly url: string,
		private readonly person: Person,
		private readonly behaviour: Behaviour,
		/** Between 0 and 1, by seed. */
		private readonly random: () => number,
		/** 1 is real time. */
		private readonly tempo: number,
		private readonly ears: Ears
	) {
		this.#browser = new Browser(url, person.device);
	}

	/** Resolves true when the paper was handed in. */
	async sit(code: string): Promise<boolean> {
		await this.#wait(this.#between(this.behaviour.comes));
		await this.#proveClient();
		if (!(await this.#enter(code))) return false;
		const stopBeats = this.#beats();
		const proving = setInterval(() => void this.#proveClient().catch(() => {}), PROVE_MS);
		try {
			const order = await this.#begin();
			return order !== null && (await this.#work(order));
		} finally {
			stopBeats();
			clearInterval(proving);
		}
	}

	async #proveClient() {
		const { clientCode } = this.ears;
		if (clientCode === null) return;
		try {
			this.#browser.client ??= await ClientDevice.enrol(this.url, clientCode, `Device of ${this.person.number}`);
		} catch (error) {
			return this.ears.log(`${this.person.number}: ${(error as Error).message}`);
		}
		const proof = await this.#browser.client.prove();
		if (proof.ok) this.#browser.carry(cookieName(this.url), proof.cookie);
		else this.ears.log(`${this.person.number}: ${proof.message}`);
	}

	async #enter(code: string): Promise<boolean> {
		const met = await this.#insist('/sit/api/knock', { code, number: this.person.number, family: this.person.family });
		if (met.status !== 200) return this.#give(met);
		const commandId = `arrive-${this.person.number}-${Math.floor(this.random() * 1e9)}`;
		const arrived = await this.#insist('/sit/api/arrive', {
			note: met.body.note,
			commandId,
			deviceName: 'College laptop',
			publicKey: this.#browser.publicKey
		});
		if (arrived.status !== 200) return this.#give(arrived);
		this.ears.arrived(this.person.number, this.#browser.device!);
		return true;
	}

	/** Waits to be let in, begins, and has the paper; null when the proctor turned them away or told to stop. */
	async #begin(): Promise<string[] | null> {
		for (;;) {
			if (this.ears.stopping()) return null;
			const { body } = await this.#insist('/sit/api/picture');
			const picture = body.picture as { state: string; session: { roomWaits: boolean } };
			if (picture.state === 'let_in' && !picture.session.roomWaits) {
				const commandId = `begin-${this.person.number}-${Math.floor(this.random() * 1e9)}`;
				await this.#insist('/sit/api/begin', { commandId });
			} else if (picture.state === 'working') {
				const paper = (await this.#insist('/sit/api/paper')).body as {
					order?: string[];
					questions?: Question[];
					answers?: { questionId: string; value: unknown }[];
					lastSeq?: number;
				};
				if (!paper.order) continue;
				const given = (paper.answers ?? []).filter((answer) => answer.value !== null);
				const done = new Set(given.map((answer) => answer.questionId));
				this.#order = paper.order;
				this.#see(paper.questions);
				this.#seq = paper.lastSeq ?? 0;
				this.#at = 0;
				await this.#beat();
				// What lies before the page that was reached has been passed.
				const ahead = paper.order.slice(paper.order.findIndex((id) => this.#seen.has(id)));
				return this.ears.keepsWorking ? ahead : ahead.filter((id) => !done.has(id));
			} else if (['expected', 'handed_in', 'time_up', 'set_aside', 'absent'].includes(picture.state)) return null;
			await sleep(Math.max(250, 1_500 * this.tempo));
		}
	}

	#see(questions: Question[] = []) {
		for (const question of questions) this.#seen.set(question.id, question);
	}

	/** Turns to a question's page where a paper comes page by page. Undefined: that page lies behind. */
	async #look(id: string): Promise<Question | undefined> {
		if (this.#seen.has(id)) return this.#seen.get(id);
		this.#queue.push({ seq: ++this.#seq, questionId: id, value: null, marked: false, struck: [], inViewMs: 0 });
		while (this.#queue.length > 0 && !this.#isOver && !this.ears.stopping()) {
			await this.#send();
			if (this.#queue.length > 0) await sleep(RETRY_MS * this.tempo + 20);
		}
		if (this.#isOver || this.ears.stopping()) return undefined;
		this.#see((await this.#insist('/sit/api/page')).body.questions as Question[] | undefined);
		return this.#seen.get(id);
	}

	async #work(order: string[]): Promise<boolean> {
		const count = Math.ceil(order.length * this.behaviour.finish);
		for (const id of this.#rounds(order.slice(0, count))) {
			const question = await this.#look(id);
			if (!question) continue;
			this.#at = this.#order.indexOf(id);
			const thought = this.#between(this.behaviour.think);
			if (this.#isOnline && this.random() < this.behaviour.drop.chance)
				void this.#dropLine(this.#between(this.behaviour.drop.seconds));
			await this.#wait(thought);
			if (this.ears.stopping() || this.#isOver) return false;
			this.#queue.push({
				seq: ++this.#seq,
				questionId: question.id,
				value: someAnswer(question, this.behaviour.words, this.random),
				marked: this.random() < 0.08,
				struck: [],
				inViewMs: Math.round(thought * 1_000)
			});
			await this.#send();
		}
		while (this.#queue.length > 0 && !this.ears.stopping()) {
			await this.#send();
			await sleep(RETRY_MS * this.tempo + 20);
		}
		return this.#handIn();
	}

	/** The questions once, or over and over. */
	*#rounds(order: string[]): Generator<string> {
		do yield* order;
		while (this.ears.keepsWorking && order.length > 0);
	}

	/** Sends what is kept. What the server does not acknowledge stays. */
	async #send() {
		if (!this.#isOnline || this.#queue.length === 0) return;
		const revisions = this.#batch();
		try {
			const reply = await this.#browser.post('/sit/api/answers', { revisions });
			if (reply.status === 200 || reply.status === 409) {
				const seqs = new Set(reply.body.seqs as number[]);
				this.#queue = this.#queue.filter((one) => !seqs.has(one.seq));
				if (reply.status === 409) {
					// Over, or moved to another device: nobody goes on writing then.
					this.#isOver = reply.body.code !== 'on_hold';
					return this.ears.refused(reply);
				}
				for (const one of revisions)
					this.ears.acknowledged({
						number: this.person.number,
						questionId: one.questionId,
						seq: one.seq,
						value: one.value
					});
			} else if (reply.status < 500) this.ears.refused(reply);
		} catch {
			// The line or the server is down: what was answered is kept and sent with the next.
		}
	}

	/** As much of what is kept as one request may hold. */
	#batch() {
		let size = 0;
		const fits = this.#queue.filter((one) => (size += JSON.stringify(one).length) < MOST_SENT);
		return fits.length > 0 ? fits : this.#queue.slice(0, 1);
	}

	async #handIn(): Promise<boolean> {
		if (this.ears.stopping()) return false;
		const commandId = `hand-in-${this.person.number}-${this.#seq}`;
		const reply = await this.#insist('/sit/api/hand-in', { commandId });
		if (reply.status !== 200) this.ears.refused(reply);
		return reply.status === 200;
	}

	async #dropLine(seconds: number) {
		this.#isOnline = false;
		this.ears.log(`${this.person.number}: line down for ${Math.round(seconds)} s`);
		await this.#wait(seconds);
		this.#isOnline = true;
		await this.#send();
	}

	/** Says that it is there as often as the server asks, until the returned function is called. */
	#beats(): () => void {
		let timer: NodeJS.Timeout;
		let beatMs = BEAT_MS;
		const wait = () => {
			timer = setTimeout(async () => {
				beatMs = (await this.#beat()) ?? beatMs;
				if (!stopped) wait();
			}, beatMs);
		};
		let stopped = false;
		wait();
		return () => {
			stopped = true;
			clearTimeout(timer);
		};
	}

	async #beat(): Promise<number | null> {
		if (!this.#isOnline) return null;
		const reply = await this.#browser.post('/sit/api/beat', { at: this.#at }).catch(() => null);
		await this.#send();
		return (reply?.body.next as number | undefined) ?? null;
	}

	/** Asks until there is an answer that is not the server's own trouble. */
	async #insist(path: string, body?: unknown): Promise<Reply> {
		for (;;) {
			try {
				const reply = await (body === undefined ? this.#browser.get(path) : this.#browser.post(path, body));
				if (reply.status < 500 || this.ears.stopping()) return reply;
			} catch (error) {
				if (this.ears.stopping()) throw error;
			}
			await sleep(RETRY_MS * Math.max(this.tempo, 0.1));
		}
	}

	#give(reply: Reply): false {
		this.ears.refused(reply);
		return false;
	}

	#between([from, to]: [number, number]): number {
		return from + (to - from) * this.random();
	}

	#wait(seconds: number) {
		return sleep(seconds * 1_000 * this.tempo);
	}
}
