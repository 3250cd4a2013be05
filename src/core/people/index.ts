export { COLUMNS, guessMapping, isDateOrderOpen, missingColumns, readPeople } from './columns';
export type { ColumnKey, DateOrder, Mapping } from './columns';
export { planImport } from './plan';
export type { ImportOptions, ImportPlan, PersonChange } from './plan';
export type { Display, KnownPerson, People, PersonEntry } from './person';
export { ONE_ROSTER, readOneRoster, writeOneRoster } from './one-roster';
export type { ReadOneRoster, School } from './one-roster';
