import { z } from 'zod';
import {
	DIFFICULTIES,
	FORM_LETTERS,
	HINT_TIMES,
	MOST_DOCUMENTS,
	MOST_PAGES,
	sumOfStrata,
	type PaperAbout,
	type OneEdit,
	type PaperEdit,
	type Part
} from '$core/paper';
import {
	formulasAreCheap,
	MediumSchema,
	QuestionId,
	QuestionSchema,
	StimulusSchema,
	StoredQuestionSchema,
	tryRules
} from '../question';

export const MOST_QUESTIONS = 500;
const Text = z.string().max(2_000);
const Line = z.string().max(120);
const Draw = z.number().int().min(0).max(MOST_QUESTIONS).nullable();
const Strata = z.partialRecord(z.enum(DIFFICULTIES), z.number().int().min(0).max(MOST_QUESTIONS)).optional();
/** What is dealt by difficulty is what is dealt. */
const addsUp = ({ draw, strata }: { draw: number | null; strata?: Parameters<typeof sumOfStrata>[0] }) =>
	strata === undefined || draw === sumOfStrata(strata);
const PartShape = z.object({
	title: z.string().max(200),
	draw: Draw,
	strata: Strata,
	questions: z.array(QuestionSchema).max(MOST_QUESTIONS)
}) satisfies z.ZodType<Part>;
const PartSchema = PartShape.refine(addsUp);
const PartAboutShape = PartShape.omit({ questions: true });
const PartAbout = PartAboutShape.refine(addsUp);
const About = z.object({
	title: z.string().trim().min(1, 'A paper needs a title.').max(200),
	language: z.string().max(35).optional(),
	formulaSheet: z.array(Text).max(100).optional(),
	script: z.string().max(10_000).optional(),
	instructions: z.string().max(10_000).optional(),
	practice: z.strictObject({ ...tryRules, hints: z.enum(HINT_TIMES).optional() }).optional(),
	card: z
		.strictObject({
			subject: Line.optional(),
			level: Line.optional(),
			programme: Line.optional(),
			year: Line.optional(),
			description: Text.optional()
		})
		.optional(),
	material: z
		.array(z.strictObject({ name: Line.min(1), pages: z.array(MediumSchema).min(1).max(MOST_PAGES) }))
		.min(1)
		.max(MOST_DOCUMENTS)
		.optional(),
	forms: z
		.array(z.object({ name: z.enum(FORM_LETTERS), questions: z.array(QuestionId).max(MOST_QUESTIONS) }))
		.min(1)
		.max(FORM_LETTERS.length)
		.refine((forms) => new Set(forms.map(({ name }) => name)).size === forms.length, 'Two forms have one name.')
		.optional(),
	plan: z
		.array(
			z.object({
				topic: z.string().max(120),
				difficulty: z.enum(DIFFICULTIES).nullable(),
				count: z.number().int().min(0).max(200)
			})
		)
		.max(60)
		.optional()
}) satisfies z.ZodType<PaperAbout>;
/** A whole paper, as a package from elsewhere holds it: its questions are looked at one by one. */
export const PaperFrame = About.extend({
	title: z.string().max(200),
	parts: z.array(PartAboutShape.extend({ questions: z.array(z.unknown()).max(MOST_QUESTIONS) })).max(100),
	pictures: z.record(z.string().max(120), z.object({ svg: z.string().max(200_000), alt: Text })).optional()
});
/** An import of as many questions as a paper may have, and a part for each heading. */
const MOST_EDITS = MOST_QUESTIONS + 100;
const Index = z.number().int().min(0).max(MOST_QUESTIONS);
const Spot = z.object({ part: Index, index: Index });

const OneEditSchema = z.discriminatedUnion('kind', [
	z.object({ kind: z.literal('about'), before: About, after: About.superRefine(formulasAreCheap) }),
	z.object({ kind: z.literal('question'), before: StoredQuestionSchema.nullable(), after: QuestionSchema, at: Spot }),
	z.object({ kind: z.literal('remove_question'), before: StoredQuestionSchema }),
	z.object({ kind: z.literal('move_question'), id: QuestionId, to: Spot }),
	z.object({
		kind: z.literal('stimulus'),
		before: StimulusSchema,
		after: StimulusSchema.superRefine(formulasAreCheap)
	}),
	z.object({ kind: z.literal('part'), index: Index, before: PartAbout, after: PartAbout }),
	z.object({ kind: z.literal('add_part'), index: Index, part: PartSchema }),
	z.object({ kind: z.literal('remove_part'), index: Index, before: PartAbout }),
	z.object({ kind: z.literal('move_part'), title: z.string().max(200), from: Index, to: Index })
]) satisfies z.ZodType<OneEdit>;

/** A change of a paper, as an author sends it: one, or several that belong together. */
export const EditSchema = z.union([
	OneEditSchema,
	z.object({ kind: z.literal('several'), edits: z.array(OneEditSchema).min(1).max(MOST_EDITS) })
]) satisfies z.ZodType<PaperEdit>;
