export { changesInWords, changesOf, countChanges } from './changes';
export type { Change, ChangeCount, Remarked, ResultRulesHere } from './changes';
export { asShown, correctionFault, correctionInWords } from './correction';
