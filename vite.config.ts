import { sveltekit } from '@sveltejs/kit/vite';
import tailwindcss from '@tailwindcss/vite';
import { defineConfig } from 'vitest/config';

export default defineConfig({
	plugins: [tailwindcss(), sveltekit()],
	build: {
		rolldownOptions: {
			treeshake: {
				// Core and these packages do nothing by being imported. Said so that a page that needs a little of one does not load
				// all that the rest of it imports: candidates' pages would get the library that reads formulas, and staff's pages the
				// look of every component that there is.
				moduleSideEffects: [
					{
						test: /[\\/]src[\\/]core[\\/]|[\\/]node_modules[\\/](mathjs|flowbite-svelte[\\/]dist)[\\/]/,
						sideEffects: false
					}
				]
			}
		},
		chunkSizeWarningLimit: 900,
		// Nobody reads it, and it packs everything once more.
		reportCompressedSize: false,
		// Fonts stay files of their own: the content policy takes them from here, not out of the style sheet.
		assetsInlineLimit: (path) => (path.endsWith('.woff2') ? false : undefined)
	},
	test: {
		setupFiles: ['scripts/fixed-seed.ts', 'scripts/fresh-store.ts'],
		include: ['src/**/*.test.ts', 'stand-ins/**/*.test.ts', 'scripts/**/*.test.ts'],
		// By itself Vitest leaves a core idle, which on a small machine is half of it.
		maxWorkers: '100%',
		// A file's modules stay for the next: to read them anew for each of them took a third of the time. What a test changes
		// beyond its own house it sets back.
		isolate: false,
		testTimeout: 60_000,
		hookTimeout: 120_000
	}
});
