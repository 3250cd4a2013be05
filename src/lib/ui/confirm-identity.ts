/** Asks whoever is there to show that it is them; resolves to whether they did. Set by the page that can ask. */
let ask: (() => Promise<boolean>) | null = null;

export function setConfirmIdentity(by: typeof ask) {
	ask = by;
}

export async function confirmIdentity(): Promise<boolean> {
	return (await ask?.()) ?? false;
}
