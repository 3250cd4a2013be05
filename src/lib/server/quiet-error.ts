/**
 * An error as the server's log may have it. A statement that failed carries the row that it was for, names and birth
 * dates included: of those only the code is kept, and where it happened.
 */
export function quietError(error: unknown): object {
	if (!(error instanceof Error)) return { type: typeof error };
	const { name, message, stack } = error;
	const code = (error as { code?: unknown }).code;
	const isStatement = /^SQLITE_/.test(String(code));
	return {
		type: name,
		...(code === undefined ? {} : { code }),
		...(isStatement ? {} : { message }),
		// The first lines of a stack are the message once more.
		stack: stack?.split('\n').filter((line) => /^\s+at /.test(line))
	};
}
