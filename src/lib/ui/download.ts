import { inWords, send } from './post';

/**
 * Fetches a file that takes its time, or may be refused, and saves it.
 * @returns what went wrong, in words; null: it is saved
 */
export async function saveFile(path: string, name: string): Promise<string | null> {
	const answer = await send<Blob>('GET', path, undefined, { file: true });
	if (!answer.ok) return inWords(answer.problem);
	const address = URL.createObjectURL(answer.data);
	const link = document.createElement('a');
	link.href = address;
	link.download = name;
	link.click();
	// The browser has taken it over by then.
	setTimeout(() => URL.revokeObjectURL(address), 60_000);
	return null;
}
