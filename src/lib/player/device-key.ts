import { openDB, type DBSchema } from 'idb';

interface Schema extends DBSchema {
	key: { key: string; value: CryptoKeyPair };
}
const NAME = 'this device';
const OURS: EcKeyGenParams = { name: 'ECDSA', namedCurve: 'P-256' };

/**
 * The key pair of this browser. Its private half can't be taken out, by nobody and nothing: it is used where it lies. So
 * whoever copies the cookie, or all that is stored here, can't pass for this device.
 *
 * @param make whether to make one where there is none yet
 * @returns null: there is none, or this browser can't keep one; it can over HTTPS and on localhost only
 */
export async function deviceKey(make: boolean): Promise<CryptoKeyPair | null> {
	try {
		// A browser that refuses storage may throw when it is only named.
		if (!globalThis.crypto?.subtle || !globalThis.indexedDB) return null;
		const db = await openDB<Schema>('otium-device', 1, { upgrade: (fresh) => void fresh.createObjectStore('key') });
		try {
			const known = usable(await db.get('key', NAME));
			if (known || !make) return known;
			const fresh = (await crypto.subtle.generateKey(OURS, false, ['sign', 'verify'])) as CryptoKeyPair;
			const tx = db.transaction('key', 'readwrite');
			// Another page of this browser may have made one meanwhile: the first stands.
			const first = usable(await tx.store.get(NAME));
			if (!first) await tx.store.put(fresh, NAME);
			await tx.done;
			return first ?? fresh;
		} finally {
			db.close();
		}
	} catch {
		return null;
	}
}

/** What was copied from another browser is no key: its private half stayed there. */
function usable(pair: CryptoKeyPair | undefined): CryptoKeyPair | null {
	return pair?.privateKey instanceof CryptoKey && pair.publicKey instanceof CryptoKey ? pair : null;
}
