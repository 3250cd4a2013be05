import { defineConfig } from '@playwright/test';

/**
 * Debian's Chromium, as the shell without a window: the same engine, and a third less work for the machine than the
 * whole browser. The flags keep it from talking to anybody but our server.
 */
const LAUNCH = {
	executablePath: '/usr/bin/chromium-headless-shell',
	args: [
		'--no-sandbox',
		'--disable-gpu',
		'--disable-quic',
		'--no-first-run',
		// A name of another machine: over plain HTTP a browser withholds from it what it gives to localhost.
		'--host-resolver-rules=MAP exams.example 127.0.0.1',
		'--disable-background-networking',
		'--disable-component-update',
		'--disable-sync'
	]
};

export default defineConfig({
	testDir: 'e2e',
	// Long enough for a machine that is four times slower than a quiet one: nothing here says how fast Otium is, the bench does.
	timeout: 180_000,
	expect: { timeout: 40_000 },
	workers: 2,
	// What fails has failed: `./otium test` runs it once more to record it, and says what came of that.
	retries: 0,
	reporter: [['list']],
	use: {
		actionTimeout: 40_000,
		launchOptions: LAUNCH,
		viewport: { width: 1280, height: 800 },
		// What moves is drawn sixty times a second, without a graphics card; the other browsers are tried with it.
		contextOptions: { reducedMotion: 'reduce' },
		locale: 'en-GB',
		screenshot: 'only-on-failure'
	}
});
