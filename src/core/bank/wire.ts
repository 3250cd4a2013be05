import type { Difficulty, Question, QuestionKind } from '../paper';
import type { Audience, Ownership } from './audience';

/** A page of the bank: as many as a screen shows, and some more to scroll. */
export const BANK_PAGE = 100;

/** A question of the bank as lists show it. */
export type BankLine = {
	id: string;
	stem: string;
	kind: QuestionKind;
	topic: string;
	difficulty: Difficulty | null;
	points: number;
	audience: Audience;
	siteId: string | null;
	isRetired: boolean;
	changedAt: number;
	/** In how many frozen versions, and when a session last opened with one of them. */
	papers: number;
	lastUsed: number | null;
	openRemarks: number;
	/** What is right, in words. */
	key: string;
};

export type Remark = { id: string; text: string; at: number; by: string; settledAt: number | null };
/** A question of the bank with all that is known of it. */
export type BankQuestion = {
	question: Question;
	revision: number;
	ownership: Ownership;
	mayChange: boolean;
	isRetired: boolean;
	revisions: { revision: number; question: Question; at: number; by: string }[];
	remarks: Remark[];
	/** The frozen versions that have it, newest first. */
	papers: { title: string; version: number; sessions: number; lastOpened: number | null }[];
	/** How it did where it was sat and the administration is closed, latest first. Shares from 0 to 1; null: too little to say. */
	did: {
		paper: string;
		administration: string;
		seen: number;
		facility: number | null;
		discrimination: number | null;
		medianMs: number | null;
	}[];
	/** Others that ask nearly the same. */
	alike: { id: string; question: Question }[];
};
