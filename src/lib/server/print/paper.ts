import { counted } from '$core/names';
import type { Content } from 'pdfmake/interfaces';
import {
	isMarkedByHand,
	mediaOf,
	printedDeal,
	printedForm,
	shows,
	type Medium,
	type Paper,
	type PrintedQuestion
} from '$core/paper';
import type { House } from '../house';
import { readMedium } from '../media';
import { asPng } from '../pictures';
import { toPdf } from './pdf';
import { lineOnPaper, textOnPaper } from './rich-text';

/** What can be printed of a paper, for the day when nothing else works. */
export const PAPER_PRINTS = { paper: 'Paper', answers: 'Answer sheet', key: 'Key' } as const;
export type PaperPrint = keyof typeof PAPER_PRINTS;

/**
 * Draws a paper, its answer sheet or its key. `form` says which deal of it: the three of one number belong together.
 * @param form from 1; it seeds the deal
 */
export async function printPaper(
	otium: Pick<House, 'threads' | 'db' | 'dataDir'>,
	paper: Paper,
	version: string,
	print: PaperPrint,
	form: number
): Promise<Uint8Array> {
	const dealt = printedDeal(paper, form);
	const questions = printedForm(paper, dealt);
	const head: Content[] = [
		{ text: print === 'paper' ? paper.title : `${PAPER_PRINTS[print]}: ${paper.title}`, style: 'title' },
		{
			text: `${version} · ${dealt.name ? `form ${dealt.name}, print ${form}` : `form ${form}`} · ${counted(questions.length, 'question')}`,
			style: 'quiet',
			margin: [0, 2, 0, 8]
		}
	];
	const who: Content = {
		text: 'Name: ______________________________   Number: ______________   Seat: ______',
		margin: [0, 0, 0, 14]
	};
	const drawn = print === 'paper' ? await picturesOf(otium, paper) : new Map<string, string>();
	const content = {
		paper: () => [
			...head,
			who,
			...questions.flatMap((one, i) => onPaper(paper, drawn, one, questions[i - 1])),
			...materialOnPaper(paper, drawn)
		],
		answers: () => [...head, who, table(questions, toFillIn)],
		key: () => [...head, table(questions, ({ kind, key }) => (isMarkedByHand({ kind }) ? 'marked by hand' : key))]
	}[print]();
	return toPdf(otium, `${PAPER_PRINTS[print]}: ${paper.title}, form ${form}`, { content });
}

/** The pictures of a paper as a PDF can hold them, by their files. */
async function picturesOf(
	otium: Pick<House, 'db' | 'dataDir' | 'threads'>,
	paper: Paper
): Promise<Map<string, string>> {
	const drawn = new Map<string, string>();
	for (const medium of mediaOf(paper)) {
		if (shows(medium) !== 'picture' || drawn.has(medium.file)) continue;
		const found = await readMedium(otium, medium.file);
		const png = found && (await asPng(otium, found.bytes));
		if (png) drawn.set(medium.file, `data:image/png;base64,${Buffer.from(png).toString('base64')}`);
	}
	return drawn;
}

/** What lies beside the paper, each document from a page of its own on. */
function materialOnPaper({ material = [] }: Paper, drawn: ReadonlyMap<string, string>): Content[] {
	return material.flatMap(({ name, pages }): Content[] => [
		{ text: name, style: 'title', pageBreak: 'before' },
		...pages.map((page): Content => {
			const image = drawn.get(page.file);
			return image ? { image, fit: [500, 700], margin: [0, 8, 0, 8] } : { text: `[${page.alt}]`, italics: true };
		})
	]);
}

/** Pictures as they are; of sound and film what they say, to be read aloud. */
function mediaOnPaper(media: Medium[], drawn: ReadonlyMap<string, string>): Content[] {
	return media.map((medium): Content => {
		const image = drawn.get(medium.file);
		if (image) return { image, fit: [360, 240], margin: [0, 6, 0, 4] };
		return { text: `[${shows(medium)}: ${medium.alt || 'played in the room'}]`, italics: true, margin: [0, 4, 0, 4] };
	});
}

function onPaper(
	paper: Paper,
	drawn: ReadonlyMap<string, string>,
	one: PrintedQuestion,
	before: PrintedQuestion | undefined
): Content[] {
	const picture = one.picture ? paper.pictures?.[one.picture] : undefined;
	const part: Content[] =
		one.part && one.part !== before?.part ? [{ text: one.part, bold: true, fontSize: 13, margin: [0, 10, 0, 6] }] : [];
	const shared: Content[] = one.stimulus
		? [
				{
					margin: [0, 4, 0, 10],
					stack: [
						...(one.stimulus.text ? textOnPaper(one.stimulus.text) : []),
						...mediaOnPaper(one.stimulus.media ?? [], drawn)
					]
				}
			]
		: [];
	return [
		...part,
		...shared,
		{
			unbreakable: true,
			margin: [0, 0, 0, 12],
			columns: [
				{ width: 24, text: `${one.number}`, bold: true },
				{
					width: '*',
					stack: [
						...textOnPaper(one.stem),
						...(picture ? [{ svg: picture.svg, width: 200, margin: [0, 6, 0, 4] } as Content] : []),
						...mediaOnPaper(one.media ?? [], drawn),
						...one.items.map((item, i): Content => ({ text: lineOnPaper(item, `${i + 1}  `), margin: [0, 3, 0, 0] })),
						...one.options.map(({ letter, text }): Content => ({
							text: lineOnPaper(text, `${letter}  `),
							margin: [one.items.length > 0 ? 16 : 0, 3, 0, 0]
						})),
						...(one.kind === 'true_false' ? ['True        False'] : []),
						...linesFor(one)
					]
				},
				{
					width: 44,
					text: `${one.points} ${one.points === 1 ? 'point' : 'points'}`,
					style: 'quiet',
					alignment: 'right'
				}
			]
		}
	];
}

/** Room to write: a line for a word or a figure, a dozen for an essay. */
function linesFor({ kind, unit }: PrintedQuestion): Content[] {
	const line = '_'.repeat(68);
	if (isMarkedByHand({ kind }))
		return Array.from({ length: 12 }, (): Content => ({ text: line, margin: [0, 8, 0, 0] }));
	if (kind === 'short') return [{ text: line.slice(0, 34), margin: [0, 8, 0, 0] }];
	if (kind === 'numeric') return [{ text: `${line.slice(0, 16)} ${unit ?? ''}`, margin: [0, 8, 0, 0] }];
	return [];
}

function toFillIn({ kind, options, items, unit }: PrintedQuestion): string {
	const letters = options.map(({ letter }) => letter).join('   ');
	switch (kind) {
		case 'single':
		case 'multiple':
			return letters;
		case 'true_false':
			return 'True   False';
		case 'matching':
			return items.map((_, i) => `${i + 1} ____`).join('   ');
		case 'ordering':
			return options.map(() => '____').join('   ');
		case 'essay':
		case 'upload':
			return 'on the paper itself';
		default:
			return `______________________ ${unit ?? ''}`;
	}
}

function table(questions: PrintedQuestion[], cell: (one: PrintedQuestion) => string): Content {
	return {
		layout: 'lightHorizontalLines',
		table: {
			headerRows: 1,
			widths: [28, '*', 44],
			body: [
				['', 'Answer', 'Points'].map((text) => ({ text, bold: true })),
				...questions.map((one) => [{ text: `${one.number}`, bold: true }, cell(one), `${one.points}`])
			]
		}
	};
}
