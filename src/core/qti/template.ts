import { treeOf, type FormulaTree } from '../formula';
import type { CalculatedQuestion, Parameter } from '../paper';
import type { Dialect } from './dialect';
import { child, childrenOf, isElement, textIn, type XmlNode } from './xml';

// Item templates of QTI: names of elements, attributes and operators from memory of the 1EdTech specifications (2.1 of 2012,
// sections "Item Templates" and "Expressions"). Angles of its `mathOperator` are in radians, ours in degrees.

/** What draws the numbers of a calculated question and reckons its answer, in another system. */
export type WrittenTemplate = { declarations: XmlNode[]; processing: XmlNode };

export const variableOf = (name: string) => `NUM_${name}`;

/**
 * A calculated question's drawing and reckoning as an item template, with one drawn example as its default.
 * @returns null: something in its formulas has no counterpart
 */
export function writeTemplate(
	{ parameters, conditions, formula }: CalculatedQuestion,
	example: Record<string, number>,
	{ el }: Dialect
): WrittenTemplate | null {
	const expressions = [formula, ...conditions].map((text) => {
		const tree = treeOf(text);
		return tree && expressionOf(tree, el);
	});
	const [answer, ...constraints] = expressions;
	if (!answer || constraints.some((one) => !one)) return null;
	const declarations = parameters.map(({ name }) =>
		el(
			'templateDeclaration',
			{ identifier: variableOf(name), cardinality: 'single', baseType: 'float', paramVariable: 'true' },
			[el('defaultValue', {}, [el('value', {}, [String(example[name])])])]
		)
	);
	return {
		declarations,
		processing: el('templateProcessing', {}, [
			...parameters.map((one) => el('setTemplateValue', { identifier: variableOf(one.name) }, [drawingOf(one, el)])),
			...constraints.map((one) => el('templateConstraint', {}, [one!])),
			el('setCorrectResponse', { identifier: 'RESPONSE' }, [answer])
		])
	};
}

const number = (el: Dialect['el'], value: number) => el('baseValue', { baseType: 'float' }, [String(value)]);

function drawingOf(parameter: Parameter, el: Dialect['el']): XmlNode {
	if ('values' in parameter)
		return el('random', {}, [
			el(
				'multiple',
				{},
				parameter.values.map((value) => number(el, value))
			)
		]);
	const { from, to, step } = parameter;
	const steps = Math.floor((to - from) / step + 1e-9);
	return el('sum', {}, [
		number(el, from),
		el('product', {}, [number(el, step), el('randomInteger', { min: 0, max: steps })])
	]);
}

/** What is an element of its own, by what `treeOf` calls it. */
const ELEMENTS: Record<string, string> = {
	add: 'sum',
	subtract: 'subtract',
	multiply: 'product',
	divide: 'divide',
	pow: 'power',
	min: 'min',
	max: 'max',
	larger: 'gt',
	smaller: 'lt',
	largerEq: 'gte',
	smallerEq: 'lte'
};
/** Names of `mathOperator`, which are those of ours; by whether an angle goes in or comes out. */
const OPERATORS: Record<string, 'in' | 'out' | null> = {
	sin: 'in',
	cos: 'in',
	tan: 'in',
	asin: 'out',
	acos: 'out',
	atan: 'out',
	atan2: 'out',
	ln: null,
	log: null,
	exp: null,
	abs: null,
	floor: null,
	ceil: null
};

