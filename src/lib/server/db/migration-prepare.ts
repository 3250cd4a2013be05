import type { Knex } from 'knex';
import type { Migration } from './migrations';

/** People, places, rule sheets, mail and sealed clients: what a test day is prepared from. */
export const prepare: Migration = {
	name: '002-prepare',
	async up(db) {
		await people(db);
		await places(db);
		await rulesAndSessions(db);
		await mailAndClients(db);
	}
};

async function people(db: Knex) {
	await db.schema.alterTable('candidate', (t) => {
		t.string('email');
		t.string('birth');
		t.string('language');
		// The id by which another system knows them.
		t.string('source_id');
		// No longer listed: kept for what they sat, offered nowhere.
		t.bigInteger('left_at');
		t.index(['family', 'given', 'number']);
		t.index('source_id');
	});
	await db.schema.createTable('group_member', (t) => {
		t.string('group_id').notNullable().references('candidate_group.id');
		t.string('candidate_id').notNullable().references('candidate.id').index();
		t.primary(['group_id', 'candidate_id']);
	});
	await db.raw('INSERT INTO group_member (group_id, candidate_id) SELECT group_id, id FROM candidate');
	// The home group, under which a candidate is listed, is always one of their groups.
	for (const [name, event] of [
		['insert', 'INSERT'],
		['update', 'UPDATE OF group_id']
	]) {
		await db.raw(
			`CREATE TRIGGER candidate_home_${name} AFTER ${event} ON candidate
			 BEGIN INSERT OR IGNORE INTO group_member (group_id, candidate_id) VALUES (new.group_id, new.id); END`
		);
	}
	await db.schema.createTable('commitment', (t) => {
		t.string('id').primary();
		t.string('candidate_id').notNullable().references('candidate.id');
		t.bigInteger('from_at').notNullable();
		t.bigInteger('to_at').notNullable();
		t.string('title').notNullable();
		t.index(['candidate_id', 'from_at']);
	});
}

async function places(db: Knex) {
	await db.schema.alterTable('site', (t) => {
		// Local times between which rooms may be used, `08:00` and `18:00`; null: always.
		t.string('opens_daily');
		t.string('closes_daily');
	});
	await db.schema.alterTable('room', (t) => {
		// Seats out of use and seats kept apart, by name.
		t.text('plan').notNullable().defaultTo('{"outOfUse":[],"apart":[]}');
		t.integer('revision').notNullable().defaultTo(1);
	});
	await db.schema.createTable('network', (t) => {
		t.string('id').primary();
		t.string('site_id').notNullable().references('site.id');
		t.string('name').notNullable();
		t.text('ranges').notNullable();
		t.unique(['site_id', 'name']);
	});
	await db.schema.alterTable('administration', (t) => {
		t.string('opens_on');
		t.string('closes_on');
	});
	// Where a paper may be sat: at a site, by a group, or (both null) everywhere. A paper without a row is offered nowhere.
	await db.schema.createTable('paper_allowed', (t) => {
		t.increments('id');
		t.string('administration_id').notNullable().references('administration.id');
		t.string('paper_id').notNullable().references('paper.id');
		t.string('site_id').references('site.id');
		t.string('group_id').references('candidate_group.id');
	});
	await db.raw(
		'INSERT INTO paper_allowed (administration_id, paper_id) SELECT administration.id, paper.id FROM administration, paper'
	);
	// Sittings that were bought (no site) or allotted to a site.
	await db.schema.createTable('entitlement', (t) => {
		t.string('administration_id').notNullable().references('administration.id');
		t.string('site_id').references('site.id');
		t.integer('count').notNullable();
		t.unique(['administration_id', 'site_id']);
	});
}

async function rulesAndSessions(db: Knex) {
	await db.schema.createTable('rule_sheet', (t) => {
		t.string('id').primary();
		t.string('name').notNullable().unique();
		t.string('note').notNullable().defaultTo('');
		t.text('rules').notNullable();
		t.integer('revision').notNullable().defaultTo(1);
		t.bigInteger('withdrawn_at');
	});
	await db.schema.alterTable('session', (t) => {
		t.string('rule_sheet_id');
		// The key of the door code that turns; null: the code is fixed.
		t.string('turning_key');
	});
	await db.schema.createTable('session_group', (t) => {
		t.string('session_id').notNullable().references('session.id');
		t.string('group_id').notNullable().references('candidate_group.id');
		t.primary(['session_id', 'group_id']);
	});
	await db.raw(
		`INSERT INTO session_group (session_id, group_id)
		 SELECT DISTINCT roster.session_id, candidate.group_id FROM roster
		 JOIN sitting ON sitting.id = roster.sitting_id JOIN candidate ON candidate.id = sitting.candidate_id`
	);
	// What somebody is still entering; it becomes a session when it is planned.
	await db.schema.createTable('session_draft', (t) => {
		t.string('id').primary();
		t.string('staff_id').notNullable().references('staff.id');
		t.text('input').notNullable();
		t.string('title').notNullable();
		t.bigInteger('saved_at').notNullable();
		t.integer('revision').notNullable().defaultTo(1);
	});
	await db.schema.createTable('slip', (t) => {
		t.string('sitting_id').primary().references('sitting.id');
		t.string('code').notNullable().unique();
	});
}

async function mailAndClients(db: Knex) {
	await db.schema.alterTable('staff', (t) => {
		t.string('email');
	});
	await db.schema.createTable('mail', (t) => {
		t.string('id').primary();
		t.bigInteger('made_at').notNullable().index();
		t.string('session_id').references('session.id').index();
		t.string('kind').notNullable();
		t.string('to_name').notNullable();
		t.string('to_address').notNullable();
		t.string('subject').notNullable();
		t.text('body').notNullable();
		t.text('calendar');
		t.string('state').notNullable().index();
		t.integer('tries').notNullable().defaultTo(0);
		t.bigInteger('sent_at');
		t.string('trouble');
	});
	await db.schema.createTable('site_key', (t) => {
		t.string('id').primary();
		t.string('site_id').notNullable().references('site.id');
		t.string('secret').notNullable();
		t.bigInteger('made_at').notNullable();
		t.bigInteger('withdrawn_at');
	});
	await db.schema.createTable('client_challenge', (t) => {
		t.string('nonce').primary();
		t.bigInteger('expires_at').notNullable();
		t.bigInteger('used_at');
	});
	await db.schema.createTable('device_check', (t) => {
		t.string('id').primary();
		t.string('candidate_id').notNullable().references('candidate.id').index();
		t.string('session_id').references('session.id').index();
		t.bigInteger('at').notNullable();
		t.string('device_name').notNullable();
		t.string('client_version');
		t.text('checks').notNullable();
		t.boolean('ready').notNullable();
	});
}
