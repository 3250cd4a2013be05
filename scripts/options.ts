import { parseArgs, type ParseArgsConfig } from 'node:util';

type Options = NonNullable<ParseArgsConfig['options']>;

/** The command line's options; an unknown one is told and ends the program. */
export function readOptions<const T extends Options>(options: T) {
	return parsed(() => parseArgs({ args: process.argv.slice(2), options, strict: true }).values);
}

/** The same with what stands beside them. */
export function readArguments<const T extends Options>(options: T) {
	return parsed(() => parseArgs({ args: process.argv.slice(2), options, strict: true, allowPositionals: true }));
}

function parsed<T>(parse: () => T): T {
	try {
		return parse();
	} catch (error) {
		fail(`${(error as Error).message.split('. ')[0]}. Ask with --help for the options there are.`);
	}
}

/** A whole number from the command line. */
export function numberOption(text: string | undefined, name: string, fallback: number, max = 65_535): number {
	if (text === undefined) return fallback;
	const value = Number(text);
	if (!Number.isInteger(value) || value < 0 || value > max)
		fail(`--${name} takes a whole number up to ${max}, not "${text}".`);
	return value;
}

export function fail(message: string): never {
	console.error(message);
	process.exit(2);
}
