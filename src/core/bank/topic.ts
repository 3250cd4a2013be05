/** A branch of the tree of topics, with how many questions are on it and below it. */
export type TopicBranch = { path: string; name: string; depth: number; count: number };

/** Topics are written as paths: `Navigation / Tides`. Spaces around the stroke do not matter. */
const STROKE = /\s*\/\s*/;

/** A topic as it is kept: names with one stroke between them, empty ones left out. */
export function topicPath(topic: string): string {
	return topic.trim().split(STROKE).filter(Boolean).join(' / ');
}

/** Whether a topic is that branch or below it; every topic is below the empty one. */
export function isOnBranch(topic: string, branch: string): boolean {
	return branch === '' || topic === branch || topic.startsWith(`${branch} / `);
}

/** The whole tree, each branch after the one it is on; by name, as people sort. Questions without a topic are on none. */
export function topicTree(topics: { topic: string; count: number }[]): TopicBranch[] {
	const counts = new Map<string, number>();
	for (const { topic, count } of topics) {
		const names = topicPath(topic).split(' / ').filter(Boolean);
		names.forEach((_, i) => {
			const path = names.slice(0, i + 1).join(' / ');
			counts.set(path, (counts.get(path) ?? 0) + count);
		});
	}
	const byNames = (a: string[], b: string[]): number => {
		for (let i = 0; i < Math.min(a.length, b.length); i++) {
			const order = a[i].localeCompare(b[i]);
			if (order !== 0) return order;
		}
		return a.length - b.length;
	};
	return [...counts]
		.map(([path, count]) => ({ path, count, names: path.split(' / ') }))
		.sort((a, b) => byNames(a.names, b.names))
		.map(({ path, count, names }) => ({ path, count, name: names.at(-1)!, depth: names.length - 1 }));
}
