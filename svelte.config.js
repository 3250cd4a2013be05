import { vitePreprocess } from '@sveltejs/vite-plugin-svelte';
import { bundledServer } from './scripts/bundle-server.mjs';

/** @type {import('@sveltejs/kit').Config} */
export default {
	preprocess: vitePreprocess(),
	kit: {
		adapter: bundledServer('build'),
		// Pages that stay open over an update say so.
		version: { pollInterval: 60_000 },
		// The candidate's page asks for it by itself; the staff's pages have none.
		serviceWorker: { register: false },
		alias: { $core: 'src/core', $ui: 'src/lib/ui', $player: 'src/lib/player' },
		csp: {
			mode: 'nonce',
			directives: {
				'default-src': ['self'],
				'script-src': ['self'],
				'style-src': ['self'],
				// Widths and colours that come from data are style attributes; style elements stay forbidden.
				'style-src-attr': ['unsafe-inline'],
				// What a candidate’s page holds of a paper’s pictures and sound is its own, as `blob:`.
				'img-src': ['self', 'data:', 'blob:'],
				'media-src': ['self', 'blob:'],
				'font-src': ['self'],
				'connect-src': ['self'],
				'object-src': ['none'],
				'base-uri': ['none'],
				'form-action': ['self'],
				'frame-ancestors': ['none']
			}
		}
	}
};
