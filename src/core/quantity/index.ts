export { isReduced, readNumber, readQuantity, readWhole } from './quantity';
export type { Quantity } from './quantity';
