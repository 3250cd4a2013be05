export { lowerHand, messagesOf, messagesSeen, openMessages, raiseHand, sendMessage } from './messages';
export type { Message } from './messages';
