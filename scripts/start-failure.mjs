/**
 * Why a server could not start, in words for whoever starts it. A statement that failed carries the row that it was for,
 * names and devices included: of those only the code is told.
 * @param {unknown} error
 * @returns {string}
 */
export function startFailure(error) {
	if (!(error instanceof Error)) return String(error);
	const code = String(/** @type {{ code?: unknown }} */ (error).code ?? '');
	if (code.startsWith('SQLITE_'))
		return `The database can’t be used just now (${code}). Nothing was changed. Make sure that the disk takes writes and that nothing else holds the data folder, then start again.`;
	return error.name === 'Error' ? String(error) : (error.stack ?? String(error));
}
