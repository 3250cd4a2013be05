import { plainText } from '$core/paper';
import { drawnFormulas } from './drawn-formulas';

/** A text as it is read aloud, and as a browser takes it for a name: formulas in words. */
export function spokenText(text: string, gaps?: string[]): string {
	return plainText(text, (tex) => drawnFormulas.get(tex)?.words ?? tex, gaps);
}
