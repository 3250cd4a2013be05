import type { Score } from '../marking';
import { isBlank, type AnswerValue, type Form } from '../paper';
import { identifierOf } from './identifier';
import { element, writeXml, type XmlNode } from './xml';

const NAMESPACE = 'http://www.imsglobal.org/xsd/imsqti_result_v2p1';

/** A sitting as QTI reports it. */
export type ReportedSitting = {
	/** The candidate’s number. */
	candidate: string;
	sittingId: string;
	paper: { id: string; title: string };
	/** ISO 8601. */
	endedAt: string;
	form: Form;
	answers: Map<string, AnswerValue>;
	score: Score;
	isFinal: boolean;
};

/**
 * A result by QTI Results Reporting 2.1 (IMS Global 2012): the test’s score, and of each item the response and the score.
 * What nobody has marked yet has no score.
 */
export function writeResult(one: ReportedSitting): string {
	const at = { datestamp: one.endedAt };
	const items = one.form.questions.map((question, i) => {
		const mark = one.score.marks[i];
		const value = one.answers.get(question.id) ?? null;
		const { cardinality, baseType, values } = response(question.kind, value);
		return element(
			'itemResult',
			{
				identifier: identifierOf(question.id),
				sequenceIndex: i + 1,
				...at,
				sessionStatus: one.isFinal ? 'final' : 'pendingSubmission'
			},
			[
				element('responseVariable', { identifier: 'RESPONSE', cardinality, baseType }, [
					element(
						'candidateResponse',
						{},
						values.map((text) => element('value', {}, [text]))
					)
				]),
				...(mark.verdict === 'to_mark' && !mark.treated
					? []
					: [score('SCORE', mark.points), score('MAXSCORE', mark.outOf)])
			]
		);
	});
	return writeXml(
		element('assessmentResult', { xmlns: NAMESPACE }, [
			element('context', { sourcedId: one.candidate }, [
				element('sessionIdentifier', { sourceID: 'otium', identifier: one.sittingId })
			]),
			element('testResult', { identifier: identifierOf(one.paper.id), ...at }, [
				score('SCORE', one.score.points),
				score('MAXSCORE', one.score.outOf)
			]),
			...items
		])
	);
}

function score(identifier: string, value: number): XmlNode {
	return element('outcomeVariable', { identifier, cardinality: 'single', baseType: 'float' }, [
		element('value', {}, [String(value)])
	]);
}

function response(kind: string, value: AnswerValue): { cardinality: string; baseType: string; values: string[] } {
	const shape = (cardinality: string, baseType: string, values: string[]) => ({
		cardinality,
		baseType,
		values: isBlank(value) ? [] : values
	});
	switch (kind) {
		case 'true_false':
			return shape('single', 'boolean', [String(value)]);
		case 'single':
			return shape('single', 'identifier', [identifierOf(String(value))]);
		case 'multiple':
			return shape('multiple', 'identifier', ((value ?? []) as string[]).map(identifierOf));
		case 'ordering':
			return shape('ordered', 'identifier', ((value ?? []) as string[]).map(identifierOf));
		case 'matching':
			return shape(
				'multiple',
				'directedPair',
				Object.entries((value ?? {}) as Record<string, string>)
					.filter(([, to]) => to !== '')
					.map((pair) => pair.map(identifierOf).join(' '))
			);
		case 'fill_in':
			return shape('ordered', 'string', Object.values((value ?? {}) as Record<string, string>));
		case 'upload':
			return shape('multiple', 'file', []);
		default:
			return shape('single', 'string', [String(value)]);
	}
}
