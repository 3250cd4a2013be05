import type { Fix } from './finding';

type Tree = Record<string, unknown>;

/** The form's values with a fix applied: `rules.timing.atClose` reaches into them. Nothing that was given is changed. */
export function applyFix<T extends object>(input: T, fix: Fix): T {
	return Object.entries(fix.set).reduce((form, [path, value]) => withAt(form, path.split('.'), value), input);
}

function withAt<T extends object>(form: T, [key, ...rest]: string[], value: unknown): T {
	const inner = rest.length === 0 ? value : withAt(((form as Tree)[key] ?? {}) as Tree, rest, value);
	return { ...form, [key]: inner };
}
