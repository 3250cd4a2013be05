export { startSweep, sweep } from './sweep';
