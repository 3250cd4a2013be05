export { isWorkbook, readWorkbook } from './workbook';
