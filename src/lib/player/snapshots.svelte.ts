import { ask } from './ask';

const WIDTH = 160;
const HEIGHT = 120;
const QUALITY = 0.6;

/**
 * Takes a small picture from the camera every so often and sends it. One that can't be sent is not kept: the next comes
 * soon. Where there is no camera a drawn stand-in takes its place, plainly not a person, so that staff see that there is none.
 */
export class Snapshots {
	/** The camera was refused or is missing. */
	isStandIn = $state(false);

	/** @param standIn what is shown where there is no camera */
	constructor(private readonly standIn: () => Promise<MediaStream>) {}

	start(everySeconds: number): () => void {
		let stopped = false;
		let timer: ReturnType<typeof setInterval> | undefined;
		let stream: MediaStream | null = null;
		const video = document.createElement('video');
		video.muted = true;
		void (async () => {
			stream = await navigator.mediaDevices?.getUserMedia({ video: { width: 320, height: 240 } }).catch(() => null);
			if (!stream) {
				stream = await this.standIn();
				this.isStandIn = true;
			}
			if (stopped) return stream.getTracks().forEach((track) => track.stop());
			video.srcObject = stream;
			await video.play().catch(() => {});
			void take(video);
			timer = setInterval(() => void take(video), everySeconds * 1_000);
		})();
		return () => {
			stopped = true;
			clearInterval(timer);
			stream?.getTracks().forEach((track) => track.stop());
		};
	}
}

async function take(video: HTMLVideoElement) {
	const canvas = document.createElement('canvas');
	canvas.width = WIDTH;
	canvas.height = HEIGHT;
	canvas.getContext('2d')!.drawImage(video, 0, 0, WIDTH, HEIGHT);
	const blob = await new Promise<Blob | null>((resolve) => canvas.toBlob(resolve, 'image/jpeg', QUALITY));
	if (!blob) return;
	// Nobody waits to hear what became of it.
	await ask('POST', '/sit/api/snapshot', blob);
}
