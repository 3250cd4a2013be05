export { groupBy } from './group-by';
