import { execFileSync } from 'node:child_process';
import { writeFileSync } from 'node:fs';
import { installedPackages } from './installed-packages';

type Part = {
	name: string;
	version: string;
	licenses?: unknown;
	author?: unknown;
	description?: unknown;
	externalReferences?: unknown;
	properties?: unknown;
};
type Bom = {
	serialNumber?: string;
	metadata: { timestamp?: string; component: Part };
	components: Part[];
	dependencies?: unknown;
};
/** Whose licence stands in a file of theirs alone. */
const UNTOLD: Record<string, string> = { 'png-js': 'MIT', duck: 'BSD-2-Clause' };

// What the product is made of (CycloneDX 1.5), in the same words for the same packages: no time, no number of its own.
const text = execFileSync('npm', ['sbom', '--sbom-format', 'cyclonedx'], {
	encoding: 'utf8',
	maxBuffer: 64 * 1024 * 1024
});
const bom = JSON.parse(text) as Bom;
delete bom.serialNumber;
delete bom.metadata.timestamp;
bom.metadata.component.name = 'otium';
const installed = new Set(installedPackages());
bom.components = bom.components.filter((part) => installed.has(`${part.name}@${part.version}`));
for (const part of [bom.metadata.component, ...bom.components]) {
	delete part.author;
	delete part.description;
	delete part.externalReferences;
	delete part.properties;
	if (!part.licenses) part.licenses = [{ license: { id: UNTOLD[part.name] } }];
}
// Who needs whom stands in the lock file.
delete bom.dependencies;
writeFileSync('docs/sbom.cdx.json', `${JSON.stringify(bom, null, '\t')}\n`);
console.log(`docs/sbom.cdx.json: ${bom.components.length} packages.`);
