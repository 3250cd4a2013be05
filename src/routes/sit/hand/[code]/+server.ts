import { fail } from '$core/problem';
import { anyoneWith, route } from '$lib/server/http';
import { keepHanded, MOST_HANDED_BYTES, readHandCode, takesFiles } from '$lib/server/handed';

/** A photo or a PDF as the body, from a device that has nothing but a question's code. */
export const POST = route(
	anyoneWith('the code for a phone', 'that the house has sealed it'),
	async ({ otium, params, request }) => {
		const code = readHandCode(otium.db, params.code, otium.now());
		if (!code) fail('hand_code');
		if (Number(request.headers.get('content-length') ?? 0) > MOST_HANDED_BYTES) fail('handed_file', { status: 413 });
		await otium.quotas.take('files', code.sittingId);
		await takesFiles(otium, code.sittingId, { inPaper: code.questionId });
		const bytes = new Uint8Array(await request.arrayBuffer());
		const { name } = await keepHanded(otium, code.sittingId, code.questionId, { name: '', bytes, byCode: true });
		return { name };
	}
);
