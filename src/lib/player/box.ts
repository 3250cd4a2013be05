/** Something that only the key opens. */
export type Sealed = { iv: Uint8Array<ArrayBuffer>; data: ArrayBuffer };

/**
 * Seals what lies on the device with the key that the server gave (AES-GCM, NIST SP 800-38D: a fresh 96-bit number for
 * every seal). The key itself is never stored with it.
 */
export class Box {
	private constructor(private readonly key: CryptoKey) {}

	/** null: this browser has no cryptography here; it offers it over HTTPS and on localhost only. */
	static async of(key: string): Promise<Box | null> {
		if (!globalThis.crypto?.subtle) return null;
		const bytes = Uint8Array.from(atob(key), (letter) => letter.charCodeAt(0));
		return new Box(await crypto.subtle.importKey('raw', bytes, 'AES-GCM', false, ['encrypt', 'decrypt']));
	}

	async seal(value: unknown): Promise<Sealed> {
		return this.sealBytes(new TextEncoder().encode(JSON.stringify(value)));
	}

	/** null: it was sealed with another key, or has been changed. */
	async open<T>(sealed: Sealed): Promise<T | null> {
		const bytes = await this.openBytes(sealed);
		return bytes && JSON.parse(new TextDecoder().decode(bytes));
	}

	async sealBytes(bytes: BufferSource): Promise<Sealed> {
		const iv = crypto.getRandomValues(new Uint8Array(12));
		return { iv, data: await crypto.subtle.encrypt({ name: 'AES-GCM', iv }, this.key, bytes) };
	}

	/** null: as above. */
	async openBytes({ iv, data }: Sealed): Promise<ArrayBuffer | null> {
		try {
			return await crypto.subtle.decrypt({ name: 'AES-GCM', iv }, this.key, data);
		} catch {
			return null;
		}
	}
}
