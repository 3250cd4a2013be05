import { route, staff } from '$lib/server/http';
import { verifyLogbook } from '$lib/server/logbook';

export const GET = route(staff('see_logbook'), ({ otium }) => verifyLogbook(otium.db));
