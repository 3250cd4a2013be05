export { DEFAULT_RULES, KIND_NAMES } from './rules';
export type { SessionKind, SessionRules } from './rules';
export { sessionSentence } from './sentence';
export type { SentencePart, SessionFacts } from './sentence';
export { checkSession } from './check';
export type { Finding } from './check';
