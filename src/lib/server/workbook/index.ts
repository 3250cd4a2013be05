export { isWorkbook, readWorkbook } from './workbook';
export type { Workbook } from './workbook';