function expressionOf(tree: FormulaTree, el: Dialect['el']): XmlNode | null {
	if (tree.kind === 'number') return number(el, tree.value);
	if (tree.kind === 'name')
		return tree.name === 'pi'
			? el('mathConstant', { name: 'pi' })
			: el('variable', { identifier: variableOf(tree.name) });
	const of = tree.of.map((one) => expressionOf(one, el));
	if (of.some((one) => one === null)) return null;
	const parts = of as XmlNode[];
	const math = (name: string, inside: XmlNode[]) => el('mathOperator', { name }, inside);
	const { name } = tree;
	if (Object.hasOwn(ELEMENTS, name)) return el(ELEMENTS[name], {}, parts);
	if (Object.hasOwn(OPERATORS, name)) {
		const angle = OPERATORS[name];
		if (angle === 'in') return math(name, [math('toRadians', parts)]);
		return angle === 'out' ? math('toDegrees', [math(name, parts)]) : math(name, parts);
	}
	switch (name) {
		case 'unaryMinus':
			return el('subtract', {}, [number(el, 0), ...parts]);
		case 'unaryPlus':
			return parts[0];
		case 'sqrt':
			return el('power', {}, [...parts, number(el, 0.5)]);
		case 'equal':
			return el('equal', { toleranceMode: 'exact' }, parts);
		case 'unequal':
			return el('not', {}, [el('equal', { toleranceMode: 'exact' }, parts)]);
		// x − y·⌊x ÷ y⌋: never negative, as ours.
		case 'mod': {
			const [x, by] = parts;
			return el('subtract', {}, [x, el('product', {}, [by, math('floor', [el('divide', {}, [x, by])])])]);
		}
		case 'round': {
			const [x, places = null] = tree.of;
			if (places !== null && places.kind !== 'number') return null;
			const [written] = parts;
			return places === null || x === undefined
				? el('round', {}, [written])
				: el('roundTo', { roundingMode: 'decimalPlaces', figures: places.value }, [written]);
		}
		default:
			return null;
	}
}

/** What a template of another system draws and reckons, as ours; a sentence: why it can't be. */
export type ReadTemplate = Pick<CalculatedQuestion, 'parameters' | 'conditions' | 'formula'> | string;

/**
 * Reads an item template: numbers that are drawn, conditions between them, and what the answer is reckoned from. Values
 * that are reckoned on the way become part of the formula.
 * @param printed the variables that stand in the text; each must be one that is drawn
 */
export function readTemplate(processing: XmlNode, response: string, printed: string[]): ReadTemplate {
	const parameters: Parameter[] = [];
	const reckoned = new Map<string, string>();
	const conditions: string[] = [];
	let formula: string | null = null;
	for (const rule of processing.children.filter(isElement)) {
		const about = rule.attributes.identifier ?? '';
		const inside = rule.children.find(isElement);
		if (!inside) return `its ${rule.name} is empty`;
		if (rule.name === 'settemplatevalue') {
			const drawn = readDrawing(inside, nameOf(about));
			if (drawn) parameters.push(drawn);
			else {
				const text = formulaOf(inside, reckoned);
				if (text === null) return `the value of ${about} is reckoned in a way that has no counterpart here`;
				reckoned.set(about, `(${text})`);
			}
		} else if (rule.name === 'templateconstraint') {
			for (const one of inside.name === 'and' ? inside.children.filter(isElement) : [inside]) {
				const text = formulaOf(one, reckoned);
				if (text === null) return 'a condition between its numbers has no counterpart here';
				conditions.push(text);
			}
		} else if (rule.name === 'setcorrectresponse' && about === response) {
			formula = formulaOf(inside, reckoned);
			if (formula === null) return 'its answer is reckoned in a way that has no counterpart here';
		} else return `it has a ${rule.name}, which has no counterpart here`;
	}
	if (formula === null) return 'it does not say what its answer is reckoned from';
	const drawn = new Set(parameters.map(({ name }) => name));
	const other = printed.find((one) => !drawn.has(nameOf(one)));
	if (other !== undefined) return `${other} stands in the text and is not drawn`;
	return { parameters, conditions, formula };
}

/** A variable's identifier as a name that may stand in braces and formulas. */
export function nameOf(identifier: string): string {
	const name = identifier.replace(/^NUM_/, '').replace(/[^A-Za-z0-9_]/g, '_');
	return /^[A-Za-z]/.test(name) ? name : `n${name}`;
}

const valueIn = (node: XmlNode) => Number(textIn(node));

function readDrawing(node: XmlNode, name: string): Parameter | null {
	const { min = '0', max = '0', step = '1' } = node.attributes;
	if (node.name === 'randominteger')
		return { name, from: Number(min), to: Number(max), step: Math.max(1, Number(step) || 1) };
	if (node.name === 'randomfloat') {
		const [from, to] = [Number(min), Number(max)];
		// As fine as two digits tell; a range without steps has no counterpart.
		const fine = 10 ** (Math.floor(Math.log10(Math.max(to - from, 1e-9))) - 1);
		return { name, from, to, step: Number(fine.toPrecision(1)) };
	}
	if (node.name === 'random') {
		const list = child(node, 'multiple') ?? child(node, 'ordered');
		const values = childrenOf(list, 'basevalue').map(valueIn);
		return list && values.length > 0 && values.every(Number.isFinite) ? { name, values } : null;
	}
	// From one number on by steps, as Otium writes a range.
	const [base, steps] = node.children.filter(isElement);
	if (node.name !== 'sum' || base?.name !== 'basevalue' || steps?.name !== 'product') return null;
	const [size, times] = steps.children.filter(isElement);
	if (size?.name !== 'basevalue' || times?.name !== 'randominteger') return null;
	const [from, by] = [valueIn(base), valueIn(size)];
	const [least, most] = [Number(times.attributes.min ?? 0), Number(times.attributes.max ?? 0)];
	const at = (count: number) => Number((from + count * by).toPrecision(12));
	return { name, from: at(least), to: at(most), step: by };
}

