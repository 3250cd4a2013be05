import { z } from 'zod';
import { LONGEST_LINE, LONGEST_TEXT } from '$core/paper';

const Value = z.union([
	z.boolean(),
	z.string().max(LONGEST_TEXT),
	z.array(z.string().max(64)).max(60),
	z.record(z.string().max(64), z.string().max(LONGEST_LINE)).refine((parts) => Object.keys(parts).length <= 60),
	z.null()
]);

/** One revision of one answer, as a device sends it; apart from its number. */
export const RevisionContent = z.object({
	questionId: z.string().min(1).max(64),
	value: Value,
	marked: z.boolean(),
	struck: z.array(z.string().max(64)).max(30),
	inViewMs: z.number().int().min(0).max(86_400_000)
});
/** A device's own number of a revision. */
export const Seq = z.number().int().min(1).max(2_000_000_000);
export const RevisionAsked = RevisionContent.extend({ seq: Seq });
