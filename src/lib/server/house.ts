import type { SendMailOptions } from 'nodemailer';
import type { Logger } from 'pino';
import type { Told } from '$core/room';
import type { Revision } from '$core/paper';
import type { Saved } from './answers/write-group';
import type { Db, Query } from './db';
import type { Quotas } from './sitting/quotas';
import type { TryLimits } from './identity/limits';
import type { Passwords } from './identity/passwords';
import type { Threads } from './thread';

/**
 * What the running server consists of, each part as the others need it. Nothing here knows how a part is made, so that
 * whoever needs the house does not import all that is in it.
 */
export type House = {
	db: Db;
	/** The only clock, in epoch milliseconds. */
	now: () => number;
	log: Logger;
	/** Where files lie beside the database. */
	dataDir: string;
	hub: Publisher;
	presence: Heard;
	answers: Saving;
	pace: PaceKeeping;
	limits: TryLimits;
	passwords: Passwords;
	mail: MailTransport;
	/** For work that would keep the event loop, and for files from outside. */
	threads: Threads;
	lines: OpenLines;
	quotas: Quotas;
};

/** The open lines of everybody, by who holds them. */
export type OpenLines = { end: (holder: string) => void; signIns: () => string[] };

/** The way of every mail: a mail server, or the outbox folder. */
export type MailTransport = { sendMail: (mail: SendMailOptions) => Promise<unknown>; close: () => void };

/** What something that only reads and writes needs. */
export type Writing = Pick<House, 'db' | 'now'>;
/** What everything that changes a sitting or a session needs: where it is written, when it is, and whom to tell. */
export type Acting = Pick<House, 'db' | 'now' | 'hub'>;

/** Publishes what has been committed to those who watch. */
export type Publisher = {
	/** These sittings of a session changed; without any, the session itself did. */
	changed: (sessionId: string, sittingIds?: Iterable<string>) => void;
	/** Answers were saved; the candidates themselves have been told. */
	answered: (saved: { sessionId: string; sittingId: string }[]) => void;
	/** A whole session concerns its candidates: its times changed, or it ended. */
	sessionChanged: (sessionId: string) => Promise<void>;
};

/** Whose devices have been heard, and what they said of themselves. */
export type Heard = {
	seen: (sittingId: string) => void;
	bound: (sittingId: string) => void;
	told: (sittingId: string) => Told;
	sweep: () => Promise<void>;
	noteAlive: () => Promise<void>;
};

/** Saves answers durably. */
export type Saving = Record<
	'save' | 'saveSent',
	(sittingId: string, epoch: number, revisions: Revision[], how?: { isUnproven?: boolean }) => Promise<Saved>
>;

/** Looks at how fast answers come. */
export type PaceKeeping = {
	answered: (sittingIds: Iterable<string>) => void;
	sweep: () => Promise<void>;
	/** By question: faster than this, ms, is faster than reading takes. */
	thresholdsOf: (db: Query, paperId: string) => Promise<Map<string, number>>;
};
