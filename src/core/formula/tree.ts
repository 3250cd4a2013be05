import type { MathNode } from 'mathjs/number';
import { parse } from './parse';

/** A formula as a tree, for who writes it in another notation. Operators are calls: `add`, `pow`, `unaryMinus`, `larger`. */
export type FormulaTree =
	| { kind: 'number'; value: number }
	| { kind: 'name'; name: string }
	| { kind: 'call'; name: string; of: FormulaTree[] };

/** The tree of a formula that `readFormula` takes; null: there is something in it that is neither number, name nor call. */
export function treeOf(formula: string): FormulaTree | null {
	try {
		return read(parse(formula));
	} catch {
		return null;
	}
}

/** What of a node of mathjs is read here; its own types differ by class. */
type Node = MathNode & {
	value?: unknown;
	name?: string;
	fn?: string | { name: string };
	args?: Node[];
	content?: Node;
};

function read(node: Node): FormulaTree | null {
	switch (node.type) {
		case 'ParenthesisNode':
			return read(node.content!);
		case 'ConstantNode':
			return typeof node.value === 'number' ? { kind: 'number', value: node.value } : null;
		case 'SymbolNode':
			return { kind: 'name', name: node.name! };
		case 'OperatorNode':
		case 'FunctionNode': {
			const of = node.args!.map(read);
			const name = typeof node.fn === 'string' ? node.fn : node.fn!.name;
			return of.some((one) => one === null) ? null : { kind: 'call', name, of: of as FormulaTree[] };
		}
		default:
			return null;
	}
}
