import { z } from 'zod';
import { fullName } from '$core/names';
import { COLUMNS, MOST_BYTES, type CheckedFile, type ColumnKey } from '$core/people';
import { fail } from '$core/problem';
import { isUnavailable } from '$lib/server/db';
import { coordinatorOf, orRefuse, route, staff } from '$lib/server/http';
import { applyImport, checkImport, importTimetable, type Checked } from '$lib/server/people';

const column = z.number().int().min(0).max(500).nullable();
const Wishes = z.object({
	siteId: z.string().max(64),
	mapping: z
		.object(
			Object.fromEntries((Object.keys(COLUMNS) as ColumnKey[]).map((key) => [key, column])) as Record<
				ColumnKey,
				typeof column
			>
		)
		.nullable(),
	separator: z.enum([',', ';', '\t', '|']).nullable(),
	dateOrder: z.enum(['day_first', 'month_first']).nullable(),
	nameOrder: z.enum(['comma', 'given_first', 'family_first']).nullable().default(null),
	makeGroups: z.boolean().nullable(),
	makeNumbers: z.boolean().nullable().default(null),
	sameNames: z.enum(['ask', 'two']).default('ask'),
	isPasted: z.boolean().default(false),
	sheet: z.string().max(200).nullable().default(null),
	missing: z.enum(['keep', 'leave']),
	schoolId: z.string().max(200).nullable()
});
const Asked = Wishes.extend({
	/** Of the check that was looked at; without one the file is only checked. */
	seal: z.string().max(64).nullable(),
	/** The file is a timetable for this group. */
	groupId: z.string().max(64).nullable()
});

/** As many of each as a person looks at; the counts tell the rest. */
const SHOWN = 200;

function shorten({ plan, sha256: _, ...checked }: Checked): CheckedFile {
	const { add, change, missing, problems, newGroups, same } = plan;
	const named = (one: { number: string; given: string; family: string }) => `${fullName(one)}, ${one.number}`;
	return {
		...checked,
		counts: {
			add: add.length,
			change: change.length,
			same,
			missing: missing.length,
			problems: problems.length
		},
		newGroups,
		add: add.slice(0, SHOWN).map(named),
		change: change.slice(0, SHOWN).map((one) => ({ who: named(one.person), differences: one.differences })),
		missing: missing.slice(0, SHOWN).map(named),
		problems: problems.slice(0, SHOWN)
	};
}

/** Checks a file, or (with the seal of a check) imports it, telling how far it is, a line of JSON at a time. */
export const POST = route(staff('prepare'), async ({ request, otium, staff }) => {
	const { file, asked } = await readForm(request);
	const { seal, groupId, ...rest } = asked;
	const by = coordinatorOf(staff, rest.siteId);
	if (!(await otium.db('site').where({ id: rest.siteId }).first('id')))
		fail('not_taken', {
			message: 'People belong to a site, and there is none of this name.',
			instead: 'Make it first: “Set up” leads there.'
		});
	const bytes = new Uint8Array(await file.arrayBuffer());

	if (groupId !== null) {
		const group = await otium
			.db('candidate_group')
			.join('site', 'site.id', 'candidate_group.site_id')
			.where({ 'candidate_group.id': groupId, 'site.id': rest.siteId })
			.first('site.zone');
		if (!group) fail('not_found', { message: 'This group is gone.', instead: 'Choose another.' });
		const ids: string[] = await otium.db('group_member').where({ group_id: groupId }).pluck('candidate_id');
		const text = new TextDecoder().decode(bytes);
		const done = orRefuse(await importTimetable(otium, by, ids, text, group.zone), 'not_taken');
		return { timetable: { candidates: ids.length, entries: done.busy.length, skipped: done.skipped } };
	}
	if (seal === null) {
		const result = await checkImport(otium, file.name, bytes, rest);
		if (!result.ok) fail('not_taken', { message: result.refused.message }, result.refused);
		return shorten(result.checked);
	}
	const encoder = new TextEncoder();
	const stream = new ReadableStream<Uint8Array>({
		async start(controller) {
			const tell = (line: unknown) => controller.enqueue(encoder.encode(`${JSON.stringify(line)}\n`));
			try {
				const result = await applyImport(otium, by, file.name, bytes, rest, seal, (done, total) =>
					tell({ done, total })
				);
				tell(result.ok ? { applied: result.applied } : { refused: result.refused.message });
			} catch (error) {
				if (!isUnavailable(error)) otium.log.error({ err: error }, 'an import failed');
				tell({ refused: 'Nothing was imported: the server could not write it. Try again in a moment.' });
			}
			controller.close();
		}
	});
	return new Response(stream, { headers: { 'content-type': 'application/x-ndjson' } });
});

/** The file and what is to be done with it, as the form sends them. */
async function readForm(request: Request): Promise<{ file: File; asked: z.infer<typeof Asked> }> {
	if (Number(request.headers.get('content-length') ?? 0) > MOST_BYTES + 100_000) fail('file_too_large');
	let form: FormData;
	let wishes: unknown = null;
	try {
		form = await request.formData();
		wishes = JSON.parse(String(form.get('asked')));
	} catch (error) {
		if ((error as { status?: number }).status === 413) fail('file_too_large');
		fail(error instanceof SyntaxError ? 'wishes_malformed' : 'file_unreadable');
	}
	const file = form.get('file');
	const asked = Asked.safeParse(wishes);
	if (!(file instanceof File) || !asked.success) fail('wishes_malformed');
	return { file, asked: asked.data };
}
