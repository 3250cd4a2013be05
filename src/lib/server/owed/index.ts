export { countOwed, owedTo } from './owed';
export type { Owed } from './owed';
export { join, makeUp, offerMakeUp, owedAmong, sessionsToJoin, takeWaiverBack, waive } from './settle';
export type { Joinable, MakeUpOffer } from './settle';
