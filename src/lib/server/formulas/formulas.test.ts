import katex from 'katex';
import { afterAll, describe, expect, it, vi } from 'vitest';
import { ThreadError, Threads } from '../thread';
import { drawnFormulas } from './drawn-formulas';
import { inWords } from './in-words';

const words = (tex: string, language = 'en') =>
	inWords(/<math[\s\S]*<\/math>/.exec(katex.renderToString(tex, { trust: false }))![0], language);

describe('a formula in words', () => {
	// How it is read in a class, by common practice; the engine follows the rules of ClearSpeak (ETS, 2016).
	it.each([
		['x^2', 'x squared'],
		['\\sqrt{x}', 'the square root of x'],
		['\\frac{1}{2}', 'one half'],
		['f(x)=x^2', 'f of x equals x squared'],
		['F=ma', 'F equals m a'],
		['GZ = GM \\sin\\theta', 'G Z equals G M sine theta'],
		['\\frac{GM}{30}', 'G M over 30'],
		['\\frac{f}{g}', 'f over g'],
		['H_2O', 'H sub 2 O'],
		['f_1(x)', 'f sub 1 of x'],
		['9.81\\,\\mathrm{m/s^2}', '9.81 m divided by s squared'],
		["054^\\circ 30'", '054 degrees 30 prime'],
		['5\\,\\Omega', '5 Omega'],
		['\\Delta h', 'Delta h'],
		['-3', 'negative 3']
	])('%s is read "%s"', async (tex, read) => {
		expect(await words(tex)).toBe(read);
	});

	it.each([
		['de', 'x^2', 'x Quadrat'],
		['de-AT', '3{,}5', '3,5'],
		['fr', 'x^2', 'x au carré'],
		// Two numbers of a point are not one.
		['de', 'P(3,5)', 'P von Klammer auf 3 Komma 5 Klammer zu'],
		// Not read by the engine: in English rather than as code.
		['pt', 'x^2', 'x squared']
	])('in %s, %s is "%s"', async (language, tex, read) => {
		expect(await words(tex, language)).toBe(read);
	});

	it('says nothing of what is no formula', async () => {
		expect(await inWords('<math><mi>x</math>', 'en')).toBeNull();
	});
});

describe('drawn for a candidate', () => {
	const threads = new Threads();
	afterAll(() => threads.close());
	/** The first of a language needs longer than a candidate waits. */
	const drawnOf = (sent: unknown) =>
		vi.waitUntil(
			async () => {
				const { formulas, isWhole } = await drawnFormulas({ threads }, sent, 'en');
				return isWhole && formulas;
			},
			{ timeout: 60_000 }
		);

	it('everywhere in what is sent, each once, with MathML beside it', async () => {
		const sent = { stem: 'Is $a+b$ more than $a$?', choices: [{ text: '$a$' }, { text: 'costs \\$5' }], n: 3 };
		const drawn = await drawnOf([sent, ['$c$']]);
		expect(Object.keys(drawn)).toEqual(['a+b', 'a', 'c']);
		expect(drawn['a+b'].words).toBe('a plus b');
		expect(drawn['a+b'].html).toMatch(/<math .*aria-hidden="true"/s);
	});

	it('what can’t be read is said as it is written, and what writes itself is never drawn', async () => {
		const writesItself = '\\def\\a{\\a\\a}\\a';
		const drawn = await drawnOf(['$\\frac{$', `$${writesItself}$`]);
		expect(drawn['\\frac{'].words).toBe('\\frac{');
		expect(drawn[writesItself]).toEqual({ html: null, words: writesItself });
	});

	it('is left to the device where the thread can’t answer; nobody is kept waiting by a fault', async () => {
		const none = new Threads();
		await none.close();
		const left = await drawnFormulas({ threads: none }, ['$q+r$', '$a$'], 'en');
		expect(left.formulas).toMatchObject({ a: { words: 'a' } });
		expect(left.formulas['q+r']).toBeUndefined();
	});

	it('comes later where too many wait for the thread', async () => {
		const full = {
			run: async () => {
				throw new ThreadError('too_many', 'Too many wait for this already.');
			}
		} as unknown as Threads;
		expect(await drawnFormulas({ threads: full }, ['$s-t$'], 'en')).toEqual({ formulas: {}, isWhole: false });
		expect((await drawnOf(['$s-t$']))['s-t'].words).toBe('s minus t');
	});

	it('what the thread does not survive is not put before it again by whoever asks next', async () => {
		let asked = 0;
		const dying = {
			run: async () => {
				asked++;
				throw new ThreadError('too_long', 'It took too long.');
			}
		} as unknown as Threads;
		for (let i = 0; i < 3; i++)
			expect(await drawnFormulas({ threads: dying }, ['$d-e$'], 'en')).toEqual({ formulas: {}, isWhole: true });
		expect(asked).toBe(1);
	});

	it('many who ask at once wait for one drawing', async () => {
		const asked: unknown[] = [];
		const counting = {
			run: (...[kind, task, input, ...rest]: Parameters<Threads['run']>) => {
				asked.push(input);
				return threads.run(kind, task, input, ...rest);
			}
		} as unknown as Threads;
		const all = await Promise.all(
			Array.from({ length: 30 }, () => drawnFormulas({ threads: counting }, ['$u^2$'], 'en'))
		);
		expect(asked).toHaveLength(1);
		expect(new Set(all.map(({ formulas }) => formulas['u^2'].words))).toEqual(new Set(['u squared']));
	});
});
