import { z } from 'zod';
import {
	DIFFICULTIES,
	formulasFault,
	textsIn,
	MEDIUM_TYPES,
	type Medium,
	type MediumType,
	type Question,
	type Stimulus
} from '$core/paper';

/** Ids of a paper's own are short; what they may be made of keeps them out of selectors, paths and formulas. */
export const QuestionId = z.string().regex(/^[A-Za-z0-9_-]{1,40}$/);
const Text = z.string().max(2_000);
/** A stem of many pages is carried; a book is not. */
const Stem = z.string().max(20_000);
const MOST_CHOICES = 200;
const Choices = z.array(z.object({ id: QuestionId, text: Text, pinned: z.boolean().optional() })).max(MOST_CHOICES);
const Texts = z.record(QuestionId, Text);

/** More than this on one question is a mistake. */
const MOST_MEDIA = 12;
export const MediumSchema = z.strictObject({
	file: z.string().regex(/^[0-9a-f]{64}$/),
	type: z.enum(Object.keys(MEDIUM_TYPES) as MediumType[]),
	alt: Text,
	width: z.number().int().min(1).max(20_000).optional(),
	height: z.number().int().min(1).max(20_000).optional(),
	plays: z.number().int().min(1).max(99).optional()
}) satisfies z.ZodType<Medium>;
const Media = z.array(MediumSchema).max(MOST_MEDIA);
export const StimulusSchema = z.strictObject({
	id: QuestionId,
	text: Stem,
	media: Media.optional()
}) satisfies z.ZodType<Stimulus>;

/** How often something may be tried in practice, and at what cost. */
export const tryRules = {
	tries: z.number().int().min(1).max(10),
	costPercent: z.number().int().min(0).max(100)
};

const shared = {
	id: QuestionId,
	stem: Stem,
	points: z.number().min(0).max(1_000),
	topic: z.string().max(120),
	difficulty: z.enum(DIFFICULTIES).optional(),
	seconds: z.number().int().min(5).max(10_800).optional(),
	tags: z.array(z.string().trim().min(1).max(60)).max(20).optional(),
	source: z.string().max(300).optional(),
	note: z.string().max(4_000).optional(),
	picture: z.string().max(120).optional(),
	inOther: z.record(z.string().max(35), z.object({ stem: Stem, texts: Texts.optional() })).optional(),
	media: Media.optional(),
	stimulus: StimulusSchema.optional(),
	follows: QuestionId.optional(),
	hint: Text.optional(),
	practice: z.strictObject(tryRules).optional(),
	feedback: z.strictObject({ right: Text.optional(), wrong: Text.optional() }).optional(),
	isExtra: z.boolean().optional(),
	calculator: z.enum(['none', 'basic']).optional()
};
const partial = z.boolean();
const Accepted = z.array(z.string().max(500)).max(50);

const ToleranceSchema = z.object({ kind: z.enum(['absolute', 'relative']), amount: z.number().min(0) });
const Unsimplified = z.number().int().min(0).max(99).optional();
const Name = z.string().regex(/^[A-Za-z][A-Za-z0-9_]{0,20}$/);
const ParameterSchema = z.union([
	z.strictObject({ name: Name, values: z.array(z.number()).max(200) }),
	z.strictObject({ name: Name, from: z.number(), to: z.number(), step: z.number() })
]);

/** Formulas that cost too much are refused where they are written. */
export const formulasAreCheap = (sent: unknown, context: { addIssue: (message: string) => void }) => {
	const fault = formulasFault(textsIn(sent));
	if (fault) context.addIssue(fault);
};

/** A question as it may lie in a paper from before: its formulas may cost more than they may now. */
export const StoredQuestionSchema = z.discriminatedUnion('kind', [
	z.strictObject({ ...shared, kind: z.literal('true_false'), answer: z.boolean() }),
	z.strictObject({
		...shared,
		kind: z.literal('single'),
		choices: Choices,
		answer: z.union([QuestionId, z.literal('')])
	}),
	z.strictObject({
		...shared,
		kind: z.literal('multiple'),
		choices: Choices,
		answer: z.array(QuestionId).max(MOST_CHOICES),
		partial
	}),
	z.strictObject({
		...shared,
		kind: z.literal('matching'),
		items: Choices,
		matches: Choices,
		answer: z.record(QuestionId, QuestionId),
		partial
	}),
	z.strictObject({
		...shared,
		kind: z.literal('ordering'),
		choices: Choices,
		answer: z.array(QuestionId).max(MOST_CHOICES),
		partial
	}),
	z.strictObject({
		...shared,
		kind: z.literal('fill_in'),
		gaps: z.array(z.object({ id: z.string().regex(/^[A-Za-z0-9]{1,12}$/), accepted: Accepted })).max(50),
		partial
	}),
	z.strictObject({ ...shared, kind: z.literal('short'), accepted: Accepted }),
	z.strictObject({
		...shared,
		kind: z.literal('numeric'),
		answer: z.number(),
		tolerance: ToleranceSchema,
		unit: z.string().max(60),
		unsimplified: Unsimplified
	}),
	z.strictObject({
		...shared,
		kind: z.literal('calculated'),
		parameters: z.array(ParameterSchema).max(20),
		conditions: z.array(z.string().max(400)).max(20),
		formula: z.string().max(400),
		tolerance: ToleranceSchema,
		unit: z.string().max(60),
		unsimplified: Unsimplified
	}),
	z.strictObject({
		...shared,
		kind: z.literal('essay'),
		words: z.object({ from: z.number().int().min(0), to: z.number().int().min(1).max(20_000) }).nullable()
	}),
	z.strictObject({ ...shared, kind: z.literal('upload'), most: z.number().int().min(1).max(10) })
]);

/** A question with its key, as an author sends it. */
export const QuestionSchema = StoredQuestionSchema.superRefine(formulasAreCheap) satisfies z.ZodType<Question>;
