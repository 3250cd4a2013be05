export { isReduced, readDecimal, readNumber, readQuantity, readWhole } from './quantity';
export type { Quantity } from './quantity';
