/**
 * What stands in a field of the form that is sent. Read there and not kept beside it, so that what was typed before the
 * page was alive is not lost.
 */
export function typedIn(event: SubmitEvent, name: string): string {
	const value = new FormData(event.currentTarget as HTMLFormElement).get(name);
	return typeof value === 'string' ? value : '';
}
