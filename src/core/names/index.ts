export { fullName, plainName } from './full-name';
export { isolated } from './isolated';
