import { readHandCode } from '$lib/server/handed';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = ({ locals: { otium }, params }) => {
	return { isValid: readHandCode(otium.db, params.code, otium.now()) !== null };
};
