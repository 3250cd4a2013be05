/** A file that is attached to a form, as JSON carries it. */
export type Attached = { name: string; type: string; base64: string };

/** Reads an attached file; null: none was chosen. */
export async function shownFrom(file: File | undefined): Promise<Attached | null> {
	if (!file) return null;
	const bytes = new Uint8Array(await file.arrayBuffer());
	let binary = '';
	for (const byte of bytes) binary += String.fromCharCode(byte);
	return { name: file.name, type: file.type, base64: btoa(binary) };
}
