/** A candidate's browser as far as the server can tell: cookies, JSON and a live line. */
export type Reply = { status: number; body: Record<string, unknown> };

const DEVICE = 'otium-device';

export class Browser {
	#cookies = new Map<string, string>();

	constructor(
		private readonly url: string,
		/** What this device was given when it first came. */
		device?: string
	) {
		if (device) this.#cookies.set(DEVICE, device);
	}

	/** By which it is known again. */
	get device(): string | undefined {
		return this.#cookies.get(DEVICE);
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
		const response = await fetch(this.url + path, {
			...init,
			headers: { ...init.headers, cookie: this.cookieHeader(), origin: this.url },
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

	/** For whoever sends requests by other means. */
	cookieHeader(): string {
		return [...this.#cookies].map(([name, value]) => `${name}=${value}`).join('; ');
	}
}
