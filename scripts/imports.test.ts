import { readdirSync, readFileSync } from 'node:fs';
import { isBuiltin } from 'node:module';
import { ESLint, type Linter } from 'eslint';
import ts from 'typescript-eslint';
import { describe, expect, it } from 'vitest';

// The files don't exist, so no types are known of them.
const eslint = new ESLint({ overrideConfig: ts.configs.disableTypeChecked as Linter.Config });

/** What ESLint says of a file of ours that imports that. */
async function refusalOf(filePath: string, from: string): Promise<string | null> {
	const [result] = await eslint.lintText(`import { thing } from '${from}';\nexport const use = thing;\n`, { filePath });
	expect(result.fatalErrorCount).toBe(0);
	return result.messages.find((message) => message.ruleId === 'no-restricted-imports')?.message ?? null;
}

describe('arrows run one way, and the check refuses the others', () => {
	it.each([
		['src/core/time/wrong.ts', 'knex', 'Core is pure'],
		['src/core/time/wrong.ts', 'node:fs', 'Core is pure'],
		['src/core/time/wrong.ts', 'svelte', 'Core is pure'],
		['src/core/time/wrong.ts', '$lib/server/db', 'Core is pure'],
		['src/core/time/wrong.ts', '../../lib/server/db', 'Core is pure'],
		['src/lib/server/live/wrong.ts', '$ui/post', 'never a screen'],
		['src/lib/player/wrong.ts', '$lib/server/db', 'never the server side'],
		['src/lib/ui/wrong.ts', 'node:crypto', 'never the server side'],
		['src/lib/server/live/wrong.ts', '../session/run', 'only door'],
		['src/core/room/wrong.ts', '../sitting/table', 'only door'],
		['src/routes/wrong.ts', '$lib/server/session/run', 'only door'],
		['src/lib/server/mail/wrong.ts', '../../../../stand-ins/camera', 'does not know it'],
		['stand-ins/crowd/wrong.ts', '$lib/server/db', 'HTTP alone']
	])('%s may not import %s', async (file, from, sentence) => {
		expect(await refusalOf(file, from)).toContain(sentence);
	});

	it.each([
		['src/core/time/right.ts', 'luxon'],
		['src/core/grants/right.ts', '../time'],
		['src/lib/server/live/right.ts', '$core/time'],
		['src/lib/ui/right.ts', '$core/time'],
		['src/routes/right.ts', '$lib/server/db']
	])('%s may import %s', async (file, from) => {
		expect(await refusalOf(file, from)).toBeNull();
	});
});

describe('a machine that only serves', () => {
	const { dependencies } = JSON.parse(readFileSync('package.json', 'utf8')) as { dependencies: object };
	const { packages } = JSON.parse(readFileSync('package-lock.json', 'utf8')) as {
		packages: Record<string, { dev?: boolean }>;
	};
	/** Whatever the server and its own commands may come to; tests and what starts a demo are not among it. */
	const files = [
		...filesOf('src/core'),
		...filesOf('src/lib/server'),
		...['start', 'staff', 'backup', 'restore', 'backup-file', 'server-process', 'options'].map(
			(name) => `scripts/${name}.ts`
		)
	];

	it('has every package that its code names', () => {
		expect(files.length).toBeGreaterThan(200);
		const missing = files.flatMap((file) =>
			[...readFileSync(file, 'utf8').matchAll(/(?:from|import\() ?'(@?[a-z][\w./-]*)'/g)]
				.map(([, name]) => name)
				.filter((name) => !isBuiltin(name) && !name.startsWith('@sveltejs/kit'))
				.map((name) => /^(@[^/]+\/)?[^/]+/.exec(name)![0])
				.filter((name) => !Object.hasOwn(dependencies, name))
				.map((name) => `${file}: ${name}`)
		);
		expect(missing).toEqual([]);
	});

	it('has no compiler of pages, no bundler and no browser', () => {
		const built = ['vite', 'rolldown', 'lightningcss', 'typescript', '@tailwindcss/vite', 'playwright-core', 'vitest'];
		for (const name of built) expect(packages[`node_modules/${name}`], name).toMatchObject({ dev: true });
	});
});

function filesOf(folder: string): string[] {
	const names = readdirSync(folder, { recursive: true, encoding: 'utf8' }).filter((name) => name.endsWith('.ts'));
	return names.map((name) => `${folder}/${name}`).filter((file) => !/\.test\.ts$|\/(testing|demo)\//.test(file));
}
