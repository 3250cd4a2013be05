import { fail } from '$core/problem';
import { boundDevice, mustBeProven, mustMatch, route } from '$lib/server/http';
import { keepHanded, MOST_HANDED_BYTES, takesFiles } from '$lib/server/handed';

/** A photo or a PDF for a question, as the body. Its name, written as in an address, is in `x-file-name`. */
export const POST = route(boundDevice, async ({ otium, device, params, request, locals }) => {
	if (Number(request.headers.get('content-length') ?? 0) > MOST_HANDED_BYTES) fail('handed_file', { status: 413 });
	await otium.quotas.take('files', device.sittingId);
	const { one, question, questionId } = await takesFiles(otium, device.sittingId, { onDevice: params.question });
	mustBeProven(one.session, locals.client);
	const bytes = new Uint8Array(await request.arrayBuffer());
	mustMatch(locals.digest, bytes);
	const name = decoded(request.headers.get('x-file-name') ?? '');
	const file = await keepHanded(otium, device.sittingId, questionId, { name, bytes, byCode: false });
	return { file: { ...file, questionId: question.id } };
});

function decoded(text: string): string {
	try {
		return decodeURIComponent(text);
	} catch {
		return '';
	}
}
