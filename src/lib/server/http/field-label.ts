import { SETTINGS } from '$core/rules';

/** Names that people read under, where they are others than the code's. */
const LABELS: Record<string, string> = {
	closes: 'End',
	givenBy: 'Given by',
	groupIds: 'Groups',
	opens: 'Start',
	paperId: 'Paper',
	proctorIds: 'Proctors',
	roomId: 'Room',
	siteId: 'Site',
	until: 'End'
};

/**
 * What a field of a request is called, as its reader knows it, and never by its path: `rules.timing.limitMinutes` is Limit,
 * `what.extraMinutes` Extra minutes. null: it has no name, as one of a list.
 */
export function fieldLabel(path: PropertyKey[]): string | null {
	const names = path.filter((part) => typeof part === 'string');
	const setting = SETTINGS.find((one) => names.join('.').endsWith(one.path));
	if (setting) return setting.name;
	const last = names.at(-1);
	if (last === undefined) return null;
	const words = last
		.replace(/Ids?$/, '')
		.replace(/([a-z0-9])([A-Z])/g, '$1 $2')
		.toLowerCase();
	return LABELS[last] ?? (words === '' ? null : words[0].toUpperCase() + words.slice(1));
}
