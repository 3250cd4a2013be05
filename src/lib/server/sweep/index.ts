export { sweep, Sweeper } from './sweep';
