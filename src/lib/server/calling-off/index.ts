export { callOff, foreseeCallingOff } from './calling-off';
export type { CallingOff } from './calling-off';
