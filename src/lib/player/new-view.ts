let isFirst = true;

/**
 * The heading of a view that takes the place of another: the focus goes to it, so that whoever listens, or sees little of
 * the screen, learns where they are. What a browser shows first it tells by itself.
 */
export function newView(heading: HTMLElement): void {
	heading.tabIndex = -1;
	if (!isFirst) heading.focus();
	isFirst = false;
}
