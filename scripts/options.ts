import { parseArgs, type ParseArgsConfig } from 'node:util';

/** The command line's options; an unknown one is told and ends the program. */
export function readOptions<const T extends NonNullable<ParseArgsConfig['options']>>(options: T) {
	try {
		return parseArgs({ args: process.argv.slice(2), options, strict: true }).values;
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
