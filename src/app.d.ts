import { type StaffMember, type ProvenClient } from '$core/access';
import type { KnownDevice } from '$lib/server/identity';
import type { StaffSession } from '$lib/server/sign-in';
import type { Otium } from '$lib/server/otium';

declare global {
	namespace App {
		interface Error {
			message: string;
			instead?: string;
		}
		interface Locals {
			otium: Otium;
			/** The hash of the token that this request came with; null: it came with none that holds. */
			signIn: string | null;
			/** Only outside `/sit`. Whose sign-in holds; null: nobody's. */
			staff: StaffMember | null;
			/** The sign-in itself, also while something is still to be done before it holds. */
			staffSession: StaffSession | null;
			/** Whose request it is; behind a named proxy, whom that speaks for. */
			address: string;
			/** Only inside `/sit`. */
			/** The sealed client that proved itself for this request, from this address; null: none did. */
			client: ProvenClient | null;
			device: KnownDevice | null;
			/** The `Content-Digest` that the device has signed; null: it signed none. */
			digest: string | null;
		}
	}
}

export {};
