import { join } from 'node:path';
import type { PaperFigures } from '$core/figures';
import type { Correction } from '$core/marking';
import { fail } from '$core/problem';
import type { House } from '../house';
import { orTooLong, type ThreadKind } from '../thread';
import type { MarkingTasks, RunScore } from './marking-thread';
import type { AlikePair } from '$core/alike';

const MARKING: ThreadKind<MarkingTasks> = { entry: 'src/lib/server/marking/marking-thread.ts', memoryMb: 1_024 };
/** Ten thousand sittings of a hundred questions take a slow machine about that long. */
const DEADLINE_MS = 120_000;

type Needs = Pick<House, 'threads' | 'dataDir'>;
type Of = { administrationId: string; paperId: string };

export const fileOf = ({ dataDir }: Pick<House, 'dataDir'>) => join(dataDir, 'otium.sqlite');
const tooLong = () =>
	fail('not_taken', {
		message: 'The server is too busy to work this out just now. Nothing has changed.',
		instead: 'Try again in a few minutes.'
	});

/** Marks all work on a paper in a thread of its own, as it is and after one more correction. */
export async function remark(
	otium: Needs,
	{ administrationId, paperId }: Of,
	correction: { questionId: string; correction: Correction } | null
): Promise<{ before: RunScore[]; after: RunScore[] }> {
	const asked = { file: fileOf(otium), administrationId, paperId, correction };
	return orTooLong(otium.threads.run(MARKING, 'remark', asked, DEADLINE_MS), tooLong);
}

/** How each question of a paper did. */
export async function figuresFor(otium: Needs, { administrationId, paperId }: Of): Promise<PaperFigures> {
	const asked = { file: fileOf(otium), administrationId, paperId };
	return orTooLong(otium.threads.run(MARKING, 'figures', asked, DEADLINE_MS), tooLong);
}

/** Pairs of a session whose answers agree more than chance explains. */
export async function alikeIn(otium: Needs, sessionId: string): Promise<{ pairs: AlikePair[]; compared: number }> {
	return orTooLong(otium.threads.run(MARKING, 'alike', { file: fileOf(otium), sessionId }, DEADLINE_MS), tooLong);
}
