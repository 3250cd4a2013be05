import type { SittingPicture } from './sitting-view';

/** How a sitting came to its end, to its candidate; what follows is the time. */
export function endedInWords({ state, ended }: Pick<SittingPicture, 'state' | 'ended'>): string {
	if (state === 'time_up') return ended?.countsNothing ? 'Your work ended' : 'Your work was handed in for you';
	switch (ended?.by) {
		case 'candidate':
			return 'You handed in';
		case 'rules':
			return 'Your work was handed in by the rules of this paper';
		default:
			return 'Your proctor handed in for you';
	}
}
