/**
 * The server's clock in the browser: the device's own may be wrong, or be set while a paper is being sat.
 * Between messages it runs on `performance.now()`, which nobody can set.
 */
export class ServerClock {
	/** The server's time, epoch ms; moves on four times a second. */
	now = $state(0);
	#serverAt: number;
	#localAt: number;

	constructor(serverNow: number) {
		this.#serverAt = serverNow;
		this.#localAt = performance.now();
		this.now = serverNow;
	}

	/** The server said what time it is. */
	set(serverNow: number) {
		this.#serverAt = serverNow;
		this.#localAt = performance.now();
		this.now = serverNow;
	}

	/** The server's time at this very moment. */
	read(): number {
		return this.#serverAt + (performance.now() - this.#localAt);
	}

	/** Starts ticking; returns what stops it. */
	start(): () => void {
		const timer = setInterval(() => (this.now = this.read()), 250);
		return () => clearInterval(timer);
	}
}
