export { heldBy, heldByNobody, Lines } from './lines';
export type { Hold } from './lines';
