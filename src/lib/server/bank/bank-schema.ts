import { z } from 'zod';
import { AUDIENCES } from '$core/bank';
import { DIFFICULTIES, QUESTION_KINDS } from '$core/paper';
import { QuestionSchema } from '../question';
import type { BankAsk } from './find';
import type { BankChange, BulkChange } from './one';

const MOST_AT_ONCE = 1_000;
const Topic = z.string().max(120);

/** What is looked for, as it stands in an address. */
export const AskSchema = z.object({
	text: z.string().max(200).optional(),
	topic: Topic.optional(),
	kind: z.enum(QUESTION_KINDS as [(typeof QUESTION_KINDS)[number]]).optional(),
	difficulty: z.enum([...DIFFICULTIES, 'none']).optional(),
	language: z.string().max(35).optional(),
	use: z.enum(['never', 'used']).optional(),
	remarks: z.literal('open').optional(),
	retired: z.stringbool().optional(),
	from: z.coerce.number().int().min(0).max(1_000_000).optional()
}) satisfies z.ZodType<BankAsk>;

export const BankChangeSchema = z.object({
	question: QuestionSchema,
	revision: z.number().int().nullable(),
	siteId: z.string().max(40).nullable(),
	audience: z.enum(AUDIENCES),
	named: z.array(z.string().max(40)).max(100)
}) satisfies z.ZodType<BankChange>;

export const BulkSchema = z.object({
	ids: z.array(z.string().max(40)).min(1).max(MOST_AT_ONCE),
	change: z
		.object({
			points: z.number().min(0).max(1_000).optional(),
			topic: Topic.optional(),
			difficulty: z.enum([...DIFFICULTIES, 'none']).optional(),
			audience: z.enum(['me', 'site', 'all']).optional(),
			retired: z.boolean().optional()
		})
		.refine((change) => Object.keys(change).length > 0, 'Choose what to change.') satisfies z.ZodType<BulkChange>
});

export const RemarkSchema = z.union([
	z.object({ text: z.string().trim().min(1, 'Write what you remark.').max(2_000) }),
	z.object({ remark: z.string().max(40), settled: z.boolean() })
]);
