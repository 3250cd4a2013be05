import type { Choice, DealtQuestion } from '../paper';
import { writeInline } from './body-text';
import type { Dialect } from './dialect';
import { identifierOf } from './identifier';
import { element, type XmlNode } from './xml';
import { RESPONSE } from './item-names';

function simpleChoices(el: Dialect['el'], name: string, choices: Choice[], more: Record<string, string | number> = {}) {
	return choices.map(({ id, text, pinned }) =>
		el(
			name,
			{
				identifier: identifierOf(id),
				...(pinned === undefined || name !== 'simpleChoice' ? {} : { fixed: String(pinned) }),
				...more
			},
			writeInline(text)
		)
	);
}

const partialClass = (question: { partial: boolean }) => (question.partial ? 'partial' : undefined);

/** What a question asks for, as an element of the item body. */
export function interactionOf(question: DealtQuestion, { el }: Dialect): XmlNode[] {
	const response = { responseIdentifier: RESPONSE };
	switch (question.kind) {
		case 'true_false':
			return [
				el('choiceInteraction', { ...response, shuffle: 'false', maxChoices: 1, class: 'true-false' }, [
					el('simpleChoice', { identifier: 'true' }, ['True']),
					el('simpleChoice', { identifier: 'false' }, ['False'])
				])
			];
		case 'single':
		case 'multiple': {
			const isSingle = question.kind === 'single';
			const name = isSingle ? undefined : partialClass(question);
			return [
				el(
					'choiceInteraction',
					{ ...response, shuffle: 'true', maxChoices: isSingle ? 1 : 0, class: name },
					simpleChoices(el, 'simpleChoice', question.choices)
				)
			];
		}
		case 'matching': {
			const sets = [question.items, question.matches].map((choices, i) =>
				el('simpleMatchSet', {}, simpleChoices(el, 'simpleAssociableChoice', choices, { matchMax: i === 0 ? 1 : 0 }))
			);
			const attributes = { ...response, shuffle: 'true', maxAssociations: 0, class: partialClass(question) };
			return [el('matchInteraction', attributes, sets)];
		}
		case 'ordering':
			return [
				el(
					'orderInteraction',
					{ ...response, shuffle: 'true', class: partialClass(question) },
					simpleChoices(el, 'simpleChoice', question.choices)
				)
			];
		case 'fill_in':
			return question.partial ? [] : [element('p', { class: 'all-or-nothing' })];
		case 'short':
			return [element('p', { class: 'answer' }, [el('textEntryInteraction', { ...response, expectedLength: 30 })])];
		case 'numeric':
			return [
				element('p', { class: 'answer' }, [
					el('textEntryInteraction', { ...response, expectedLength: 12 }),
					...(question.unit ? [element('span', { class: 'unit', 'xml:space': 'preserve' }, [question.unit])] : [])
				])
			];
		case 'essay': {
			const { words } = question;
			const attributes = { class: words ? `words-${words.from}-${words.to}` : undefined, expectedLines: 12 };
			return [el('extendedTextInteraction', { ...response, ...attributes })];
		}
		case 'upload':
			return [el('uploadInteraction', { ...response, class: `most-${question.most}` })];
	}
}
