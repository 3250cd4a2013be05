import type { Knex } from 'knex';
import { bank } from './migration-bank';
import { closeOut } from './migration-close-out';
import { firstWeek } from './migration-first-week';
import { grants } from './migration-grants';
import { media } from './migration-media';
import { paperDraft } from './migration-paper-draft';
import { prepare } from './migration-prepare';
import { emptied } from './migration-emptied';
import { questionTime } from './migration-question-time';
import { clientDevice } from './migration-client-device';
import { makeAppendOnly } from './append-only';
import { heldBack } from './migration-held-back';
import { guard } from './migration-guard';
import { lookedUp } from './migration-looked-up';
import { mailSealed } from './migration-mail-sealed';
import { ownClock } from './migration-own-clock';
import { sealed } from './migration-sealed';
import { sheetSite } from './migration-sheet-site';
import { signed } from './migration-signed';
import { signIn } from './migration-sign-in';
import { term } from './migration-term';
import { testDay } from './migration-test-day';
import { withdrawn } from './migration-withdrawn';

export type Migration = { name: string; up: (db: Knex) => Promise<void> };

const first: Migration = {
	name: '001-first',
	async up(db) {
		await db.schema.createTable('meta', (t) => {
			t.string('key').primary();
			t.text('value').notNullable();
		});
		await db.schema.createTable('site', (t) => {
			t.string('id').primary();
			t.string('name').notNullable();
			t.string('zone').notNullable();
		});
		await db.schema.createTable('room', (t) => {
			t.string('id').primary();
			t.string('site_id').notNullable().references('site.id');
			t.string('name').notNullable();
			t.integer('seat_rows').notNullable();
			t.integer('seats_per_row').notNullable();
		});
		await db.schema.createTable('administration', (t) => {
			t.string('id').primary();
			t.string('name').notNullable();
		});
		await db.schema.createTable('candidate_group', (t) => {
			t.string('id').primary();
			t.string('site_id').notNullable().references('site.id');
			t.string('name').notNullable();
		});
		await db.schema.createTable('candidate', (t) => {
			t.string('id').primary();
			t.string('number').notNullable().unique();
			t.string('number_folded').notNullable().unique();
			t.string('given').notNullable();
			t.string('family').notNullable();
			t.string('group_id').notNullable().references('candidate_group.id').index();
		});
		// A paper's version: its content never changes once it is here.
		await db.schema.createTable('paper', (t) => {
			t.string('id').primary();
			t.string('title').notNullable();
			t.integer('version').notNullable();
			t.text('content').notNullable();
			t.unique(['title', 'version']);
		});

		await db.schema.createTable('staff', (t) => {
			t.string('id').primary();
			t.string('sign_in').notNullable().unique();
			t.string('name').notNullable();
			t.string('password_hash').notNullable();
		});
		await db.schema.createTable('staff_role', (t) => {
			t.string('staff_id').notNullable().references('staff.id');
			t.string('role').notNullable();
			t.string('site_id').references('site.id');
		});
		await db.schema.createTable('staff_session', (t) => {
			t.string('token_hash').primary();
			t.string('staff_id').notNullable().references('staff.id');
			t.bigInteger('expires_at').notNullable();
		});

		await db.schema.createTable('session', (t) => {
			t.string('id').primary();
			t.string('administration_id').notNullable().references('administration.id');
			t.string('room_id').notNullable().references('room.id');
			t.string('paper_id').notNullable().references('paper.id');
			t.string('name').notNullable();
			t.string('kind').notNullable();
			t.bigInteger('opens').notNullable().index();
			t.bigInteger('closes');
			t.text('rules').notNullable();
			t.string('door_code').index();
			t.bigInteger('code_dies_at');
			t.boolean('code_hidden').notNullable().defaultTo(true);
			t.bigInteger('room_started_at');
			t.bigInteger('entry_closed_at');
			t.bigInteger('ended_at');
			t.string('ended_by');
			// Raised by every edit: two people editing at once are told, not overwritten.
			t.integer('revision').notNullable().defaultTo(1);
		});
		await db.schema.createTable('session_proctor', (t) => {
			t.string('session_id').notNullable().references('session.id');
			t.string('staff_id').notNullable().references('staff.id');
			t.primary(['session_id', 'staff_id']);
		});
		await db.schema.createTable('sitting', (t) => {
			t.string('id').primary();
			t.string('candidate_id').notNullable().references('candidate.id');
			t.string('administration_id').notNullable().references('administration.id');
			t.string('paper_id').notNullable().references('paper.id');
			t.string('session_id').notNullable().references('session.id').index();
			t.integer('attempt').notNullable().defaultTo(1);
			// False for a rehearsal: it appears in no result.
			t.boolean('counts').notNullable().defaultTo(true);
			// The fold of its events, so that reading one sitting does not read its whole history.
			t.text('fold').notNullable();
			t.string('state').notNullable().index();
			// What follows from fold, rules and grants, written with every change, so that saving an answer reads no more.
			t.integer('device_epoch');
			t.bigInteger('deadline');
			t.bigInteger('answers_until');
			t.bigInteger('due_at').index();
			t.unique(['candidate_id', 'paper_id', 'administration_id', 'counts', 'attempt']);
		});
		// Who is expected where. A sitting that is carried over stands on two rosters.
		await db.schema.createTable('roster', (t) => {
			t.string('session_id').notNullable().references('session.id');
			t.string('sitting_id').notNullable().references('sitting.id');
			t.string('seat');
			// Where it stood when this session ended; null while the session goes on.
			t.string('outcome');
			t.primary(['session_id', 'sitting_id']);
			t.index('sitting_id');
		});
		await db.schema.createTable('form', (t) => {
			t.string('sitting_id').primary().references('sitting.id');
			t.text('form').notNullable();
		});
		await db.schema.createTable('device', (t) => {
			t.string('token_hash').primary();
			t.string('sitting_id').notNullable().references('sitting.id').index();
			t.integer('epoch').notNullable();
			t.bigInteger('expires_at').notNullable();
		});

		// Every revision of every answer. Ordered by device first (epoch), then by the client's own sequence.
		await db.schema.createTable('answer', (t) => {
			t.string('sitting_id').notNullable().references('sitting.id');
			t.integer('epoch').notNullable();
			t.integer('seq').notNullable();
			t.string('question_id').notNullable();
			t.text('value').notNullable();
			t.integer('in_view_ms').notNullable();
			t.bigInteger('received_at').notNullable();
			t.boolean('late').notNullable();
			// Why a revision was kept but does not stand: `after_end` or `freed_device`.
			t.string('kept_because');
			t.primary(['sitting_id', 'epoch', 'seq']);
		});
		// The revision of each answer that stands.
		await db.schema.createTable('answer_standing', (t) => {
			t.string('sitting_id').notNullable().references('sitting.id');
			t.string('question_id').notNullable();
			t.integer('epoch').notNullable();
			t.integer('seq').notNullable();
			t.text('value').notNullable();
			t.boolean('blank').notNullable();
			t.boolean('marked').notNullable();
			t.integer('in_view_ms').notNullable();
			t.boolean('late').notNullable();
			t.primary(['sitting_id', 'question_id']);
		});

		// What lists count, in small rows of its own: a save rewrites these, not the sittings with their folds.
		await db.schema.createTable('progress', (t) => {
			t.string('sitting_id').primary().references('sitting.id');
			t.integer('answered').notNullable();
			t.integer('marked').notNullable();
			t.bigInteger('last_answer_at').notNullable();
		});

		await db.schema.createTable('grant_given', (t) => {
			t.string('id').primary();
			t.string('candidate_id').references('candidate.id').index();
			t.string('scope_kind').notNullable();
			t.string('scope_id').index();
			t.string('kind').notNullable().index();
			t.text('body').notNullable();
			t.string('reason').notNullable();
			t.string('given_by').notNullable();
			t.bigInteger('given_at').notNullable();
			t.bigInteger('withdrawn_at');
		});

		await db.schema.createTable('command_answer', (t) => {
			t.string('command_id').primary();
			t.text('asked').notNullable();
			t.text('answer').notNullable();
		});
		await db.schema.createTable('logbook', (t) => {
			t.integer('seq').primary();
			t.bigInteger('at').notNullable();
			t.string('actor_role').notNullable();
			t.string('actor_id').notNullable();
			t.string('kind').notNullable();
			t.string('session_id').index();
			t.string('sitting_id').index();
			t.text('body').notNullable();
			t.string('before').notNullable();
			t.string('hash').notNullable();
		});
		for (const table of ['logbook', 'answer']) await makeAppendOnly(db, table);
	}
};

const ALL = [
	first,
	prepare,
	testDay,
	term,
	heldBack,
	ownClock,
	signed,
	sealed,
	signIn,
	clientDevice,
	mailSealed,
	sheetSite,
	paperDraft,
	bank,
	media,
	withdrawn,
	grants,
	closeOut,
	firstWeek,
	questionTime,
	emptied,
	lookedUp,
	guard
];

/** Knex reads migrations from here instead of from files, so that the built server carries them in itself. */
export const MIGRATIONS = {
	names: ALL.map((migration) => migration.name),
	getMigrations: async () => ALL,
	getMigrationName: (migration: Migration) => migration.name,
	getMigration: async (migration: Migration) => ({ up: migration.up, down: async () => {} })
};
