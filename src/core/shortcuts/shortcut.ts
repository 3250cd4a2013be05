/** A key as it was pressed. */
export type Pressed = {
	/** As the browser names it: `h`, `H`, `ArrowLeft`, ` `. */
	key: string;
	/** With Ctrl, Alt or the key of the system. */
	isCombined: boolean;
	/** It is held down. */
	isRepeat: boolean;
	/** A letter is being put together out of several keys. */
	isComposing: boolean;
};

/**
 * What has the focus:
 *
 * - `page`: nothing that a key could be meant for.
 * - `item`: one of the things that the view's keys are about, as a seat.
 * - `choice`: a box or a radio among them, as an answer.
 * - `chooser`: a button that chooses what the keys are about, as the order of a list.
 * - `control`: anything else that can be pressed.
 * - `field`: what is written into, or chosen from.
 */
export type Focus = 'page' | 'item' | 'choice' | 'chooser' | 'control' | 'field';

/** What there is around a key that is pressed. */
export type Around = {
	focus: Focus;
	/** The focus is in something that lies beside the view: a panel, a toolbar, a menu. */
	isBeside: boolean;
	/** Something covers the view and waits for an answer. */
	isCovered: boolean;
	/** How long ago the view changed without its reader's doing; null: never. */
	changedMsAgo: number | null;
	/** The person has switched off keys that act without Ctrl or Alt. */
	isOff: boolean;
};

/** Whoever was typing goes on for so long when what they typed into has gone. */
export const SETTLING_MS = 1_000;

/**
 * Which shortcut of the view a key asks for, small letters as such; null: none, the key belongs to what has the focus. Space
 * and Enter press what they are on, and arrows move within it; they are the view's only where they do nothing else. What
 * moves may be held down, what acts may not. WCAG 2.2, 2.1.4: a single character acts only while the person has not switched
 * that off.
 */
export function shortcutOf(pressed: Pressed, around: Around): string | null {
	const { key } = pressed;
	const moves = key.startsWith('Arrow');
	if (pressed.isCombined || pressed.isComposing || around.isCovered || around.isBeside) return null;
	if (around.focus === 'field' || (around.focus === 'control' && key !== 'Escape')) return null;
	if (around.focus === 'choice' && (moves || key === ' ')) return null;
	if (around.focus === 'chooser' && (key === 'Enter' || key === ' ')) return null;
	if (pressed.isRepeat && !(moves && around.focus === 'item')) return null;
	if (around.changedMsAgo !== null && around.changedMsAgo < SETTLING_MS) return null;
	const isCharacter = [...key].length === 1 && key !== ' ';
	if (isCharacter && around.isOff) return null;
	return isCharacter ? key.toLowerCase() : key;
}
