import { expect, it } from 'vitest';
import { directionOf } from '.';

it.each([
	['en', 'ltr'],
	['pt-BR', 'ltr'],
	['ar', 'rtl'],
	['ar-EG', 'rtl'],
	['HE', 'rtl'],
	['az', 'ltr'],
	['az-Arab', 'rtl'],
	['ur-Latn', 'ltr']
])('%s is written %s', (tag, direction) => expect(directionOf(tag)).toBe(direction));
