export { scheduleInWords, whatBinds } from './told';
export type { BindingFacts, OwnFacts, Subject, ToldSubject } from './told';
