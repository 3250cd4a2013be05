import { createHash } from 'node:crypto';
import { join } from 'node:path';
import { MANIFEST, SIGNATURE, type Manifest } from '$core/archive';
import { connectDb, transact, type Query } from '../db';
import { readHanded } from '../handed';
import { headOf, receiptKey } from '../proof';
import { contentsOf } from './contents';
import { sealLength, sealOf } from './seal';
import { ZipFile } from './zip-file';

/** What is sealed, by whom, into which file. */
export type ToSeal = {
	dataDir: string;
	to: string;
	administration: { id: string; name: string };
	at: number;
	closedBy: string;
	second: string | null;
	counts: { results: number; answers: number };
};
export type SealedArchive = { sha256: string; bytes: number; manifest: Manifest };

/** Writes the archive of an administration, as it is in one instant. */
export async function writeArchive(asked: ToSeal): Promise<SealedArchive> {
	const db = connectDb(join(asked.dataDir, 'otium.sqlite'));
	const zip = await ZipFile.create(asked.to);
	try {
		// One transaction that only reads: whatever is written meanwhile is not seen.
		return await transact(db, async (trx) => {
			const head = await headOf(trx, asked.at);
			let entries = 0;
			for (const { name, lines } of contentsOf(trx, asked.administration.id)) {
				const file = await zip.add(name, lines());
				if (name === 'logbook.jsonl') entries = file.lines ?? 0;
			}
			for await (const { name, bytes } of handedFiles(trx, asked)) await zip.add(name, [bytes]);
			const manifest: Manifest = {
				format: 'otium archive',
				version: 1,
				marking: 2,
				administration: asked.administration,
				closedAt: new Date(asked.at).toISOString(),
				closedBy: asked.closedBy,
				second: asked.second,
				counts: { ...asked.counts, entries },
				head: { entries: head.entries, hash: head.head },
				files: [...zip.files],
				key: receiptKey(db)
			};
			const text = JSON.stringify(manifest, null, '\t');
			await zip.add(MANIFEST, [Buffer.from(text)]);
			const sha256 = createHash('sha256').update(text).digest('hex');
			await zip.add(SIGNATURE, [Buffer.from(sealOf(db, 'manifest', sha256))]);
			const whole = await zip.end(sealLength('archive'), async (hash) => sealOf(db, 'archive', hash));
			return { sha256: whole, bytes: zip.bytes, manifest };
		});
	} catch (error) {
		await zip.abandon();
		throw error;
	} finally {
		await db.destroy();
	}
}

/** Photos and PDFs of working on paper, under the sitting that they are of. */
async function* handedFiles(
	db: Query,
	{ dataDir, administration }: ToSeal
): AsyncGenerator<{ name: string; bytes: Uint8Array }> {
	const rows: { id: string; sitting_id: string; type: string }[] = await db('sitting_file')
		.join('sitting', 'sitting.id', 'sitting_file.sitting_id')
		.where({ administration_id: administration.id })
		.orderBy(['sitting_id', 'sitting_file.id'])
		.select('sitting_file.id', 'sitting_id', 'type');
	for (const { id, sitting_id, type } of rows) {
		const file = await readHanded({ db, dataDir }, sitting_id, id);
		const extension = type === 'application/pdf' ? 'pdf' : 'jpg';
		if (file) yield { name: `files/${sitting_id}/${id}.${extension}`, bytes: file.bytes };
	}
}
