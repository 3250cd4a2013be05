/** Whether what has the focus takes letters: the page's own keys keep still then. */
export function isTypedInto(target: EventTarget | null): boolean {
	return target instanceof Element && target.closest('input, textarea, select, [contenteditable=true]') !== null;
}
