import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { installedPackages } from './installed-packages';

type Licence = { license?: { id?: string; name?: string }; expression?: string };
type Component = { name: string; version: string; licenses?: Licence[] };
const bom = JSON.parse(readFileSync('docs/sbom.cdx.json', 'utf8')) as { specVersion: string; components: Component[] };

/**
 * Free software that asks no more than to be named; one that asks for its own files' changes (MPL), and one that asks
 * to be replaceable (LGPL), as a library of its own in the folder of packages is.
 */
const FREE =
	/^\(?(MIT|MIT-0|ISC|0BSD|BSD-2-Clause|BSD-3-Clause|Apache-2\.0|OFL-1\.1|MPL-2\.0|LGPL-3\.0-or-later|Unlicense|CC0-1\.0|BlueOak-1\.0\.0|Python-2\.0|CC-BY-4\.0)( (OR|AND) [\w.-]+)*\)?$/;

describe('what the product is made of', () => {
	it('is all in its bill of materials, in the versions that are installed', () => {
		const installed = installedPackages();
		const told = new Set(bom.components.map((one) => `${one.name}@${one.version}`));
		expect(installed.length).toBeGreaterThan(200);
		expect(
			installed.filter((one) => !told.has(one)),
			'run: npm run sbom'
		).toEqual([]);
	});

	it('is free software', () => {
		const licenceOf = ({ licenses = [] }: Component) =>
			licenses.map((one) => one.expression ?? one.license?.id ?? one.license?.name ?? '?').join(' AND ');
		const others = bom.components.filter((one) => !FREE.test(licenceOf(one)));
		expect(others.map((one) => `${one.name}: ${licenceOf(one)}`)).toEqual([]);
	});
});
