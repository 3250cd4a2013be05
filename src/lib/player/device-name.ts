/** What this device calls itself, as far as a page can tell: `Windows, Edge`. */
export function deviceName(): string {
	const agent = navigator.userAgent;
	const system =
		['Windows', 'Android', 'iPhone', 'iPad', 'Mac', 'CrOS', 'Linux'].find((name) => agent.includes(name)) ?? 'Device';
	const browser = ['Firefox', 'Edg', 'Chrome', 'Safari'].find((name) => agent.includes(name)) ?? 'browser';
	// A newer iPad says that it is a Mac; no Mac has a screen that takes several fingers.
	if (system === 'Mac' && navigator.maxTouchPoints > 1) return 'iPad, Safari';
	return `${system === 'CrOS' ? 'Chromebook' : system}, ${browser === 'Edg' ? 'Edge' : browser}`;
}
