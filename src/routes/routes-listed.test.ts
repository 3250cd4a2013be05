import { readFileSync, writeFileSync } from 'node:fs';
import { format, resolveConfig } from 'prettier';
import { expect, it } from 'vitest';
import type { Act } from '$core/access';
import { BARE, ROUTE_FACTS } from './route-facts';

type Proof = { who: string; secret: string; by: string };
type Handler = { audience?: 'staff' | 'candidate'; act?: Act; proof?: Proof };
/** Every route and page there is, found and not listed. */
const ROUTES = import.meta.glob<Record<string, unknown>>('./**/+server.ts', { eager: true });
const PAGES = Object.keys(import.meta.glob('./**/+page.server.ts'));
const METHODS = ['GET', 'POST', 'PUT', 'PATCH', 'DELETE'];
const FILE = new URL('../../SECURITY.md', import.meta.url).pathname;

const all = Object.entries(ROUTES).flatMap(([file, module]) =>
	METHODS.filter((method) => method in module).map((method) => {
		const path = file.slice(1).replace('/+server.ts', '');
		return { method, path, name: `${method} ${path}`, handler: module[method] as Handler };
	})
);
const isOfStaff = ({ path }: { path: string }) => path.startsWith('/(staff)/');

it('every route that is open to others than staff has its line: its state and its quota', () => {
	const open = all.filter((route) => !isOfStaff(route)).map(({ name }) => name);
	const pages = PAGES.filter((file) => !file.startsWith('./(staff)/')).map(
		(file) => `page ${file.slice(1).replace('/+page.server.ts', '')}`
	);
	expect([...open, ...pages].sort()).toEqual(Object.keys(ROUTE_FACTS).sort());
	for (const { name, handler } of all) expect(handler.proof ?? BARE[name], name).toBeDefined();
	expect(
		all
			.filter(({ handler }) => !handler.proof)
			.map(({ name }) => name)
			.sort()
	).toEqual(Object.keys(BARE).sort());
});

const PAGE = 'as its route';
/** The list as SECURITY.md has it. */
function listed(): string {
	const open = all
		.filter((route) => !isOfStaff(route))
		.map(({ name, handler }) => ({ name, ...(handler.proof ?? BARE[name]), ...ROUTE_FACTS[name] }));
	const pages = Object.entries(ROUTE_FACTS)
		.filter(([name]) => name.startsWith('page '))
		.map(([name, facts]) => ({ name, who: 'anyone', secret: PAGE, by: PAGE, ...facts }));
	const rows = [...open, ...pages].map(
		({ name, who, secret, by, state, quota }) => `| ${name} | ${who} | ${secret} | ${by} | ${state} | ${quota} |`
	);
	const staff = new Map<string, string[]>();
	for (const { method, path, handler } of all.filter(isOfStaff)) {
		const key = `| ${handler.act ?? 'about oneself'} | ${handler.proof!.by}`;
		staff.set(key, [...(staff.get(key) ?? []), `${method} ${path.replace('/(staff)', '')}`]);
	}
	return [
		'| route | who | secret | proof | when | limit |',
		'| --- | --- | --- | --- | --- | --- |',
		...rows.sort(),
		'',
		'Routes of the staff take the cookie `staff`. Each may be asked for as often as a person works; bodies are bounded.',
		'',
		'| what one must be allowed | proof | routes |',
		'| --- | --- | --- |',
		...[...staff].sort().map(([key, names]) => `${key} | ${names.sort().join(', ')} |`)
	].join('\n');
}

it('SECURITY.md says what each route asks for, as it is', async () => {
	const [from, to] = ['<!-- routes -->', '<!-- end of routes -->'];
	const text = readFileSync(FILE, 'utf8');
	const [before, rest] = text.split(from);
	const after = rest?.split(to)[1];
	expect(after, 'the list has its place').toBeDefined();
	const options = { ...(await resolveConfig(FILE)), filepath: FILE };
	const right = await format(`${before}${from}\n\n${listed()}\n\n${to}${after}`, options);
	// `OTIUM_WRITE=1` writes it.
	if (process.env.OTIUM_WRITE === '1') writeFileSync(FILE, right);
	expect(readFileSync(FILE, 'utf8')).toBe(right);
});
