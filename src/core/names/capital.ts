/** A text as it begins a sentence. */
export function capital(text: string): string {
	return text.charAt(0).toUpperCase() + text.slice(1);
}
