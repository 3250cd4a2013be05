import { networkOf } from '$core/access';
import type { DeviceNote } from '$core/sitting';
import { latest } from '../latest';

/** From where each device was heard last; a restart forgets it. */
export class Whereabouts {
	#last = latest<{ network: string; agent: string }>(20_000);

	/** What is odd about it that this sign-in is heard from there now; null: nothing. */
	heard(signIn: string, address: string, agent: string): DeviceNote | null {
		const before = this.#last.get(signIn);
		const network = networkOf(address);
		if (before?.network === network && before.agent === agent) return null;
		this.#last.set(signIn, { network, agent });
		if (!before) return null;
		// One browser has one name; two with one cookie take turns.
		return before.agent === agent ? 'other_address' : 'second_line';
	}
}
