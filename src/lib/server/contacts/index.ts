export { helpForCandidates, helpIn, saveHelp } from './contacts';
export type { HelpContact } from './contacts';
