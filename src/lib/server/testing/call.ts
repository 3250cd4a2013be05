import { type StaffMember, type ProvenClient } from '$core/access';
import type { Otium } from '../otium';
import type { StaffSession } from '../sign-in';

type Handler = (event: never) => Response | Promise<Response>;
type Asked = {
	otium: Otium;
	body?: unknown;
	/** A file in the body's place. */
	bytes?: Uint8Array;
	staff?: StaffMember | null;
	/** A sign-in, which may still be on the way. */
	staffSession?: StaffSession | null;
	device?: { sittingId: string; epoch: number; publicKey?: string | null } | null;
	/** The hash of its sign-in's token. */
	signIn?: string | null;
	method?: string;
	path?: string;
	headers?: Record<string, string>;
	params?: Record<string, string>;
	query?: string;
	jar?: Map<string, string>;
	address?: string;
	client?: ProvenClient | null;
};

/** Calls a route's handler as the server would, with a cookie jar in the browser's place. */
export async function call(
	handler: Handler,
	asked: Asked
): Promise<{ status: number; body: Record<string, unknown>; text: string; headers: Headers }> {
	const url = new URL(`http://localhost${asked.path ?? '/'}${asked.query ?? ''}`);
	const method = asked.method ?? 'POST';
	const isForm = asked.body instanceof FormData;
	const jar = asked.jar ?? new Map<string, string>();
	const event = {
		request: new Request(url, {
			method,
			// A form names its own type, with what parts it.
			headers: { ...(isForm ? {} : { 'content-type': 'application/json' }), ...asked.headers },
			body:
				method === 'GET'
					? undefined
					: asked.bytes
						? (asked.bytes as BodyInit)
						: isForm || typeof asked.body === 'string'
							? (asked.body as BodyInit)
							: JSON.stringify(asked.body ?? {})
		}),
		url,
		params: asked.params ?? {},
		locals: {
			otium: asked.otium,
			staff: asked.staff ?? null,
			staffSession: asked.staffSession ?? null,
			device: asked.device ? { publicKey: null, ...asked.device } : null,
			signIn: asked.signIn ?? null,
			digest: null,
			address: asked.address ?? '127.0.0.1',
			client: asked.client ?? null
		},
		cookies: {
			get: (name: string) => jar.get(name),
			set: (name: string, value: string) => jar.set(name, value),
			delete: (name: string) => jar.delete(name)
		}
	};
	const response = await handler(event as never);
	// A stream has no end to wait for.
	const isStream = response.headers.get('content-type')?.startsWith('text/event-stream') ?? false;
	if (isStream) await response.body?.cancel();
	const text = isStream ? '' : await response.text();
	return {
		status: response.status,
		text,
		headers: response.headers,
		body: response.headers.get('content-type')?.includes('json') ? JSON.parse(text) : {}
	};
}
