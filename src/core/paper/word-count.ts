/** How many words a text has, as people count them: runs of letters and figures between spaces. */
export function wordCount(text: string): number {
	return text.split(/\s+/).filter((word) => /[\p{L}\p{N}]/u.test(word)).length;
}
