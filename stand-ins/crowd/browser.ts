import type { ClientDevice } from '../sealed-client/device';
import { DeviceKey } from './signing';

/** A candidate's browser as far as the server can tell: cookies, JSON and a live line. */
export type Reply = { status: number; body: Record<string, unknown> };

const DEVICE = 'otium-device';

export class Browser {
	#cookies = new Map<string, string>();
	readonly #key: DeviceKey;
	/** The sealed client around it; null: there is none. */
	client: ClientDevice | null = null;

	constructor(
		private readonly url: string,
		/** What `device` said of it when it was here before. */
		device?: string
	) {
		const [cookie, key] = device?.split(' ') ?? [];
		if (cookie) this.#cookies.set(DEVICE, cookie);
		this.#key = new DeviceKey(key);
	}

	/** By which it is known again. */
	get device(): string | undefined {
		const cookie = this.#cookies.get(DEVICE);
		return cookie && `${cookie} ${this.#key.kept}`;
	}

	/** SPKI in base64url. */
	get publicKey(): string {
		return this.#key.publicKey;
	}

	async get(path: string): Promise<Reply> {
		return this.#ask(path, { method: 'GET' });
	}

	async post(path: string, body: unknown): Promise<Reply> {
		return this.#ask(path, {
			method: 'POST',
			body: JSON.stringify(body),
			headers: { 'content-type': 'application/json' }
		});
	}

	/** @throws when the line is down */
	async #ask(path: string, init: RequestInit): Promise<Reply> {
		const reply = await this.#send(path, init);
		if (reply.body.code !== 'sign_anew') return reply;
		this.#key.mark = reply.body.mark as string;
		return this.#send(path, init);
	}

	async #send(path: string, init: RequestInit): Promise<Reply> {
		const own = this.#key.headers(init.method!, path, (init.body as string | undefined) ?? '');
		const signed = this.client?.sign(init.method!, new URL(this.url + path), own) ?? own;
		const response = await fetch(this.url + path, {
			...init,
			headers: { ...init.headers, ...signed, cookie: this.cookieHeader(), origin: this.url },
			signal: AbortSignal.timeout(15_000)
		});
		for (const line of response.headers.getSetCookie()) {
			const [pair] = line.split(';');
			const [name, ...value] = pair.split('=');
			this.#cookies.set(name, value.join('='));
		}
		const text = await response.text();
		return { status: response.status, body: text.startsWith('{') ? JSON.parse(text) : {} };
	}

	/** Carries a cookie that was handed to it by other means. */
	carry(name: string, value: string) {
		this.#cookies.set(name, value);
	}

	/** For whoever sends requests by other means: what goes with a request that this device signs. */
	headersFor(method: string, path: string, body: string): Record<string, string> {
		return { cookie: this.cookieHeader(), ...this.#key.headers(method, path, body) };
	}

	addressOf(path: string): string {
		return this.#key.address(path);
	}

	/** For whoever sends requests by other means. */
	cookieHeader(): string {
		return [...this.#cookies].map(([name, value]) => `${name}=${value}`).join('; ');
	}
}
