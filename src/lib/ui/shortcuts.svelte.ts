import type { Around, Focus } from '$core/shortcuts';
import { keepIn, keptIn } from './browser-storage';

/** What lies beside a view: its keys are its own. */
const BESIDE = '[role=toolbar], [role=menu], [role=dialog], [role=alertdialog], dialog, [data-beside]';
/** What covers a view until it is answered. */
const COVERS = 'dialog[open], [aria-modal=true], [role=alertdialog]';
/** What a view's keys are about. */
const ITEMS = '[data-seat], [data-question], [data-row], [data-question-row]';
/** Buttons that choose whom or what they are about. */
const CHOOSERS = '[data-keyed]';

/** What has the focus, as far as a shortcut has to know. */
export function focusOf(target: Element): Focus {
	const box = target.closest('input');
	const item = target.closest(ITEMS);
	const isKeyed = target.closest(CHOOSERS) !== null;
	if (box && ['checkbox', 'radio'].includes(box.type)) return item || isKeyed ? 'choice' : 'control';
	if (box || target.closest('textarea, select, [contenteditable]:not([contenteditable=false]), [role=combobox]'))
		return 'field';
	// A button within an item is pressed; one that is the item itself is chosen.
	const control = target.closest('button, a, summary, audio, video, [role=button], [role=slider]');
	if (control) return item === control ? 'item' : isKeyed ? 'chooser' : 'control';
	return item ? 'item' : 'page';
}

const named = (person: string) => `otium single keys ${person}`;

/** Whether single keys act, as one person has it on this device. */
class SingleKeys {
	isOff = $state(false);
	#person = '';
	#changedAt: number | null = null;

	/** Whose keys they are from now on. */
	of(person: string): void {
		this.#person = person;
		this.isOff = keptIn<string>('localStorage', named(person)) === 'off';
	}

	switch(isOff: boolean): void {
		this.isOff = isOff;
		keepIn('localStorage', named(this.#person), isOff ? 'off' : 'on');
	}

	/** The view has changed without its reader's doing: what they are typing was not meant for the new one. */
	viewChanged(): void {
		this.#changedAt = performance.now();
	}

	around(target: Element): Around {
		return {
			focus: focusOf(target),
			isBeside: target.closest(BESIDE) !== null,
			isCovered: document.querySelector(COVERS) !== null,
			changedMsAgo: this.#changedAt === null ? null : performance.now() - this.#changedAt,
			isOff: this.isOff
		};
	}
}

export const singleKeys = new SingleKeys();
