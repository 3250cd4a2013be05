import type { PaperFigures } from '$core/figures';
import type { Query } from '../db';
import { figures } from './kept';

/** How a question did in another version of its paper, or in another administration. Shares from 0 to 1. */
export type DidElsewhere = {
	where: string;
	seen: number;
	facility: number | null;
	discrimination: number | null;
};
/** All of them, and the share that was reached over everybody who saw it, here too. */
export type Elsewhere = { did: DidElsewhere[]; together: { seen: number; facility: number | null } };

/**
 * How the questions of a paper did in its other versions here, and in administrations that are closed. A question is the
 * same as long as it has its id, which it keeps from version to version.
 * @param here what they did in the version that is looked at
 */
export async function figuresElsewhere(
	otium: Parameters<typeof figures>[0],
	administrationId: string,
	paperId: string,
	here: PaperFigures
): Promise<Record<string, Elsewhere>> {
	const { db } = otium;
	const versions: { id: string; version: number }[] = await db('paper')
		.where({ title: db('paper').where({ id: paperId }).select('title') })
		.whereNot({ id: paperId })
		.whereIn('id', sat(db, administrationId))
		.orderBy('version')
		.select('id', 'version');
	const by = new Map<string, DidElsewhere[]>(here.questions.map(({ questionId }) => [questionId, []]));
	for (const { id, version } of versions) {
		for (const { questionId, seen, facility, discrimination } of (await figures(otium, administrationId, id)).questions)
			by.get(questionId)?.push({ where: `version ${version}`, seen, facility, discrimination });
	}
	for (const row of await keptBefore(db, administrationId, [...by.keys()])) {
		const { question_id, administration, version, ...did } = row;
		by.get(question_id)!.push({ where: `${administration}, version ${version}`, ...did });
	}
	const ofHere = new Map(here.questions.map((one) => [one.questionId, one]));
	return Object.fromEntries(
		[...by]
			.filter(([, did]) => did.length > 0)
			.map(([id, did]) => [id, { did, together: pooled([...did, ofHere.get(id)!]) }])
	);
}

const sat = (db: Query, administrationId: string) =>
	db('sitting')
		.where({ administration_id: administrationId, counts: 1 })
		.whereIn('state', ['handed_in', 'time_up'])
		.distinct('paper_id');

type Before = Omit<DidElsewhere, 'where'> & { question_id: string; administration: string; version: number };

function keptBefore(db: Query, administrationId: string, questionIds: string[]): Promise<Before[]> {
	return db('question_figure')
		.join('paper', 'paper.id', 'question_figure.paper_id')
		.join('administration', 'administration.id', 'question_figure.administration_id')
		.whereIn('question_id', questionIds)
		.whereNot({ administration_id: administrationId })
		.orderBy('at', 'desc')
		.select('question_id', 'administration.name as administration', 'version', 'seen', 'facility', 'discrimination');
}

/** Everybody counts once: the mean of shares, weighted by how many saw it. Correlations have no such mean. */
function pooled(all: Pick<DidElsewhere, 'seen' | 'facility'>[]): Elsewhere['together'] {
	const known = all.filter(({ facility }) => facility !== null);
	const seen = known.reduce((sum, one) => sum + one.seen, 0);
	return {
		seen,
		facility: seen === 0 ? null : known.reduce((sum, one) => sum + one.seen * one.facility!, 0) / seen
	};
}
