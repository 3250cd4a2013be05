/**
 * Stands in for a camera where there is none: a drawn picture that moves, plainly not a person, as a stream like a real
 * camera's.
 */
export function cameraStandIn(): MediaStream {
	const canvas = document.createElement('canvas');
	canvas.width = 320;
	canvas.height = 240;
	const context = canvas.getContext('2d')!;
	const started = performance.now();
	const draw = () => {
		const turn = (performance.now() - started) / 1_000;
		context.fillStyle = '#dcebe5';
		context.fillRect(0, 0, 320, 240);
		context.fillStyle = '#1f5e57';
		context.beginPath();
		context.arc(160 + 60 * Math.cos(turn), 110 + 30 * Math.sin(turn), 26, 0, 2 * Math.PI);
		context.fill();
		context.font = '16px sans-serif';
		context.fillText('camera stand-in', 100, 220);
	};
	draw();
	setInterval(draw, 200);
	return canvas.captureStream(5);
}
