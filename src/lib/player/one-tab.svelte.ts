/**
 * One tab at a time: the newest asks, the one that holds the paper keeps it until the candidate takes it over.
 * Two tabs would not lose an answer, but they would show two versions of the paper.
 */
export class OneTab {
	/** null: not known yet. */
	isHere = $state<boolean | null>(null);
	#release: (() => void) | null = null;

	constructor(private readonly name: string) {}

	/** Takes the paper if no other tab has it. */
	async take(): Promise<void> {
		await this.#ask({ ifAvailable: true });
	}

	/** Takes it from the other tab. */
	async takeOver(): Promise<void> {
		await this.#ask({ steal: true });
	}

	close() {
		this.#release?.();
	}

	async #ask(options: LockOptions): Promise<void> {
		// Only secure origins and localhost have locks; elsewhere every tab works, and the sequence keeps order.
		if (!navigator.locks) {
			this.isHere = true;
			return;
		}
		const held = navigator.locks.request(this.name, options, (lock) => {
			this.isHere = lock !== null;
			return lock === null ? undefined : new Promise<void>((resolve) => (this.#release = resolve));
		});
		// A lock that is taken over ends the one before with an error.
		held.catch(() => (this.isHere = false));
	}
}
