import type { Filled, Forms } from '$core/optimal';
import type { Question } from '$core/paper';
import type { PlanCell } from '$core/plan';
import { orTooLong, ThreadError, type ThreadKind } from '../thread';
import type { House } from '../house';
import type { ChoosingTasks } from './choosing-thread';

const CHOOSING: ThreadKind<ChoosingTasks> = { entry: 'src/lib/server/bank/choosing-thread.ts', memoryMb: 768 };
/** The search itself ends after eight seconds with the best that it has. */
const DEADLINE_MS = 25_000;

/** What is asked of the bank: questions as text, so that a thread gets them fast. */
export type Choice = { bank: ChoosableRow[]; plan: PlanCell[]; minutes: number | null; now: number };
export type ChoosableRow = { content: string; lastUsed: number | null; isKnown: boolean };

/** Fills a plan in a thread of its own. null: it took too long. */
export async function choose(
	otium: Pick<House, 'threads'>,
	choice: Choice,
	signal?: AbortSignal
): Promise<Filled | null> {
	return orNothing(otium.threads.run(CHOOSING, 'fill', choice, DEADLINE_MS, signal));
}

/** Divides questions into forms that are as alike as can be. null: it took too long. */
export async function divide(
	otium: Pick<House, 'threads'>,
	asked: { questions: Question[]; forms: number; each: number },
	signal?: AbortSignal
): Promise<Forms | null> {
	return orNothing(otium.threads.run(CHOOSING, 'forms', asked, DEADLINE_MS, signal));
}

/** A search that found nothing says so by a RangeError, and is no fault of ours. */
const orNothing = <T>(work: Promise<T>): Promise<T | null> =>
	orTooLong(
		work.catch((error: unknown) => {
			if (error instanceof ThreadError && error.message.startsWith('RangeError')) return null;
			throw error;
		}),
		() => null
	);
