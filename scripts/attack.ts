import { saveBody } from './bench-room';

/** All that an outsider can send to a server at once, each in a loop, until told to stop. For `./otium bench --hostile`. */
const [url, code, cookie] = process.argv.slice(2);
const answers: Record<string, Record<string, number>> = {};
let isOver = false;
process.once('message', () => {
	isOver = true;
	process.send!(answers);
});
process.send!('ready');
for (const [name, attack] of Object.entries(attacksOn(url, code, cookie))) {
	const told: Record<string, number> = (answers[name] = {});
	void (async () => {
		while (!isOver) {
			const status = await attack().then(
				async (response) => {
					await response.arrayBuffer();
					return String(response.status);
				},
				() => 'cut off'
			);
			told[status] = (told[status] ?? 0) + 1;
		}
	})();
}

function attacksOn(url: string, code: string, cookie: string): Record<string, () => Promise<Response>> {
	const json = { 'content-type': 'application/json', origin: url };
	const form = { 'content-type': 'application/x-www-form-urlencoded', origin: url };
	const post = (path: string, body: string, headers: Record<string, string> = json) =>
		fetch(url + path, { method: 'POST', body, headers });
	let n = 0;
	const much = 'a1=&a2=&'.repeat(1_300_000);
	return {
		'wrong numbers at the door': () =>
			post('/sit/api/knock', JSON.stringify({ code, number: `X-${n++}`, family: 'Guess', deviceName: `Alarm ${n}` })),
		'wrong passwords': () => post('/sign-in', `name=trial&password=guess${n++}&to=/`, form),
		'a copied cookie': () => post('/sit/api/answers', saveBody(9_000_000 + n, n++), { ...json, cookie }),
		'forms of ten megabytes': () => post('/sign-in', much, form),
		'bodies that are too large': () => post('/sit/api/answers', `{"revisions":"${'x'.repeat(2_000_000)}"}`),
		'made-up receipts': () =>
			post('/verify', JSON.stringify({ text: `eyJ${n++}.eyJ${'a'.repeat(500)}.${'b'.repeat(86)}` })),
		'challenges without end': () => post('/sit/api/challenge', '{}'),
		'codes to enrol by': () =>
			post('/sit/api/enrol', JSON.stringify({ code: `AAAA-${n++}`, name: 'x', publicKey: 'x' }))
	};
}
