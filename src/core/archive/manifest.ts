/** A file within an archive. */
export type ArchivedFile = { name: string; sha256: string; bytes: number; lines: number | null };

/** What an archive says of itself. It is the last file but its signature, and lists every other. */
export type Manifest = {
	format: 'otium archive';
	version: 1;
	/** How answers are read and points added up; missing: as they were before 0.24. */
	marking?: 2;
	administration: { id: string; name: string };
	/** ISO 8601. */
	closedAt: string;
	closedBy: string;
	second: string | null;
	counts: { results: number; answers: number; entries: number };
	/** The hash of the log’s last entry before the closing, and its number. */
	head: { entries: number; hash: string };
	files: ArchivedFile[];
	/** The house’s public key (PEM), by which the signature is checked. */
	key: string;
};

/** Names of people lie here alone; an archive without it still proves everything else. */
export const PEOPLE = 'people.jsonl';
export const MANIFEST = 'manifest.json';
/** A JWS over the SHA-256 of the manifest. */
export const SIGNATURE = 'manifest.jws';

/** What a look at an archive found. */
export type ArchiveVerdict = {
	manifest: Manifest | null;
	bytes: number;
	/** Names were taken out of it. */
	isWithoutNames: boolean;
	/** Results that were worked out again from paper, answers and corrections. */
	remarked: number;
	/** What is not as it was sealed; none: everything is. */
	faults: string[];
};

/**
 * Compares what lies in an archive with its manifest.
 * @param found by name: what was read
 */
export function faultsOf(manifest: Manifest, found: Map<string, { sha256: string; bytes: number }>): string[] {
	const named = new Set([MANIFEST, SIGNATURE, ...manifest.files.map(({ name }) => name)]);
	const faults = manifest.files.flatMap(({ name, sha256, bytes }) => {
		const there = found.get(name);
		if (!there) return name === PEOPLE ? [] : [`${name} is missing.`];
		if (there.bytes !== bytes) return [`${name} has ${there.bytes} bytes, and ${bytes} were sealed.`];
		return there.sha256 === sha256 ? [] : [`${name} is not what was sealed.`];
	});
	const strange = [...found.keys()].filter((name) => !named.has(name));
	return [...faults, ...strange.map((name) => `${name} was added after the archive was sealed.`)];
}
