import { describe, expect, it } from 'vitest';
import { languageCheck } from '../session';
import { isDeviceReady, powerCheck, type CheckResult, type DeviceCheck } from './device-check';

const passed = (...keys: DeviceCheck[]): CheckResult[] => keys.map((key) => ({ key, ok: true, says: '' }));
const failed = (key: DeviceCheck): CheckResult => ({ key, ok: false, says: '' });
const PLAIN = passed('screen', 'sound', 'storage', 'line');
const NOTHING_MORE = { client: null, camera: false, sound: true };

describe('whether a device is ready', () => {
	it('asks for what a paper needs, and for client and camera where the rules do', () => {
		expect(isDeviceReady(PLAIN, NOTHING_MORE)).toBe(true);
		for (const { key } of PLAIN)
			expect(
				isDeviceReady(
					PLAIN.filter((one) => one.key !== key),
					NOTHING_MORE
				)
			).toBe(false);
		expect(isDeviceReady(PLAIN, { client: '1.0', camera: false, sound: false })).toBe(false);
		expect(isDeviceReady([...PLAIN, ...passed('client')], { client: '1.0', camera: false, sound: false })).toBe(true);
		expect(isDeviceReady([...PLAIN, failed('camera')], { client: null, camera: true, sound: false })).toBe(false);
	});
	it('keeps nobody out for a wrong clock, and asks for signing out only where that was asked', () => {
		expect(isDeviceReady([...PLAIN, failed('clock')], NOTHING_MORE)).toBe(true);
		expect(isDeviceReady([...PLAIN, failed('accounts')], NOTHING_MORE)).toBe(false);
		expect(isDeviceReady([...PLAIN, ...passed('accounts')], NOTHING_MORE)).toBe(true);
	});
});

describe('what a device is looked over for', () => {
	it('says when it should be plugged in, and keeps nobody out for it', () => {
		expect(powerCheck({ charging: true, level: 0.05 })).toMatchObject({ ok: true, says: 'plugged in, 5 %' });
		expect(powerCheck({ charging: false, level: 0.4 })).toMatchObject({ ok: true });
		const low = powerCheck({ charging: false, level: 0.39 });
		expect(low).toMatchObject({ ok: false, says: 'battery at 39 %: plug it in' });
		expect(isDeviceReady([...PLAIN, low], NOTHING_MORE)).toBe(true);
	});

	it('compares the language of the device with that of the paper, whichever the region', () => {
		expect(languageCheck('en-US', 'en', (tag) => tag).ok).toBe(true);
		expect(languageCheck('pt', 'pt-PT', (tag) => tag).ok).toBe(true);
		expect(languageCheck('de-DE', 'en', (tag) => tag)).toMatchObject({
			ok: false,
			says: 'set to de-DE, and the paper is in en: check the keyboard'
		});
	});
});
