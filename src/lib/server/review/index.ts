export { reviewFor } from './review';
