export { PaceWatch } from './pace';
