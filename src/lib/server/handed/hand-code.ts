import { timingSafeEqual } from 'node:crypto';
import { macOf, type Query } from '../db';

/** For one question of one sitting, a short while: whoever holds it can add a file there, and do nothing else. */
export type HandCode = { sittingId: string; questionId: string; until: number };

export const HAND_CODE_MS = 10 * 60_000;

/** A code that the house knows again by its own key; nothing is kept of it. */
export function writeHandCode(db: Query, { sittingId, questionId, until }: HandCode): string {
	const text = Buffer.from(JSON.stringify([sittingId, questionId, until])).toString('base64url');
	return `${text}.${sealOf(db, text)}`;
}

/** null: it is not one of this house, or its time is over. */
export function readHandCode(db: Query, code: string, now: number): HandCode | null {
	const [text, seal = ''] = code.split('.');
	const [given, wanted] = [Buffer.from(seal), Buffer.from(sealOf(db, text))];
	if (given.length !== wanted.length || !timingSafeEqual(given, wanted)) return null;
	const [sittingId, questionId, until] = JSON.parse(Buffer.from(text, 'base64url').toString());
	return now <= until ? { sittingId, questionId, until } : null;
}

function sealOf(db: Query, text: string): string {
	return macOf(db, 'marks', `hand ${text}`);
}
