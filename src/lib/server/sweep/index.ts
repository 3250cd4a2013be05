export { sweep, Sweeper, tidy } from './sweep';
