/** How often everybody else had their turn while something was done. */
export async function turnsDuring(work: () => Promise<unknown>): Promise<number> {
	let [turns, isOn] = [0, true];
	const turn = () => {
		turns++;
		if (isOn) setImmediate(turn);
	};
	setImmediate(turn);
	await work();
	isOn = false;
	return turns;
}
