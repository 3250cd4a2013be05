/** Whether a version is at least the one wanted, part by part: 2.10 is newer than 2.9. What is no version is too old. */
export function isAtLeast(version: string, wanted: string): boolean {
	const [have, need] = [version, wanted].map((text) =>
		/^\d+(\.\d+)*$/.test(text) ? text.split('.').map(Number) : null
	);
	if (!have || !need) return false;
	for (let i = 0; i < Math.max(have.length, need.length); i++) {
		const difference = (have[i] ?? 0) - (need[i] ?? 0);
		if (difference !== 0) return difference > 0;
	}
	return true;
}
