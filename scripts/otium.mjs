// Finds the command that was asked for and gets ready what it needs. Plain JavaScript without packages: it runs before
// anything is installed.
import { spawn } from 'node:child_process';
import { build, commandFile, compile, install, installBrowsers } from './prepare.mjs';

/** @type {Record<string, { does: string, usage: string, needs: ('database' | 'build' | 'browser')[] }>} */
const COMMANDS = {
	demo: {
		does: 'Install, build and start with a demo day in the middle of its morning.',
		usage: '[--port 4600] [--host 0.0.0.0] [--data data/demo] [--keep] [--no-crowd] [--clock HH:MM]',
		needs: ['database', 'build']
	},
	start: {
		does: 'Start the server on its own data.',
		usage:
			'[--port 4600] [--lan | --host 127.0.0.1] [--data data/otium] [--origin https://exams.example] [--coordinator NAME]\n\n--lan: for all on this machine’s network.',
		needs: ['database', 'build']
	},
	test: {
		does: 'Run every check and test: format, lint, types, unit, build, interface.',
		usage:
			'[--only unit|e2e] | PATTERN... | --quick [--since COMMIT] | --twice | --fuzz MINUTES\n\nPATTERN is lint, format, types, part of a test file’s path, or words of a test’s name.',
		// What it needs it gets ready by itself: each of its parts needs something else.
		needs: []
	},
	pack: {
		does: 'Pack the built application with what it runs on, for a machine without build tools or a network.',
		usage: '--to FILE.tar.gz',
		needs: ['database', 'build']
	},
	check: { does: 'Run the quick checks alone: format, lint, types.', usage: '', needs: [] },
	crowd: {
		does: 'Send simulated candidates to a session over HTTP.',
		usage: '--session CODE [--candidates 200] [--seed 7] [--url http://localhost:4600] [--data data/demo] [--fast]',
		needs: ['database']
	},
	client: {
		does: 'Open the sealed client’s stand-in: Chromium over the whole screen, proving itself with this device’s key.',
		usage:
			'[--code CODE, the first time] [--keep data/client-device.json] [--url http://localhost:4600] [--version 2.1]',
		needs: ['database', 'browser']
	},
	screenshots: {
		does: 'Take the pictures in docs/screenshots from the demo day.',
		usage: '[--only NAME]',
		needs: ['database', 'build', 'browser']
	},
	bench: {
		does: 'Measure saves, the way to the proctor’s screen, memory and growth, as ratios in one run; or soak a room with kills.',
		usage:
			'[--seconds 8] [--sittings 200] [--largest 2000] | --calm | --pages | --hostile | --papers | --grants | --closing | --scroll | --soak [--minutes 30] [--candidates 1000]',
		needs: ['database', 'build']
	},
	staff: {
		does: 'Let somebody of the staff in again who has lost every way to sign in.',
		usage: 'reset NAME [--data data/otium]',
		needs: ['database']
	},
	backup: {
		does: 'Copy all that a house has, while it runs, into one file.',
		usage: '--to FILE [--data data/otium] [--passphrase FILE]',
		needs: ['database']
	},
	verify: {
		does: 'Prove the archive of a closed administration, without the server that wrote it.',
		usage: 'FILE [--key PRINT or FILE] [--without-names COPY]',
		needs: ['database']
	},
	restore: {
		does: 'Put a backup in the place of the data. Asks for --yes.',
		usage:
			'--from FILE [--data data/otium] [--passphrase FILE] [--key FILE] [--anchor FILE]... [--other-house] [--yes]',
		needs: ['database']
	}
};

const [name, ...rest] = process.argv.slice(2);
const command = COMMANDS[name];

if (!command) {
	if (name && name !== '--help' && name !== '-h' && name !== 'help') console.error(`There is no command "${name}".\n`);
	console.log('Usage: ./otium COMMAND [options]\n');
	for (const [key, { does }] of Object.entries(COMMANDS)) console.log(`  ${key.padEnd(12)} ${does}`);
	console.log('\n./otium COMMAND --help tells a command’s options.');
	process.exit(name && !['--help', '-h', 'help'].includes(name) ? 2 : 0);
}
if (rest.includes('--help') || rest.includes('-h')) {
	console.log(`${command.does}\n\nUsage: ./otium ${name} ${command.usage}`);
	process.exit(0);
}

await install();
// Side by side: the compiler keeps one core busy and the build another, and browsers come over the network.
await Promise.all([
	command.needs.includes('database') ? compile() : null,
	command.needs.includes('build') ? build() : null,
	command.needs.includes('browser') ? installBrowsers() : null
]);

const bundled = await commandFile(name);
const from = bundled ? ['--enable-source-maps', bundled] : ['--import', 'tsx', `scripts/${name}.ts`];
const child = spawn(process.execPath, [...from, ...rest], { stdio: 'inherit' });
for (const signal of /** @type {const} */ (['SIGINT', 'SIGTERM'])) process.on(signal, () => child.kill(signal));
child.on('exit', (code, signal) => process.exit(code ?? (signal ? 1 : 0)));
