/** A file to keep. Its name may hold any letters; what reads headers strictly gets a plain one beside it (RFC 6266). */
export function download(name: string, type: string, content: string | Uint8Array): Response {
	const plain = name
		.normalize('NFKD')
		.replace(/[^\w. -]/g, '')
		.trim()
		.replace(/\s+/g, '-');
	const full = encodeURIComponent(name.replace(/[/\\]/g, ' ').trim().replace(/\s+/g, '-'));
	return new Response(content as BodyInit, {
		headers: {
			'content-type': type,
			'content-disposition': `attachment; filename="${plain}"; filename*=UTF-8''${full}`
		}
	});
}
