import { sveltekit } from '@sveltejs/kit/vite';
import tailwindcss from '@tailwindcss/vite';
import { defineConfig } from 'vitest/config';

export default defineConfig({
	plugins: [tailwindcss(), sveltekit()],
	build: { chunkSizeWarningLimit: 900 },
	test: { include: ['src/**/*.test.ts', 'stand-ins/**/*.test.ts', 'scripts/**/*.test.ts'], testTimeout: 20_000 }
});
