import { expect, it } from 'vitest';
import { fieldLabel } from './field-label';

it.each([
	[['what', 'factor'], 'Factor'],
	[['rules', 'timing', 'limitMinutes'], 'Limit'],
	[['sites', 1, 'allotted'], 'Allotted'],
	[['what', 'extraMinutes'], 'Extra minutes'],
	[['roomId'], 'Room'],
	[['proctorIds', 0], 'Proctors'],
	[[0], null],
	[[], null]
])('%j is called %s', (path, label) => expect(fieldLabel(path)).toBe(label));
