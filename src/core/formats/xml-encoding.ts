/**
 * The text of an XML document in the encoding that it says: by its byte-order mark, else by its declaration, else UTF-8 (XML
 * 1.0, appendix F). One that nobody knows is read as UTF-8.
 */
export function decodeXml(bytes: Uint8Array): string {
	if (bytes[0] === 0xff && bytes[1] === 0xfe) return new TextDecoder('utf-16le').decode(bytes);
	if (bytes[0] === 0xfe && bytes[1] === 0xff) return new TextDecoder('utf-16be').decode(bytes);
	const start = new TextDecoder('latin1').decode(bytes.subarray(0, 200));
	const named = /^(?:\u00ef\u00bb\u00bf)?\s*<\?xml[^>]*\sencoding\s*=\s*["']([A-Za-z0-9._-]+)["']/.exec(start)?.[1];
	try {
		return new TextDecoder(named ?? 'utf-8').decode(bytes);
	} catch {
		return new TextDecoder('utf-8').decode(bytes);
	}
}
