import type { Content } from 'pdfmake/interfaces';
import { shownPercent, shownPoints } from '$core/results';
import { longDate } from '$core/time';
import type { House } from '../house';
import { toPdf } from '../print';
import type { ResultLine } from './lines';

/** A slip for each result, one to a page, in the order of numbers. */
export function resultSlips(
	otium: Pick<House, 'threads' | 'now'>,
	administration: string,
	lines: ResultLine[],
	papers: Map<string, string>,
	isFinal: boolean
): Promise<Uint8Array> {
	const content = lines.map(({ sitting, name, result, validity }, i): Content => {
		const isVoid = validity?.verdict === 'void';
		const isMarked = result.toMark === 0;
		return {
			stack: [
				{ text: papers.get(sitting.paperId) ?? '', style: 'title' },
				{ text: `${administration} · ${longDate(sitting.fold.ended!.at, 'UTC', otium.now())}`, style: 'quiet' },
				{ text: `${name}\n`, fontSize: 15, margin: [0, 22, 0, 0] },
				{ text: sitting.number, style: 'code', margin: [0, 0, 0, 18] },
				...(isVoid
					? [{ text: `This result is void. ${validity!.note}` }]
					: !isMarked
						? [{ text: 'Not marked to the end yet.' }]
						: [
								{
									text: `${shownPoints(result.points)} of ${shownPoints(result.outOf)} points, ${shownPercent(result)}`,
									fontSize: 15
								},
								...(result.passed === null ? [] : [{ text: result.passed ? 'Passed' : 'Not passed', bold: true }]),
								...(result.band ? [{ text: `${result.band.name}. ${result.band.message}` }] : []),
								{
									margin: [0, 16, 0, 0] as [number, number, number, number],
									table: {
										widths: ['*', 'auto', 'auto'],
										body: [
											['Topic', 'Points', ''],
											...result.topics.map((topic) => [
												topic.topic,
												`${shownPoints(topic.points)} of ${shownPoints(topic.outOf)}`,
												topic.isCredited ? 'credited' : ''
											])
										]
									},
									layout: 'lightHorizontalLines'
								}
							]),
				{
					text: isFinal ? 'Final result.' : 'Preliminary: the administration is not closed.',
					style: 'quiet',
					margin: [0, 20, 0, 0]
				}
			],
			...(i > 0 ? { pageBreak: 'before' as const } : {})
		};
	});
	return toPdf(otium, `Results: ${administration}`, { content: content.length > 0 ? content : ['No results yet.'] });
}
