export { fullName, plainName } from './full-name';
export { isolated } from './isolated';
export { capital } from './capital';
export { plainLetters } from './plain-letters';
export { listed, someNames } from './some-names';
export { counted } from './counted';
