import { chmodSync } from 'node:fs';
import { join } from 'node:path';
import pino, { type Logger } from 'pino';
import { AnswerSaver } from './answers';
import { type Db, openDb, transact, writeIfPossible } from './db';
import { TryLimits } from './identity/limits';
import { Passwords } from './identity/passwords';
import { RequestSignatures } from './identity/request-signatures';
import { Whereabouts } from './identity/whereabouts';
import type { MailTransport } from './house';
import { Lines } from './lines';
import { LiveHub, Presence } from './live';
import { mailTransport } from './mail';
import { noteExactSince } from './marking';
import { PaceWatch } from './pace';
import { quietError } from './quiet-error';
import { Quotas } from './sitting';
import { Sweeper } from './sweep';
import { Threads } from './thread';

/** The running server: everything that routes need, made once and handed to them. */
export type Otium = {
	db: Db;
	/** The only clock, in epoch milliseconds. */
	now: () => number;
	log: Logger;
	hub: LiveHub;
	presence: Presence;
	answers: AnswerSaver;
	pace: PaceWatch;
	sweeper: Sweeper;
	limits: TryLimits;
	passwords: Passwords;
	mail: MailTransport;
	threads: Threads;
	lines: Lines;
	quotas: Quotas;
	signatures: RequestSignatures;
	whereabouts: Whereabouts;
	dataDir: string;
	stop: () => Promise<void>;
};

export type OtiumOptions = {
	/** Folder that holds the database. */
	dataDir: string;
	now?: () => number;
	/** Tests move time themselves. */
	sweep?: boolean;
	logLevel?: string;
	/** Another's, who closes them; for many small houses in one process. */
	threads?: Threads;
};

/**
 * Opens the data folder and starts everything that runs beside requests.
 * @throws NewerDatabase when the data is from a later version
 */
export async function startOtium(options: OtiumOptions): Promise<Otium> {
	const db = await openDb(join(options.dataDir, 'otium.sqlite'));
	keepToOneself(options.dataDir);
	const base = {
		db,
		now: options.now ?? Date.now,
		log: pino({ level: options.logLevel ?? 'info', base: null, serializers: { err: quietError } }),
		limits: new TryLimits(),
		passwords: new Passwords(),
		mail: mailTransport(options.dataDir),
		threads: options.threads ?? new Threads(),
		lines: new Lines(),
		quotas: new Quotas(),
		signatures: new RequestSignatures(),
		whereabouts: new Whereabouts(),
		dataDir: options.dataDir
	};
	// Each is given what exists by then; only presence and the hub need each other.
	const live: { hub?: LiveHub } = {};
	const presence = new Presence({
		...base,
		get hub() {
			return live.hub!;
		}
	});
	const hub = (live.hub = new LiveHub({ ...base, presence }));
	const pace = new PaceWatch({ ...base, hub });
	const answers = new AnswerSaver({ ...base, hub, pace });
	const house = { ...base, hub, presence, pace, answers };
	const sweeper = new Sweeper(house);
	await writeIfPossible(noteExactSince(db, base.now()));
	await presence.recover();
	if (options.sweep !== false) sweeper.start();
	return {
		...house,
		sweeper,
		async stop() {
			sweeper.stop();
			presence.close();
			hub.close();
			await answers.drain();
			base.mail.close();
			// What was written outside of a transaction is sealed like the rest.
			await writeIfPossible(transact(db, async () => {}));
			if (!options.threads) await base.threads.close();
			await db.destroy();
		}
	};
}

/** The folder is for the account that the server runs under, also where it was made by something else. */
function keepToOneself(dataDir: string) {
	try {
		chmodSync(dataDir, 0o700);
	} catch {
		// It belongs to another account, which has decided who may read it.
	}
}
