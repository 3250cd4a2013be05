import { browserName } from '$core/access';

/** What this device calls itself, as far as a page can tell: `Windows, Edge`. */
export function deviceName(): string {
	const name = browserName(navigator.userAgent);
	// A newer iPad says that it is a Mac; no Mac has a screen that takes several fingers.
	return name.startsWith('Mac') && navigator.maxTouchPoints > 1 ? 'iPad, Safari' : name;
}
