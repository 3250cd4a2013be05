export { fail, ProblemError, PROBLEMS } from './problem';
export type { Problem, ProblemCode } from './problem';
