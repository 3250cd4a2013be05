export { whatBinds } from './told';
export { scheduleInWords } from './time-told';
export type { BindingFacts, OwnFacts, Subject, ToldSubject } from './told';
