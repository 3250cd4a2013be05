export { FINDER_ACTS, FINDER_VERBS, placesFor, readWish } from './finder';
export type { FinderAct, Found } from './finder';
