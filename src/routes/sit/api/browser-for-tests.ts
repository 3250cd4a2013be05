import { deviceByToken, hashToken } from '$lib/server/identity';
import { call } from '$lib/server/testing/call';
import type { House } from '$lib/server/testing/house';
import { Signer } from '$player/signer';
import { POST as arrive } from './arrive/+server';
import { POST as knock } from './knock/+server';

/** A key on P-256 in a page of its own. */
export const newSigner = async () =>
	new Signer(await crypto.subtle.generateKey({ name: 'ECDSA', namedCurve: 'P-256' }, true, ['sign', 'verify']));

/** For tests: a candidate's browser at an address of its own, with cookies and, unless it can't sign, a key. */
export async function browserAt(house: House, code: string, address: string, signs = true): Promise<TestBrowser> {
	return new TestBrowser(house, code, address, signs ? await newSigner() : null);
}

export class TestBrowser {
	jar = new Map<string, string>();
	agent = 'Browser A';

	constructor(
		private readonly house: House,
		/** What is written on the board. */
		private readonly code: string,
		public address: string,
		readonly signer: Signer | null
	) {}

	/** The note that the door gives to the nth candidate. */
	async knock(nth = 0): Promise<string> {
		const { number, family } = this.house.people[nth];
		return (await this.post(knock, '/sit/api/knock', { code: this.code, number, family }, false)).body.note as string;
	}

	async arrive(note: string, commandId: string) {
		const publicKey = (await this.signer?.publicKey()) ?? null;
		return this.post(arrive, '/sit/api/arrive', { note, commandId, deviceName: 'Laptop', publicKey }, false);
	}

	/** Through the door as the nth candidate. */
	come = async (nth = 0) => this.arrive(await this.knock(nth), `come-${Math.random()}`);

	/** Which device it is signed in as; null: it is not. */
	async device() {
		const token = this.jar.get('otium-sitting');
		return token ? deviceByToken(this.house.otium.db, token, this.house.otium.now()) : null;
	}

	get = (handler: unknown, path: string) => this.#ask(handler, 'GET', path);
	/** @param signs false: as a page does that has not loaded its key */
	post = (handler: unknown, path: string, body: unknown, signs = true) => this.#ask(handler, 'POST', path, body, signs);

	async #ask(handler: unknown, method: 'GET' | 'POST', path: string, body?: unknown, signs = true) {
		const by = signs ? this.signer : null;
		const send = async () => {
			const token = this.jar.get('otium-sitting');
			const text = new TextEncoder().encode(method === 'GET' ? '' : JSON.stringify(body ?? {}));
			return call(handler as never, {
				otium: this.house.otium,
				method,
				path,
				body,
				jar: this.jar,
				address: this.address,
				device: await this.device(),
				signIn: token ? hashToken(token) : null,
				headers: { 'user-agent': this.agent, ...(await by?.headers(method, path, text)) }
			});
		};
		const first = await send();
		if (first.body.code !== 'sign_anew' || !by) return first;
		by.mark = first.body.mark as string;
		return send();
	}
}
