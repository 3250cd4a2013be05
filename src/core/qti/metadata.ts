import { DIFFICULTIES, type Question } from '../paper';
import { below, child, childrenOf, element, textIn, type XmlNode } from './xml';

/** Learning object metadata (IEEE 1484.12.3), the parts of it that questions have; element names from memory. */
const NAMESPACE = 'http://ltsc.ieee.org/xsd/LOM';
/** The three words of LOM’s difficulty that are ours as well. */
const DIFFICULTY_WORDS = { easy: 'easy', medium: 'medium', hard: 'difficult' } as const;

type Described = Pick<Question, 'topic' | 'difficulty' | 'seconds' | 'tags' | 'source'>;

export function lomOf({ topic, difficulty, seconds, tags, source }: Described): XmlNode {
	const string = (text: string) => element('string', { 'xml:space': 'preserve' }, [text]);
	const taxon = (text: string) => element('taxon', {}, [element('entry', {}, [string(text)])]);
	const vocabulary = (name: string, value: string) =>
		element(name, {}, [element('source', {}, ['LOMv1.0']), element('value', {}, [value])]);
	const path = topic === '' ? [] : topic.split(' / ');
	return element('lom', { xmlns: NAMESPACE }, [
		...(tags
			? [
					element(
						'general',
						{},
						tags.map((tag) => element('keyword', {}, [string(tag)]))
					)
				]
			: []),
		...(difficulty || seconds !== undefined
			? [
					element('educational', {}, [
						...(difficulty ? [vocabulary('difficulty', DIFFICULTY_WORDS[difficulty])] : []),
						...(seconds !== undefined
							? [element('typicalLearningTime', {}, [element('duration', {}, [`PT${seconds}S`])])]
							: [])
					])
				]
			: []),
		...(source !== undefined
			? [
					element('relation', {}, [
						vocabulary('kind', 'isbasedon'),
						element('resource', {}, [element('description', {}, [string(source)])])
					])
				]
			: []),
		...(path.length > 0
			? [
					element('classification', {}, [
						vocabulary('purpose', 'discipline'),
						element('taxonPath', {}, path.map(taxon))
					])
				]
			: [])
	]);
}

/** What metadata say of a question; what they do not say is left out. */
export function readLom(metadata: XmlNode | null): Described {
	const lom = metadata ? (below(metadata, 'lom')[0] ?? metadata) : null;
	const found: Described = { topic: '' };
	if (!lom) return found;
	const text = (node: XmlNode | null) => textIn(child(node, 'string') ?? child(node, 'langstring') ?? node);
	const tags = below(lom, 'keyword')
		.map((node) => text(node).trim())
		.filter(Boolean);
	if (tags.length > 0) found.tags = [...new Set(tags)].slice(0, 20).map((tag) => tag.slice(0, 60));
	const educational = child(lom, 'educational');
	const word = textIn(child(child(educational, 'difficulty'), 'value'))
		.trim()
		.toLowerCase();
	const difficulty =
		DIFFICULTIES.find((one) => DIFFICULTY_WORDS[one] === word) ??
		({ 'very easy': 'easy', 'very difficult': 'hard', hard: 'hard' } as const)[word];
	if (difficulty) found.difficulty = difficulty;
	const duration = textIn(child(child(educational, 'typicallearningtime'), 'duration')).trim();
	const seconds = secondsIn(duration);
	if (seconds !== null) found.seconds = seconds;
	const source = below(lom, 'relation')
		.filter((relation) => /isbasedon/i.test(textIn(child(relation, 'kind'))))
		.map((relation) => text(child(child(relation, 'resource'), 'description')))[0];
	if (source) found.source = source.slice(0, 300);
	const [path] = below(lom, 'taxonpath');
	if (path)
		found.topic = childrenOf(path, 'taxon')
			.map((taxon) => text(child(taxon, 'entry')).trim())
			.filter(Boolean)
			.join(' / ')
			.slice(0, 120);
	return found;
}

/** A duration of ISO 8601 in hours, minutes and seconds, within what a question may take. */
function secondsIn(duration: string): number | null {
	const read = /^PT(?:(\d+)H)?(?:(\d+)M)?(?:(\d+)(?:\.\d+)?S)?$/.exec(duration);
	if (!read) return null;
	const seconds = Number(read[1] ?? 0) * 3_600 + Number(read[2] ?? 0) * 60 + Number(read[3] ?? 0);
	return seconds >= 5 && seconds <= 10_800 ? seconds : null;
}
