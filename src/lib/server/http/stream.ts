/** The response of an open server-sent-events line. */
export function eventStream(stream: ReadableStream<Uint8Array>): Response {
	return new Response(stream, {
		headers: { 'content-type': 'text/event-stream', 'cache-control': 'no-store', 'x-accel-buffering': 'no' }
	});
}
