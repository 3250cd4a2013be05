export { OWED_WHY, owedFor, owedState } from './owed';
export type { OwedState, OwedWhy, Standing } from './owed';
