import type { Hold } from '../lines';
import type { Frame, Watcher } from './channel';

/** Frames a watcher may fall behind before its line is cut; it comes back and catches up. */
const MAX_BEHIND = 300;

/**
 * Attaches first, then draws, then lets through what was published meanwhile: no change falls between the picture and
 * the changes that follow it. null: there is nothing to draw.
 */
export async function subscribe(
	watchers: Set<Watcher>,
	draw: () => Promise<Frame[] | null>,
	hold: Hold,
	onClose: () => void = () => {}
): Promise<ReadableStream<Uint8Array> | null> {
	const left = () => {
		onClose();
		hold.left();
	};
	const early: Frame[] = [];
	const waiting: Watcher = { send: (frame) => early.push(frame), close: () => {} };
	watchers.add(waiting);
	let first: Frame[] | null = null;
	try {
		first = await draw();
	} finally {
		if (first === null) {
			watchers.delete(waiting);
			left();
		}
	}
	if (first === null) return null;
	const { stream, close } = open(watchers, [...first, ...early], left);
	hold.end = close;
	watchers.delete(waiting);
	return stream;
}

/** An open line: what comes first, then what is published, until either side closes it. */
function open(watchers: Set<Watcher>, first: Frame[], left: () => void) {
	let watcher: Watcher;
	const leave = () => {
		if (watchers.delete(watcher)) left();
	};
	const stream = new ReadableStream<Uint8Array>(
		{
			start(controller) {
				const close = () => {
					leave();
					try {
						controller.close();
					} catch {
						// Closed from the other side already.
					}
				};
				const send = (frame: Frame) => {
					if ((controller.desiredSize ?? 0) < -MAX_BEHIND) return close();
					controller.enqueue(frame.bytes);
				};
				watcher = { send, close };
				watchers.add(watcher);
				for (const frame of first) controller.enqueue(frame.bytes);
			},
			cancel: leave
		},
		{ highWaterMark: 1 }
	);
	return { stream, close: watcher!.close };
}
