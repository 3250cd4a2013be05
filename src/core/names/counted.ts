/** `1 answer`, `12 answers`. */
export function counted(count: number, one: string, several = `${one}s`): string {
	return `${count} ${count === 1 ? one : several}`;
}
