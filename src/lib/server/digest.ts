import { createHash } from 'node:crypto';
import { canonicalJson } from './db';

/** SHA-256 of any data, in base64url: equal data has equal digests, in whatever order it was written. */
export function digestOf(value: unknown): string {
	return createHash('sha256').update(canonicalJson(value)).digest('base64url');
}
