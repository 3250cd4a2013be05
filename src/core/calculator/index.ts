export { calculate, showValue } from './calculate';
export type { Angle, Calculated, CalculatorKind } from './calculate';
