/** What a question is called while it is dragged. */
export const DRAGGED = 'text/x-otium-question';

/** Whether it is a question that is being dragged, and not a file or some words. */
export function isDragged(event: DragEvent): boolean {
	return event.dataTransfer?.types.includes(DRAGGED) ?? false;
}
