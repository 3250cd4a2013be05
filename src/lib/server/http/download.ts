/** A file to keep. */
export function download(
	name: string,
	type: string,
	content: string | Uint8Array | ReadableStream<Uint8Array>
): Response {
	return new Response(content as BodyInit, { headers: downloadHeaders(name, type) });
}

/** The headers of a file to keep. Its name may hold any letters; what reads headers strictly gets a plain one (RFC 6266). */
export function downloadHeaders(name: string, type: string): Record<string, string> {
	const plain = name
		.normalize('NFKD')
		.replace(/[^\w. -]/g, '')
		.trim()
		.replace(/\s+/g, '-');
	const full = encodeURIComponent(name.replace(/[/\\]/g, ' ').trim().replace(/\s+/g, '-'));
	return {
		'content-type': type,
		'content-disposition': `attachment; filename="${plain}"; filename*=UTF-8''${full}`
	};
}
