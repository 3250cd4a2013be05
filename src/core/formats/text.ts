/** A file's bytes as text, with what had to be assumed about them. */
export type ReadText = { ok: true; text: string; note: string | null } | { ok: false; message: string };

/**
 * Reads text as offices save it: UTF-8 with or without a byte-order mark, UTF-16 with one, or else Windows-1252. The last
 * reads any bytes, so what is plainly no text (it holds zero bytes) is refused first.
 */
export function readText(bytes: Uint8Array): ReadText {
	const marked = byMark(bytes);
	if (marked) return { ok: true, text: new TextDecoder(marked).decode(bytes), note: null };
	if (bytes.includes(0)) {
		return {
			ok: false,
			message: 'This is not a text file. In the spreadsheet, choose “Save as” and then CSV (UTF-8).'
		};
	}
	try {
		return { ok: true, text: new TextDecoder('utf-8', { fatal: true }).decode(bytes), note: null };
	} catch {
		const text = new TextDecoder('windows-1252').decode(bytes);
		const note = 'The file is not UTF-8; it was read as Windows-1252. Check that accented letters are right.';
		return { ok: true, text, note };
	}
}

function byMark(bytes: Uint8Array): string | null {
	if (bytes[0] === 0xef && bytes[1] === 0xbb && bytes[2] === 0xbf) return 'utf-8';
	if (bytes[0] === 0xff && bytes[1] === 0xfe) return 'utf-16le';
	if (bytes[0] === 0xfe && bytes[1] === 0xff) return 'utf-16be';
	return null;
}
