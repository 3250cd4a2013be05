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

/** What it is worth: MAXSCORE, else what its outcome can reach, else one point. */
export function pointsOf({ root }: Item): number {
	const outcome = (name: string) =>
		childrenOf(root, 'outcomedeclaration').find(({ attributes }) => attributes.identifier === name);
	const most = outcome('MAXSCORE');
	const said = [
		most ? textIn(child(child(most, 'defaultvalue'), 'value')) : '',
		outcome('SCORE')?.attributes.normalmaximum ?? ''
	].find((text) => text.trim() !== '' && Number(text) >= 0 && Number(text) <= 1_000);
	return said === undefined ? 1 : Number(said);
}
