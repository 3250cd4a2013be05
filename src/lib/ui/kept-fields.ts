import { dropFrom, keepIn, keptIn } from './browser-storage';

const KEY = 'otium-kept-fields';
type Kept = { path: string; fields: { name: string; nth: number; value: string; checked?: boolean }[] };
type Field = HTMLInputElement | HTMLTextAreaElement | HTMLSelectElement;
/** What may not be kept, or is no entry of somebody's. */
const LEFT_OUT = ['password', 'file', 'hidden', 'submit', 'button'];

/** The fields of the page with the name by which each is found again: its own, and the how manieth of that name it is. */
function fieldsOf(root: ParentNode): { field: Field; name: string; nth: number }[] {
	const met = new Map<string, number>();
	return [...root.querySelectorAll<Field>('input, textarea, select')]
		.filter((field) => !LEFT_OUT.includes(field.type))
		.map((field) => {
			const name = field.id || field.name || field.getAttribute('aria-label') || '';
			const nth = met.get(name) ?? 0;
			met.set(name, nth + 1);
			return { field, name, nth };
		});
}
const isTick = (field: Field): field is HTMLInputElement => field.type === 'checkbox' || field.type === 'radio';

/** Keeps what is entered on this page in this tab until `restoreFields`, for a page that has to be loaded again. */
export function keepFields(root: ParentNode = document): void {
	const fields = fieldsOf(root).map(({ field, name, nth }) => ({
		name,
		nth,
		value: field.value,
		...(isTick(field) ? { checked: field.checked } : {})
	}));
	keepIn('sessionStorage', KEY, { path: location.pathname + location.search, fields });
}

/** Enters again what was kept, where it differs from what the page has. */
export function restoreFields(root: ParentNode = document): void {
	const kept = keptIn<Kept>('sessionStorage', KEY);
	if (kept === null) return;
	dropFrom('sessionStorage', KEY);
	if (kept.path !== location.pathname + location.search) return;
	for (const { field, name, nth } of fieldsOf(root)) {
		const before = kept.fields.find((one) => one.name === name && one.nth === nth);
		if (!before) continue;
		if (isTick(field)) {
			if (before.checked !== field.checked) field.click();
		} else if (before.value !== field.value) {
			field.value = before.value;
			for (const kind of ['input', 'change']) field.dispatchEvent(new Event(kind, { bubbles: true }));
		}
	}
}