const SIGNS: Record<string, string> = {
	sum: '+',
	subtract: '-',
	product: '*',
	divide: '/',
	power: '^',
	gt: '>',
	lt: '<',
	gte: '>=',
	lte: '<='
};

/** An expression as a formula of ours, in brackets wherever it is of several parts; null: it has no counterpart. */
function formulaOf(node: XmlNode, reckoned: ReadonlyMap<string, string>): string | null {
	const { attributes } = node;
	const inside = node.children.filter(isElement);
	const [first] = inside;
	if (node.name === 'mathoperator' && first) {
		const { name = '' } = attributes;
		// Where an angle is turned into what the operator takes, it is what ours takes already.
		if (isAngle(name, 'in') && isOperator(first, 'toRadians')) return call(name, first, reckoned);
		if (name === 'toDegrees' && first.name === 'mathoperator' && isAngle(first.attributes.name, 'out'))
			return call(first.attributes.name!, first, reckoned);
	}
	const of = inside.map((one) => formulaOf(one, reckoned));
	if (of.some((one) => one === null)) return null;
	const parts = of as string[];
	if (Object.hasOwn(SIGNS, node.name)) return parts.length > 0 ? `(${parts.join(` ${SIGNS[node.name]} `)})` : null;
	switch (node.name) {
		case 'basevalue': {
			const value = valueIn(node);
			return Number.isFinite(value) ? (value < 0 ? `(${value})` : String(value)) : null;
		}
		case 'variable': {
			const { identifier = '' } = attributes;
			return reckoned.get(identifier) ?? nameOf(identifier);
		}
		case 'mathconstant':
			return attributes.name === 'pi' ? 'pi' : attributes.name === 'e' ? 'exp(1)' : null;
		case 'min':
		case 'max':
		case 'round':
			return `${node.name}(${parts.join(', ')})`;
		case 'integertofloat':
			return parts[0] ?? null;
		case 'integermodulus':
			return `mod(${parts.join(', ')})`;
		case 'integerdivide':
			return `floor(${parts.join(' / ')})`;
		case 'roundto':
			return attributes.roundingmode === 'decimalPlaces'
				? `round(${parts[0]}, ${Number(attributes.figures ?? 0)})`
				: null;
		case 'equal':
			return `(${parts.join(' == ')})`;
		case 'not':
			return first?.name === 'equal' ? parts[0].replace(' == ', ' != ') : null;
		case 'mathoperator':
			return radiansOf(attributes.name ?? '', parts);
		default:
			return null;
	}
}

const isOperator = (node: XmlNode, name: string) => node.name === 'mathoperator' && node.attributes.name === name;
const isAngle = (name: string | undefined, end: 'in' | 'out') =>
	name !== undefined && Object.hasOwn(OPERATORS, name) && OPERATORS[name] === end;

function call(name: string, node: XmlNode, reckoned: ReadonlyMap<string, string>): string | null {
	const of = node.children.filter(isElement).map((one) => formulaOf(one, reckoned));
	return of.some((one) => one === null) ? null : `${name}(${of.join(', ')})`;
}

/** An operator on radians, as one of ours on degrees. */
function radiansOf(name: string, parts: string[]): string | null {
	if (name === 'toDegrees') return `(${parts[0]} * 180 / pi)`;
	if (name === 'toRadians') return `(${parts[0]} * pi / 180)`;
	if (!Object.hasOwn(OPERATORS, name)) return null;
	const angle = OPERATORS[name];
	if (angle === 'in') return `${name}(${parts[0]} * 180 / pi)`;
	return angle === 'out' ? `(${name}(${parts.join(', ')}) * pi / 180)` : `${name}(${parts.join(', ')})`;
}
