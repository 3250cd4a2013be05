import { route, staff } from '$lib/server/http';

/** Somebody is there, at a page that asks for nothing else: being asked for is enough. */
export const POST = route(staff(), () => ({ ok: true }));
