const SYSTEMS = ['Windows', 'Android', 'iPhone', 'iPad', 'Mac', 'CrOS', 'Linux'];
const BROWSERS = ['Firefox', 'Edg', 'Chrome', 'Safari'];

/** What a browser calls itself, as people say it: `Windows, Edge`. @param agent its `User-Agent` */
export function browserName(agent: string): string {
	const system = SYSTEMS.find((name) => agent.includes(name)) ?? 'Device';
	const browser = BROWSERS.find((name) => agent.includes(name)) ?? 'browser';
	return `${system === 'CrOS' ? 'Chromebook' : system}, ${browser === 'Edg' ? 'Edge' : browser}`;
}
