import { route, staff } from '$lib/server/http';
import { verifyRecord } from '$lib/server/proof';

export const GET = route(staff('see_logbook'), ({ otium }) => verifyRecord(otium));
