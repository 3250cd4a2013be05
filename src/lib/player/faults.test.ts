import 'fake-indexeddb/auto';
import fc from 'fast-check';
import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import { LocalStore } from './local-store';
import { Outbox } from './outbox.svelte';
import { runs } from '$core/testing/runs';

/**
 * Everything that can go wrong between a key press and the server's disk, at random: any call of the device's storage
 * fails, the server is silent, loses its answer after saving, or answers with any status. What was ever shown as saved must
 * be on the server, and when all is well again everything must be, but for what was put aside and told.
 */
type Fault = { storage: boolean; server: number | 'silent' | 'answer lost' };
const anyFault: fc.Arbitrary<Fault> = fc.record({
	storage: fc.boolean(),
	server: fc.oneof(
		{ weight: 4, arbitrary: fc.constant(200) },
		{ weight: 1, arbitrary: fc.constantFrom('silent' as const, 'answer lost' as const) },
		{ weight: 1, arbitrary: fc.constantFrom(204, 401, 403, 408, 409, 413, 429, 500, 502, 503, 504) }
	)
});
const anyStep = fc.record({
	fault: anyFault,
	question: fc.constantFrom('q1', 'q2', 'essay'),
	/** The page is loaded anew before this answer. */
	reload: fc.nat(9).map((n) => n === 0)
});

/** Calls of the device's storage, each of which may fail. */
const CALLS = [
	[IDBDatabase.prototype, 'transaction'],
	[IDBObjectStore.prototype, 'put'],
	[IDBObjectStore.prototype, 'get'],
	[IDBObjectStore.prototype, 'getAll'],
	[IDBObjectStore.prototype, 'delete']
] as const;

let fault: Fault;
let has: Map<string, { seq: number; value: unknown }>;
let failing: number;

beforeEach(() => {
	fault = { storage: false, server: 200 };
	failing = 0;
	has = new Map();
	vi.stubGlobal('addEventListener', () => {});
	vi.stubGlobal('removeEventListener', () => {});
	for (const [owner, name] of CALLS) {
		const real = owner[name as never] as (...args: unknown[]) => unknown;
		vi.spyOn(owner as unknown as Record<string, () => unknown>, name).mockImplementation(function (
			this: unknown,
			...args: unknown[]
		) {
			// Not always the first call: each of them fails some time.
			if (fault.storage && failing++ % 3 === 2) throw new DOMException('The disk is full.', 'QuotaExceededError');
			return real.apply(this, args);
		} as never);
	}
	vi.stubGlobal('fetch', async (_: string, init: RequestInit) => {
		const { server } = fault;
		if (server === 'silent') throw new TypeError('network');
		if (server !== 200 && server !== 'answer lost')
			return new Response(server === 204 ? null : JSON.stringify({ code: 'x', message: 'X.' }), { status: server });
		const { revisions } = JSON.parse(init.body as string) as {
			revisions: { seq: number; questionId: string; value: unknown }[];
		};
		for (const { questionId, ...one } of revisions) {
			const known = has.get(questionId);
			if (!known || one.seq > known.seq) has.set(questionId, one);
		}
		if (server === 'answer lost') throw new TypeError('the answer was lost');
		return Response.json({ seqs: revisions.map((one) => one.seq), at: 1, kept: null });
	});
});
afterEach(() => {
	vi.restoreAllMocks();
	vi.unstubAllGlobals();
});

it('what was shown as saved is on the server, whatever fails', async () => {
	let run = 0;
	await fc.assert(
		fc.asyncProperty(fc.array(anyStep, { minLength: 1, maxLength: 25 }), async (steps) => {
			const place = { sittingId: `faults-${run++}-${Math.random()}`, epoch: 1 };
			has.clear();
			fault = { storage: false, server: 200 };
			const given = new Map<string, string>();
			let outbox = new Outbox(await LocalStore.open(), place);
			const check = () => {
				if (outbox.waiting > 0) return;
				const aside = new Set(outbox.aside.map((one) => one.questionId));
				for (const [question, value] of given) if (!aside.has(question)) expect(has.get(question)?.value).toBe(value);
			};
			for (const [i, step] of steps.entries()) {
				// A reload loses what only memory had: then the page has said so, and warned before leaving.
				if (step.reload && outbox.isDurable) {
					fault = { storage: false, server: 'silent' };
					await outbox.flush();
					outbox.stop();
					const store = await LocalStore.open();
					await store.startAfter(place, Math.max(0, ...[...has.values()].map((one) => one.seq)));
					outbox = new Outbox(store, place);
					fault = { storage: false, server: 'silent' };
					await outbox.flush();
				}
				({ fault } = step);
				const value = `${step.question} ${i}`;
				given.set(step.question, value);
				await outbox.put({ questionId: step.question, value, marked: false, struck: [], inViewMs: 1 });
				await outbox.flush();
				check();
			}
			fault = { storage: false, server: 200 };
			for (let i = 0; i < 3; i++) await outbox.flush();
			expect(outbox.waiting).toBe(0);
			check();
			outbox.stop();
		}),
		{ numRuns: runs(150) }
	);
}, 120_000);
