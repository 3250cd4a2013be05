import { giveWay } from '$lib/server/event-loop';
import { administrationAsked } from '$lib/server/http';
import { findPeople } from '$lib/server/people';
import { choicesFor } from '$lib/server/session';
import { standingOf, stepsOf } from '$lib/server/steps';
import type { PageServerLoad } from './$types';

/** So many people of a group are listed at once. */
const MOST = 400;

export const load: PageServerLoad = async (event) => {
	const { administration, all, mayChange, staff } = await administrationAsked(event);
	const { db } = event.locals.otium;
	const { groups } = await choicesFor(db, staff, []);
	const asked = event.url.searchParams.get('group');
	const group = groups.find(({ id }) => id === asked) ?? groups.find(({ count }) => Number(count) > 0) ?? null;
	const titles: string[] = await db('paper')
		.whereNull('withdrawn_at')
		.distinct('title')
		.orderBy('title')
		.pluck('title');
	const steps = administration ? await stepsOf(db, administration.id) : [];
	const members = [];
	for (let page = 0; group && members.length < MOST; page++) {
		const found = await findPeople(db, staff, { text: '', groupId: group.id, siteId: null, withLeft: false, page });
		members.push(...found.people);
		if (found.people.length === 0 || members.length >= found.total) break;
		await giveWay();
	}
	const ids = members.map(({ id }) => id);
	const standing = administration && steps.length > 0 ? await standingOf(db, administration.id, steps, ids) : new Map();
	return {
		administration,
		all,
		mayChange,
		titles,
		steps,
		groups,
		group,
		people: members.map(({ id, name, number }) => ({
			id,
			name,
			number,
			steps: steps.map((step) => ({ stepId: step.id, ...standing.get(id)!.get(step.id)! }))
		}))
	};
};
