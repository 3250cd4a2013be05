import type { SessionFacts } from '../facts';
import type { Finding, Fix } from '../finding';

const drawn: Fix = { text: 'draw one for each', set: { 'rules.order.forms': 'dealt' } };

/** What giving a paper's forms in this way would do. */
export function checkForms({ paper, rules, room, candidates, elsewhere, groups }: SessionFacts): Finding[] {
	const { forms } = rules.order;
	const found: Finding[] = [];
	const push = (code: string, level: Finding['level'], title: string, message: string, fixes: Fix[]) =>
		found.push({ code, level, field: 'paper', title, message, fixes });
	const isLetter = forms.length === 1;
	if (isLetter && !paper.forms.some(({ name }) => name === forms))
		push(
			'form_missing',
			'block',
			'No such form.',
			paper.forms.length === 0
				? `${paper.title} has no forms, so nobody can have form ${forms} of it.`
				: `${paper.title} has ${paper.forms.length} forms: ${paper.forms.map(({ name }) => name).join(', ')}.`,
			[drawn]
		);
	if (paper.forms.length === 0) return found;
	const [first, ...others] = paper.forms;
	if (others.some(({ questions, points }) => questions !== first.questions || points !== first.points))
		push(
			'forms_differ',
			'block',
			'Unequal totals.',
			`The forms of ${paper.title} differ in questions or points, so candidates could reach different totals. Make a version in which they do not.`,
			[]
		);
	const inRoom = candidates - elsewhere;
	if (forms === 'seat' && inRoom > room.seats)
		push(
			'form_without_seat',
			'warn',
			'Not all have a seat.',
			`${inRoom - room.seats} of them have no seat in the ${room.name}: their form is drawn, and may be that of a neighbour.`,
			[]
		);
	if (forms === 'group' && groups.length < 2)
		push(
			'form_by_one_group',
			'info',
			'One form for all.',
			groups.length === 0
				? 'They come from no group here, so their forms are drawn.'
				: `All are of ${groups[0].name}, so all get the same form.`,
			[drawn]
		);
	return found;
}
