import { tallyKeyOf, type Progress, type SeatView } from '$core/room';

/** The ground a seat stands on: red and ochre only for what is out of the ordinary. */
export function seatTone(seat: SeatView): string {
	const key = tallyKeyOf(seat);
	if (key === 'line_lost' || seat.otherDevice || (key === 'working' && seat.pace === 'spoiled'))
		return 'bg-brick-ground border-brick/50';
	if (key === 'on_hold') return 'bg-ochre-ground border-ochre-mark/60';
	if (key === 'at_door') return 'bg-slate-ground border-slate-sea/40';
	if (key === 'expected' || key === 'absent') return 'bg-paper border-dashed border-line-strong';
	return 'bg-sheet border-line';
}

const PROGRESS_MARKS: Record<Progress, { text: string; ground: string; ink: string }> = {
	past_time: { text: 'past time', ground: 'bg-ochre-ground', ink: 'text-ochre' },
	late: { text: 'late', ground: 'bg-ochre-ground', ink: 'text-ochre' },
	idle: { text: 'idle', ground: 'bg-ochre-ground', ink: 'text-ochre' },
	behind: { text: 'behind', ground: 'bg-slate-ground', ink: 'text-slate-sea' },
	ahead: { text: 'ahead', ground: 'bg-slate-ground', ink: 'text-slate-sea' }
};

/** The one thing besides the state that is worth a look; null: nothing is. */
export function seatMark(
	seat: SeatView,
	progress: Progress | null
): { text: string; ground: string; ink: string } | null {
	if (seat.hand) return { text: 'hand', ground: 'bg-slate-ground', ink: 'text-slate-sea' };
	if (progress === 'late') return PROGRESS_MARKS.late;
	if (tallyKeyOf(seat) !== 'working') return null;
	if (seat.lapses?.awaySince) return { text: 'away', ground: 'bg-brick-ground', ink: 'text-brick' };
	if (seat.pace === 'spoiled') return { text: 'spoiled', ground: 'bg-brick-ground', ink: 'text-brick' };
	if (seat.pace !== 'calm') return { text: 'rushing', ground: 'bg-ochre-ground', ink: 'text-ochre' };
	return progress === null ? null : PROGRESS_MARKS[progress];
}
