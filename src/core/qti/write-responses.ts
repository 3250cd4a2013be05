import type { DealtQuestion } from '../paper';
import type { Dialect } from './dialect';
import { identifierOf } from './identifier';
import type { XmlNode } from './xml';
import { gapIdentifier, RESPONSE } from './item-names';

function values(el: Dialect['el'], all: string[]): XmlNode {
	return el(
		'correctResponse',
		{},
		all.map((value) => el('value', {}, [value]))
	);
}

/** Accepted spellings, each worth the same, compared without capitals. */
function spellings(el: Dialect['el'], accepted: string[], points: number): XmlNode {
	return el(
		'mapping',
		{ defaultValue: 0, lowerBound: 0, upperBound: points },
		accepted.map((mapKey) => el('mapEntry', { mapKey, mappedValue: points, caseSensitive: 'false' }))
	);
}

/** The declarations of what is answered, with what is right. */
export function responsesOf(question: DealtQuestion, { el }: Dialect): XmlNode[] {
	const declare = (cardinality: string, baseType: string, children: XmlNode[]) => [
		el('responseDeclaration', { identifier: RESPONSE, cardinality, baseType }, children)
	];
	const { points } = question;
	switch (question.kind) {
		case 'true_false':
			return declare('single', 'identifier', [values(el, [String(question.answer)])]);
		case 'single':
			return declare('single', 'identifier', [
				values(el, question.answer === '' ? [] : [identifierOf(question.answer)])
			]);
		case 'multiple': {
			const right = question.answer.map(identifierOf);
			const each = points / Math.max(1, right.length);
			const entries = question.choices.map(({ id }) =>
				el('mapEntry', { mapKey: identifierOf(id), mappedValue: question.answer.includes(id) ? each : -each })
			);
			const map = el('mapping', { defaultValue: 0, lowerBound: 0, upperBound: points }, entries);
			return declare('multiple', 'identifier', [values(el, right), ...(question.partial ? [map] : [])]);
		}
		case 'matching': {
			const pairs = Object.entries(question.answer).map(
				([item, match]) => `${identifierOf(item)} ${identifierOf(match)}`
			);
			const each = points / Math.max(1, pairs.length);
			const map = el(
				'mapping',
				{ defaultValue: 0, lowerBound: 0, upperBound: points },
				pairs.map((mapKey) => el('mapEntry', { mapKey, mappedValue: each }))
			);
			return declare('multiple', 'directedPair', [values(el, pairs), ...(question.partial ? [map] : [])]);
		}
		case 'ordering':
			return declare('ordered', 'identifier', [values(el, question.answer.map(identifierOf))]);
		case 'fill_in': {
			const each = points / Math.max(1, question.gaps.length);
			return question.gaps.map(({ id, accepted }) =>
				el('responseDeclaration', { identifier: gapIdentifier(id), cardinality: 'single', baseType: 'string' }, [
					...(accepted.length > 0 ? [values(el, [accepted[0]])] : []),
					spellings(el, accepted, each)
				])
			);
		}
		case 'short':
			return declare('single', 'string', [
				...(question.accepted.length > 0 ? [values(el, [question.accepted[0]])] : []),
				spellings(el, question.accepted, points)
			]);
		case 'numeric':
			return declare('single', 'float', [values(el, [String(question.answer)])]);
		case 'essay':
			return declare('single', 'string', []);
		case 'upload':
			return declare('single', 'file', []);
	}
}

/** How the points of an answer are worked out. */
export function processingOf(question: DealtQuestion, to: Dialect): XmlNode[] {
	const { el } = to;
	const byTemplate = (name: 'match_correct' | 'map_response') => [
		el('responseProcessing', { template: to.template(name) })
	];
	const variable = (identifier: string) => el('variable', { identifier });
	const score = (expression: XmlNode) => el('setOutcomeValue', { identifier: 'SCORE' }, [expression]);
	const points = el('baseValue', { baseType: 'float' }, [String(question.points)]);
	switch (question.kind) {
		case 'essay':
		case 'upload':
			return [];
		case 'short':
			return byTemplate('map_response');
		case 'multiple':
		case 'matching':
			return byTemplate(question.partial ? 'map_response' : 'match_correct');
		case 'true_false':
		case 'single':
		case 'ordering':
			return byTemplate('match_correct');
		case 'fill_in': {
			if (question.gaps.length === 0) return [];
			const each = question.gaps.map(({ id }) => el('mapResponse', { identifier: gapIdentifier(id) }));
			return [el('responseProcessing', {}, [score(el('sum', {}, each))])];
		}
		case 'numeric': {
			const { kind, amount } = question.tolerance;
			// A relative tolerance of QTI is told in per cent.
			const told = kind === 'relative' ? amount * 100 : amount;
			const isRight = el(
				'equal',
				amount === 0 && kind === 'absolute'
					? { toleranceMode: 'exact' }
					: { toleranceMode: kind, tolerance: `${told} ${told}` },
				[variable(RESPONSE), el('correct', { identifier: RESPONSE })]
			);
			return [
				el('responseProcessing', {}, [el('responseCondition', {}, [el('responseIf', {}, [isRight, score(points)])])])
			];
		}
	}
}
