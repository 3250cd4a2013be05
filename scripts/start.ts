import { randomBytes } from 'node:crypto';
import { openDb } from '$lib/server/db';
import { addStaff } from '$lib/server/identity';
import { toString } from 'qrcode';
import { listeningWords } from './listening';
import { fail, numberOption, readOptions } from './options';
import { addressesOf, portIsTaken, startServer } from './server-process';

const options = readOptions({
	port: { type: 'string' },
	host: { type: 'string', default: '127.0.0.1' },
	/** For all on this machine's network. */
	lan: { type: 'boolean' },
	data: { type: 'string', default: 'data/otium' },
	origin: { type: 'string' },
	coordinator: { type: 'string' }
});
const port = numberOption(options.port, 'port', 4600);
const host = options.lan ? '0.0.0.0' : options.host;
if (await portIsTaken(port, host)) fail(`Port ${port} is in use. Choose another: ./otium start --port ${port + 1}`);

try {
	await firstCoordinator();
} catch (error) {
	fail((error as Error).message);
}
const server = await startServer({ port, host, dataDir: options.data, origin: options.origin });
for (const line of listeningWords({ host, port, origin: options.origin })) console.log(line);
const [, first] = addressesOf(port, host);
if (!options.origin && first) console.log(await toString(`${first}/sit`, { type: 'utf8', errorCorrectionLevel: 'L' }));
process.on('SIGINT', () => server.kill('SIGTERM'));
process.on('SIGTERM', () => server.kill('SIGTERM'));
server.on('exit', (code) => process.exit(code ?? 0));

/** An empty house needs somebody who can let the others in. */
async function firstCoordinator() {
	const db = await openDb(`${options.data}/otium.sqlite`);
	const anybody = await db('staff').first('id');
	if (!anybody) {
		const signIn = options.coordinator ?? 'coordinator';
		const password = randomBytes(12).toString('base64url');
		await addStaff(db, {
			signIn,
			name: signIn,
			password,
			roles: [{ role: 'coordinator', siteId: null }],
			mustChange: true
		});
		console.log(
			`The first coordinator is "${signIn}", password ${password}. It is shown this once, and is changed at the first sign-in.`
		);
	}
	await db.destroy();
}
