import type { Tolerance } from '../paper';
import { below, child, childrenOf, textIn, type XmlNode } from './xml';
import type { Item } from './read-item';

/** The declaration of the response that an interaction gives; null: it has none. */
export function declarationOf({ root }: Item, interaction: XmlNode): XmlNode | null {
	return (
		childrenOf(root, 'responsedeclaration').find(
			({ attributes }) => attributes.identifier === interaction.attributes.responseidentifier
		) ?? null
	);
}

/** The values that it calls correct. */
export function correctOf(declaration: XmlNode | null): string[] {
	return childrenOf(child(declaration, 'correctresponse'), 'value').map(textIn);
}

/** The right answer and every spelling that a mapping gives points for. */
export function acceptedOf({ isOurs }: Item, declaration: XmlNode | null, right: string[]): string[] {
	const mapped = childrenOf(child(declaration, 'mapping'), 'mapentry')
		.filter(({ attributes }) => isOurs || Number(attributes.mappedvalue) > 0)
		.map(({ attributes }) => attributes.mapkey ?? '');
	return mapped.length > 0 ? [...new Set([...mapped])] : right;
}

/** The tolerance of the comparison that gives the points; QTI tells a relative one in per cent. */
export function toleranceOf({ root, told }: Item, interaction: XmlNode): Tolerance {
	const processing = child(root, 'responseprocessing');
	const about = interaction.attributes.responseidentifier;
	const equal = processing
		? below(processing, 'equal').find((one) =>
				below(one, 'variable').some(({ attributes }) => attributes.identifier === about)
			)
		: undefined;
	const amounts = (equal?.attributes.tolerance ?? '').trim().split(/\s+/).map(Number);
	const amount = Math.max(0, ...amounts.filter(Number.isFinite));
	if (amounts.length > 1 && amounts[0] !== amounts[1])
		told.push('Its tolerance differs upwards and downwards; the larger of both was taken.');
	return equal?.attributes.tolerancemode === 'relative'
		? { kind: 'relative', amount: amount / 100 }
		: { kind: 'absolute', amount };
}

/** What it is worth: MAXSCORE, else what its outcome, its processing or its mapping can reach, else one point. */
export function pointsOf({ root }: Item): number {
	const outcome = (name: string) =>
		childrenOf(root, 'outcomedeclaration').find(({ attributes }) => attributes.identifier === name);
	const most = outcome('MAXSCORE');
	const said = [
		most ? textIn(child(child(most, 'defaultvalue'), 'value')) : '',
		outcome('SCORE')?.attributes.normalmaximum ?? '',
		givenByProcessing(root),
		givenByMapping(root)
	].find((text) => text.trim() !== '' && Number(text) >= 0 && Number(text) <= 1_000);
	return said === undefined ? 1 : Number(said);
}

/** What the processing sets the score to at most, where it sets it to a number; empty: it does not. */
function givenByProcessing(root: XmlNode): string {
	const processing = child(root, 'responseprocessing');
	const set = processing
		? below(processing, 'setoutcomevalue')
				.filter(({ attributes }) => attributes.identifier === 'SCORE')
				.flatMap((one) => childrenOf(one, 'basevalue').map((value) => Number(textIn(value))))
				.filter((value) => value > 0)
		: [];
	return set.length > 0 ? String(Math.max(...set)) : '';
}

/** What a mapping gives at most: its upper bound, or all that is worth something; empty: there is none, or several. */
function givenByMapping(root: XmlNode): string {
	const declared = childrenOf(root, 'responsedeclaration').filter((one) => child(one, 'mapping'));
	const mapping = declared.length === 1 ? child(declared[0], 'mapping') : null;
	if (!mapping) return '';
	const upper = mapping.attributes.upperbound;
	if (upper !== undefined) return upper;
	const worth = childrenOf(mapping, 'mapentry').map(({ attributes }) => Number(attributes.mappedvalue));
	const good = worth.filter((value) => value > 0);
	if (good.length === 0) return '';
	const isSingle = declared[0].attributes.cardinality === 'single';
	return String(isSingle ? Math.max(...good) : good.reduce((sum, value) => sum + value, 0));
}

/** Tells what of the marking has no counterpart here: answers worth different points, and a key that the processing contradicts. */
export function tellMarking({ root, told, isOurs }: Item): void {
	if (isOurs) return;
	for (const declaration of childrenOf(root, 'responsedeclaration')) {
		const worth = childrenOf(child(declaration, 'mapping'), 'mapentry').map(({ attributes }) =>
			Number(attributes.mappedvalue)
		);
		if (worth.some((value) => value < 0) || new Set(worth.filter((value) => value > 0)).size > 1)
			told.push(
				`Its answers are worth different points (${worth.join(', ')}): here each right one counts alike. Look at its points.`
			);
	}
	const processing = child(root, 'responseprocessing');
	if (!processing) return;
	for (const condition of below(processing, 'responseif', 'responseelseif')) {
		const points = below(condition, 'setoutcomevalue')
			.filter(({ attributes }) => attributes.identifier === 'SCORE')
			.flatMap((one) => childrenOf(one, 'basevalue').map((value) => Number(textIn(value))));
		for (const match of below(condition, 'match', 'equal', 'stringmatch')) {
			const about = childrenOf(match, 'variable')[0]?.attributes.identifier;
			const named = childrenOf(match, 'basevalue').map((value) => textIn(value).trim());
			const declaration = childrenOf(root, 'responsedeclaration').find(
				({ attributes }) => attributes.identifier === about
			);
			const right = correctOf(declaration ?? null);
			if (!declaration || named.length === 0 || !points.some((value) => value > 0)) continue;
			if (named.some((value) => !right.includes(value)))
				told.push(
					`Its processing gives ${Math.max(...points)} points to ${named.join(', ')}, and its key says ${right.join(', ') || 'nothing'}: compare them.`
				);
		}
	}
}
