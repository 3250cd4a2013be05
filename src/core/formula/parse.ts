import {
	addDependencies,
	create,
	divideDependencies,
	equalDependencies,
	factorialDependencies,
	largerDependencies,
	largerEqDependencies,
	leftShiftDependencies,
	modDependencies,
	multiplyDependencies,
	parseDependencies,
	powDependencies,
	rightArithShiftDependencies,
	rightLogShiftDependencies,
	smallerDependencies,
	smallerEqDependencies,
	subtractDependencies,
	unaryMinusDependencies,
	unaryPlusDependencies,
	unequalDependencies,
	type MathNode
} from 'mathjs/number';

/** The operators of a formula. Named functions come from the scope in which it is evaluated. */
const OPERATIONS = {
	addDependencies,
	divideDependencies,
	equalDependencies,
	factorialDependencies,
	largerDependencies,
	largerEqDependencies,
	leftShiftDependencies,
	modDependencies,
	multiplyDependencies,
	powDependencies,
	rightArithShiftDependencies,
	rightLogShiftDependencies,
	smallerDependencies,
	smallerEqDependencies,
	subtractDependencies,
	unaryMinusDependencies,
	unaryPlusDependencies,
	unequalDependencies
};

let parser: ((text: string) => MathNode) | null = null;

/**
 * What mathjs reads in a text: numbers, names, operations. Its parser is made when first asked for: most of what imports
 * a formula never reads one, and making it takes as long as a third of a server's start.
 * @throws SyntaxError
 */
export function parse(text: string): MathNode {
	parser ??= create({ parseDependencies, ...OPERATIONS }).parse as (text: string) => MathNode;
	return parser(text);
}
