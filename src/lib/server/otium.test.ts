import { chmodSync, mkdtempSync, rmSync, statSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, it } from 'vitest';
import { startOtium } from './otium';

it('a data folder that others could read is for the server alone once it has started', async () => {
	const dir = mkdtempSync(join(tmpdir(), 'otium-own-'));
	chmodSync(dir, 0o755);
	const otium = await startOtium({ dataDir: dir, sweep: false, logLevel: 'silent' });
	expect(statSync(dir).mode & 0o777).toBe(0o700);
	await otium.stop();
	rmSync(dir, { recursive: true });
});
