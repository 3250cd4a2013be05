import { saveBody } from './bench-room';

/** All that an outsider can send to a server at once, each in a loop, until told to stop. For `./otium bench --hostile`. */
const [url, code, cookie, staffCookie, number, family] = process.argv.slice(2);
const answers: Record<string, Record<string, number>> = {};
let isOver = false;
process.once('message', () => {
	isOver = true;
	process.send!(answers);
});
process.send!('ready');
for (const [name, attack] of Object.entries(attacksOn())) {
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

function attacksOn(): Record<string, () => Promise<Response>> {
	const json = { 'content-type': 'application/json', origin: url };
	const form = { 'content-type': 'application/x-www-form-urlencoded', origin: url };
	const post = (path: string, body: string, headers: Record<string, string> = json) =>
		fetch(url + path, { method: 'POST', body, headers });
	let n = 0;
	/** Twenty layers of noise, as large as a picture may be: minutes of work in four hundred letters. */
	const noise = '<feTurbulence baseFrequency=".9" numOctaves="9"/>'.repeat(20);
	const drawing = `<svg xmlns="http://www.w3.org/2000/svg" width="2000" height="2000"><filter id="a">${noise}</filter><rect width="2000" height="2000" filter="url(#a)"/></svg>`;
	const row = (body: object) =>
		JSON.stringify({ rows: Array.from({ length: 50 }, () => ({ sittingId: 't1', epoch: 1, seq: ++n, ...body })) });
	const cookieOf = (response: Response) =>
		response.headers
			.getSetCookie()
			.map((line) => line.split(';')[0])
			.join('; ');
	const much = 'a1=&a2=&'.repeat(1_300_000);
	return {
		'wrong numbers at the door': () =>
			post('/sit/api/knock', JSON.stringify({ code, number: `X-${n++}`, family: 'Guess', deviceName: `Alarm ${n}` })),
		'wrong passwords': () => post('/sign-in', `name=trial&password=guess${n++}&to=/`, form),
		'guesses at one candidate': () =>
			post('/sit/api/knock', JSON.stringify({ code, number, family: `Guess ${n++}`, deviceName: 'Device, browser' })),
		'arrivals where somebody sits already': async () => {
			const met = await post('/sit/api/knock', JSON.stringify({ code, number, family, deviceName: 'Device, browser' }));
			const { note = '' } = (await met.json()) as { note?: string };
			const body = JSON.stringify({ note, commandId: `command-${n++}`, deviceName: 'x', publicKey: null });
			return post('/sit/api/arrive', body, { ...json, cookie: cookieOf(met) });
		},
		'old answers by a copied cookie': () =>
			post(
				'/sit/api/leftovers',
				row({ plain: { questionId: 'notes', value: 'x', marked: false, struck: [], inViewMs: 1 } }),
				{ ...json, cookie }
			),
		'old answers under seals of their own': () =>
			post('/sit/api/leftovers', row({ iv: 'A'.repeat(16), data: 'A'.repeat(2_000) })),
		'nests of brackets as old answers': () =>
			post(
				'/sit/api/leftovers',
				`{"rows":[{"sittingId":"t1","epoch":1,"seq":1,"plain":${'['.repeat(100_000)}${']'.repeat(100_000)}}]}`
			),
		'passwords that were forgotten': () => post('/sign-in/forgot', JSON.stringify({ name: `made up ${n++}` })),
		'drawings without end, by an author': () =>
			fetch(`${url}/papers/media`, {
				method: 'POST',
				body: drawing,
				headers: { 'content-type': 'image/svg+xml', origin: url, cookie: staffCookie }
			}),
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
