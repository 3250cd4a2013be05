/** What was just done or refused, in words; `undo` takes it back. */
export type Notice = { id: number; tone: 'done' | 'refused'; text: string; undo: (() => Promise<void>) | null };

const SHOWN_MS = 10_000;
const MOST = 4;

/** The last few notices of a room: each for some seconds, what can be undone until the next act or until it is dismissed. */
export class Notices {
	list = $state.raw<Notice[]>([]);
	#id = 0;

	tell(tone: Notice['tone'], text: string, undo: Notice['undo'] = null) {
		const notice: Notice = { id: ++this.#id, tone, text, undo };
		// Only the last act is taken back by a key: one that lies further back was followed by others.
		const before = tone === 'done' ? this.list.filter((one) => one.undo === null) : this.list;
		this.list = [...before, notice].slice(-MOST);
		if (undo === null) setTimeout(() => this.dismiss(notice.id), SHOWN_MS);
	}

	dismiss(id: number) {
		this.list = this.list.filter((notice) => notice.id !== id);
	}

	/** Takes back the last act that can be. */
	async undoLast() {
		const last = this.list.findLast((notice) => notice.undo);
		if (last) await this.undo(last);
	}

	/** Takes back what a notice tells, if it can be; the notice goes. */
	async undo(notice: Notice) {
		this.dismiss(notice.id);
		await notice.undo?.();
	}
}
