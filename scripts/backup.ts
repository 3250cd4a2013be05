import { existsSync } from 'node:fs';
import { KEY_FILE } from '$lib/server/db';
import { DATABASE, pack, readPassphrase } from './backup-file';
import { fail, readOptions } from './options';

const options = readOptions({
	to: { type: 'string' },
	data: { type: 'string', default: 'data/otium' },
	passphrase: { type: 'string' }
});
if (!options.to) fail('Say where to: ./otium backup --to FILE');
if (!existsSync(`${options.data}/${DATABASE}`)) fail(`There is no database in ${options.data}.`);
if (existsSync(options.to)) fail(`${options.to} exists already. Choose a new name; backups are never written over.`);
const passphrase = readPassphrase(options.passphrase);
const withKey = passphrase !== null && existsSync(`${options.data}/${KEY_FILE}`);
await pack(options.data, options.to, passphrase, withKey);
console.log(`Copied ${options.data} to ${options.to}${passphrase === null ? '' : ', encrypted'}.`);
console.log(
	withKey
		? 'The key of the house is in it: whoever has the file and the passphrase has everything.'
		: `The key of the house is not in it. Keep ${process.env.OTIUM_KEY ? 'OTIUM_KEY' : `a copy of ${options.data}/${KEY_FILE}`} elsewhere: without it the backup can't be restored.`
);
