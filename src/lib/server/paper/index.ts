export { paperVersion } from './paper';
export type { PaperVersion } from './paper';
