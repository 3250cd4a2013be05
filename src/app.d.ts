import type { StaffMember } from '$core/access';
import type { Otium } from '$lib/server/otium';

declare global {
	namespace App {
		interface Error {
			message: string;
			instead?: string;
		}
		interface Locals {
			otium: Otium;
			/** Only outside `/sit`. */
			staff: StaffMember | null;
			/** Whose request it is; behind a named proxy, whom that speaks for. */
			address: string;
			/** Only inside `/sit`. */
			device: { sittingId: string; epoch: number } | null;
		}
	}
}

export {};
