export { readPackage } from './read-package';
export type { ReadPackage, Told } from './read-package';
export { writeBank, writePackage } from './write-package';
export { mediumFile } from './shared-text';
export { writeResult } from './write-result';
export type { ReportedSitting } from './write-result';
