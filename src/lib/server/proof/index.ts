export { anchorOf, castAnchor, furthestAnchor, headOf, mailAnchor } from './anchor';
export type { Anchor, Head } from './anchor';
export { privateKey, receiptKey, signedReceipt, verifyReceipt } from './receipt';
export { verifyRecord } from './verify-record';
