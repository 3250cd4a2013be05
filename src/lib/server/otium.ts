import { join } from 'node:path';
import pino, { type Logger } from 'pino';
import { AnswerSaver } from './answers';
import { openDb, type Db } from './db';
import { TryLimits } from './identity/limits';
import { LiveHub, Presence } from './live';
import { PaceWatch } from './pace';
import { startSweep } from './sweep';

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
	limits: TryLimits;
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
};

/**
 * Opens the data folder and starts everything that runs beside requests.
 * @throws NewerDatabase when the data is from a later version
 */
export async function startOtium(options: OtiumOptions): Promise<Otium> {
	const db = await openDb(join(options.dataDir, 'otium.sqlite'));
	const base = {
		db,
		now: options.now ?? Date.now,
		log: pino({ level: options.logLevel ?? 'info', base: null }),
		limits: new TryLimits(),
		dataDir: options.dataDir
	};
	const otium = base as Otium;
	otium.hub = new LiveHub(otium);
	otium.presence = new Presence(otium);
	otium.answers = new AnswerSaver(otium);
	otium.pace = new PaceWatch(otium);
	await otium.presence.recover();
	const stopSweep = options.sweep === false ? () => {} : startSweep(otium);
	otium.stop = async () => {
		stopSweep();
		otium.hub.close();
		await otium.answers.drain();
		await db.destroy();
	};
	return otium;
}
