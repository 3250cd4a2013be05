import { createReadStream } from 'node:fs';
import { stat } from 'node:fs/promises';
import { join } from 'node:path';
import { Readable } from 'node:stream';
import { fail } from '$core/problem';
import { archivesIn } from '$lib/server/archive';
import { closingOf, mustBeForAll } from '$lib/server/closing';
import { downloadHeaders, route, staff } from '$lib/server/http';

/** The sealed archive of a closed administration. */
export const GET = route(staff('see_closing'), async ({ otium, staff, params }) => {
	await mustBeForAll(otium.db, staff, 'see_closing', params.administration);
	const closing = await closingOf(otium.db, params.administration);
	if (!closing) fail('not_found');
	const { name } = await otium.db('administration').where({ id: params.administration }).first('name');
	const path = join(archivesIn(otium.dataDir), closing.archive);
	const { size } = await stat(path).catch(() =>
		fail('not_found', { message: 'The archive is not where it was written.', instead: 'Put it back from a backup.' })
	);
	return new Response(Readable.toWeb(createReadStream(path)) as ReadableStream, {
		headers: { ...downloadHeaders(`${name}.zip`, 'application/zip'), 'content-length': String(size) }
	});
});
