import { boundDevice, route } from '$lib/server/http';
import { handedIn } from '$lib/server/handed';
import { formOf, OwnIds } from '$lib/server/sitting';

/** The files that were handed over in this sitting, those that no answer names included. */
export const GET = route(boundDevice, async ({ otium, device }) => {
	const form = await formOf(otium.db, device.sittingId);
	if (!form) return { files: [] };
	const ids = new OwnIds(otium.db, device.sittingId, form.questions);
	const files = await handedIn(otium.db, device.sittingId);
	return {
		files: files.map(({ questionId, ...file }) => ({
			...file,
			questionId: ids.nameOf(questionId)
		}))
	};
});
