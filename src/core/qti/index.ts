export { readPackage } from './read-package';
export type { ReadPackage, Told } from './read-package';
export { writePackage } from './write-package';
export { mediumFile } from './shared-text';
