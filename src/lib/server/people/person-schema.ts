import { z } from 'zod';
import { isEmailAddress } from '$core/mail';

const text = (most: number) => z.string().trim().max(most);
const optional = (most: number) => text(most).transform((value) => value || null);

/** A person as a form sends them. */
export const PersonFields = z.object({
	number: text(120).min(1, 'A number is needed.'),
	given: text(120),
	family: text(120).min(1, 'A family name is needed.'),
	email: optional(200).refine((value) => value === null || isEmailAddress(value), 'This is not an e-mail address.'),
	birth: optional(10).refine(
		(value) => value === null || /^\d{4}-\d{2}-\d{2}$/.test(value),
		'Give a date, like 2007-05-31.'
	),
	language: optional(20).refine(
		(value) => value === null || /^[a-z]{2,3}(-[a-z0-9]{2,8})*$/i.test(value),
		'Give a language tag: en, or pt-PT.'
	),
	grade: optional(40).default(null),
	userName: optional(120).default(null),
	elsewhere: z.boolean().default(false),
	groupIds: z.array(z.string().max(64)).min(1, 'Choose at least one group.').max(50),
	left: z.boolean()
});
