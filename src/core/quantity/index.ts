export { isReduced, readNumber, readQuantity } from './quantity';
export type { Quantity } from './quantity';
