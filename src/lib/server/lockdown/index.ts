export { lapseCounts, noteLapses } from './lapses';
export type { LapseCount, NamedLapse } from './lapses';
