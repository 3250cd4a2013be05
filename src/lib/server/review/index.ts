export { reviewFor } from './review';
export { owingOf } from './owing';
