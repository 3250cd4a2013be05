export { SETTLING_MS, shortcutOf } from './shortcut';
export type { Around, Focus, Pressed } from './shortcut';
