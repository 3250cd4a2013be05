export { isReduced, readAs, readDecimal, readNumber, readQuantity, readWhole } from './quantity';
export type { Quantity } from './quantity';
