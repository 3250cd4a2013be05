/** Makes the candidate's page loadable without a line: its parts are kept by a service worker with only `/sit` in its reach. */
export async function keepPage(): Promise<void> {
	if (!('serviceWorker' in navigator)) return;
	try {
		await navigator.serviceWorker.register('/service-worker.js', { scope: '/sit' });
		const { active } = await navigator.serviceWorker.ready;
		const parts = performance
			.getEntriesByType('resource')
			.map((entry) => new URL(entry.name).pathname)
			.filter((path) => path.startsWith('/_app/'));
		active?.postMessage({ keep: [...new Set(parts)] });
	} catch {
		// Without one a reload needs the line; everything else goes on as it is.
	}
}
