export { findPeople, PAGE_SIZE, peopleById } from './find';
export type { PersonRow } from './find';
export { applyImport, checkImport } from './import';
export type { Applied } from './import';
export type { Checked } from './reading';
export { peopleCsv, peopleNeeds, peopleOneRoster } from './export';
export { knownPeople, NO_GROUP } from './known';
export { changePerson, findPerson, importTimetable } from './person';
export type { Person, PersonChange } from './person';
