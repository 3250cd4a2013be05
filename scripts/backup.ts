import { existsSync } from 'node:fs';
import { backupDb } from '$lib/server/db';
import { fail, readOptions } from './options';

const options = readOptions({ to: { type: 'string' }, data: { type: 'string', default: 'data/otium' } });
const from = `${options.data}/otium.sqlite`;
if (!options.to) fail('Say where to: ./otium backup --to FILE');
if (!existsSync(from)) fail(`There is no database in ${options.data}.`);
if (existsSync(options.to)) fail(`${options.to} exists already. Choose a new name; backups are never written over.`);
await backupDb(from, options.to);
console.log(`Copied ${from} to ${options.to}.`);
