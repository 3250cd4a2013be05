import { CLOCK_TOLERANCE_MS, powerCheck, SLOW_LINE_MS, type CheckResult } from '$core/access';
import { languageCheck, languageName } from '$core/session';
import { send } from '$ui/post';

/**
 * The checks that a page can do by itself. Those that need ears and eyes are asked of the candidate.
 * @param language that of the paper; null: it is not known yet
 */
export async function checkByItself(language: string | null = null): Promise<CheckResult[]> {
	const power = await battery();
	const { isExtended } = window.screen as { isExtended?: boolean };
	return [
		checkScreen(),
		await checkStorage(),
		...(await checkLineAndClock()),
		// Not every browser tells of its power and of further screens: of what is not known nothing is said.
		...(power ? [powerCheck(power)] : []),
		...(isExtended === undefined ? [] : [checkScreens(isExtended)]),
		...(language === null ? [] : [languageCheck(navigator.language, language, languageName)])
	];
}

async function battery(): Promise<{ charging: boolean; level: number } | null> {
	const { getBattery } = navigator as { getBattery?: () => Promise<{ charging: boolean; level: number }> };
	return (await getBattery?.call(navigator).catch(() => null)) ?? null;
}

function checkScreens(isExtended: boolean): CheckResult {
	return isExtended
		? { key: 'screens', ok: false, says: 'a second screen is connected: unplug it before you begin' }
		: { key: 'screens', ok: true, says: 'one' };
}

function checkScreen(): CheckResult {
	const { width, height } = window.screen;
	return width >= 320 && height >= 480
		? {
				key: 'screen',
				ok: true,
				says: `${width} × ${height}${document.fullscreenEnabled ? ', and a page can fill it' : ', but no page can fill it here'}`
			}
		: { key: 'screen', ok: false, says: `${width} × ${height} is too small to read a question on` };
}

/** Answers are kept on the device while the line is down: that has to work, and to be read back. */
async function checkStorage(): Promise<CheckResult> {
	const name = 'otium-rehearsal';
	try {
		const { openDB, deleteDB } = await import('idb');
		const db = await openDB(name, 1, { upgrade: (upgraded) => void upgraded.createObjectStore('kept') });
		await db.put('kept', 'answer', 1);
		const back = await db.get('kept', 1);
		db.close();
		await deleteDB(name);
		if (back === 'answer') return { key: 'storage', ok: true, says: 'answers are kept when the connection is lost' };
	} catch {
		// Told below.
	}
	return { key: 'storage', ok: false, says: 'this browser cannot keep answers: leave private browsing' };
}

async function checkLineAndClock(): Promise<CheckResult[]> {
	const times: { took: number; offset: number }[] = [];
	for (let i = 0; i < 3; i++) {
		const [asked, from] = [Date.now(), performance.now()];
		const answer = await send<{ now: number }>('GET', '/sit/api/rehearse');
		if (!answer.ok) {
			const says = (await isHeldByNetwork())
				? 'this network shows a page of its own first: open any other site, sign in there, and come back'
				: 'the server can’t be reached from here';
			return [
				{ key: 'line', ok: false, says },
				{ key: 'clock', ok: false, says }
			];
		}
		const took = performance.now() - from;
		// Half the way there, half back (Cristian 1989).
		times.push({ took, offset: asked + took / 2 - answer.data.now });
	}
	const best = times.reduce((a, b) => (b.took < a.took ? b : a));
	const off = Math.round(Math.abs(best.offset) / 1_000);
	return [
		{
			key: 'line',
			ok: best.took < SLOW_LINE_MS,
			says:
				best.took < SLOW_LINE_MS
					? `${Math.round(best.took)} ms`
					: `${Math.round(best.took)} ms is slow: saving takes longer, but nothing is lost`
		},
		{
			key: 'clock',
			ok: Math.abs(best.offset) < CLOCK_TOLERANCE_MS,
			says:
				off < 2
					? 'right'
					: `${off} s ${best.offset > 0 ? 'fast' : 'slow'}${Math.abs(best.offset) < CLOCK_TOLERANCE_MS ? '; Otium uses its own clock' : ': set it right'}`
		}
	];
}

/** A network with a sign-in page of its own answers in the server's place, with a page or a way to one. */
async function isHeldByNetwork(): Promise<boolean> {
	try {
		const answer = await fetch('/sit/api/rehearse', { redirect: 'manual', cache: 'no-store' });
		return answer.type === 'opaqueredirect' || answer.headers.get('content-type')?.includes('text/html') === true;
	} catch {
		return false;
	}
}

/** A tone of a second, at the volume that is set. */
export async function playTone(): Promise<void> {
	const context = new AudioContext();
	const tone = context.createOscillator();
	const volume = context.createGain();
	volume.gain.value = 0.3;
	tone.frequency.value = 523.25;
	tone.connect(volume).connect(context.destination);
	tone.start();
	tone.stop(context.currentTime + 1);
	await new Promise((resolve) => setTimeout(resolve, 1_100));
	await context.close();
}

/** Whether sound comes in: the loudest of a second and a half. null: no microphone, or it is refused. */
export async function listen(): Promise<number | null> {
	let stream: MediaStream;
	try {
		stream = await navigator.mediaDevices.getUserMedia({ audio: true });
	} catch {
		return null;
	}
	const context = new AudioContext();
	const analyser = context.createAnalyser();
	context.createMediaStreamSource(stream).connect(analyser);
	const samples = new Float32Array(analyser.fftSize);
	let loudest = 0;
	for (let i = 0; i < 15; i++) {
		await new Promise((resolve) => setTimeout(resolve, 100));
		analyser.getFloatTimeDomainData(samples);
		loudest = Math.max(loudest, ...samples.map(Math.abs));
	}
	stream.getTracks().forEach((track) => track.stop());
	await context.close();
	return loudest;
}
