import { describe, expect, it } from 'vitest';
import { may, mayAnywhere, type StaffMember } from '.';

const person = (...roles: StaffMember['roles']): StaffMember => ({ id: 'me', name: 'Me', roles });
const quayside = { siteId: 'quayside', proctorIds: ['me'] };
const others = { siteId: 'quayside', proctorIds: ['somebody'] };

describe('who may do what, where', () => {
	it('a proctor acts in the sessions that name them, and nowhere else', () => {
		const proctor = person({ role: 'proctor', siteId: 'quayside' });
		expect([
			may(proctor, 'run_session', quayside),
			may(proctor, 'run_session', others),
			may(proctor, 'see_session', others)
		]).toEqual([true, false, false]);
		expect([
			may(proctor, 'grant', quayside),
			may(proctor, 'reopen', quayside),
			may(proctor, 'prepare', quayside)
		]).toEqual([false, false, false]);
	});

	it('a coordinator acts at their sites', () => {
		const here = person({ role: 'coordinator', siteId: 'quayside' });
		expect([may(here, 'reopen', others), may(here, 'prepare', { siteId: 'lighthouse', proctorIds: ['me'] })]).toEqual([
			true,
			false
		]);
		expect(may(person({ role: 'coordinator', siteId: null }), 'grant', { siteId: 'anywhere', proctorIds: [] })).toBe(
			true
		);
	});

	it('a closing officer sees ledgers and the logbook, and runs nothing', () => {
		const officer = person({ role: 'closing_officer', siteId: null });
		expect([
			may(officer, 'see_closing', others),
			may(officer, 'run_session', quayside),
			mayAnywhere(officer, 'see_logbook'),
			mayAnywhere(officer, 'prepare')
		]).toEqual([true, false, true, false]);
	});

	it('several roles add up, each at its own site', () => {
		const both = person({ role: 'proctor', siteId: 'quayside' }, { role: 'coordinator', siteId: 'lighthouse' });
		expect([may(both, 'grant', others), may(both, 'grant', { siteId: 'lighthouse', proctorIds: [] })]).toEqual([
			false,
			true
		]);
		expect(may(person(), 'see_session', quayside)).toBe(false);
	});
});
