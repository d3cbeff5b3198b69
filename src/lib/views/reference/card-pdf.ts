import atkinson from '@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-400-normal.woff?url';
import { card, cardSvg } from '$core/examine/pictures/card';

const PT_PER_MM = 72 / 25.4;
const MARGIN_MM = 14;
/** Paper it is printed on, mm. @see ISO 216 (2007); ANSI Y14.1 */
export const cardPapers = {
	a4: { name: 'A4', widthMm: 210, heightMm: 297 },
	letter: { name: 'Letter', widthMm: 215.9, heightMm: 279.4 }
} as const;
export type CardPaper = keyof typeof cardPapers;

/**
 * The printed card as a PDF file, true to size, with what to do before it is used.
 * @param steps in order, in words
 * @throws Error when the font cannot be read
 */
export async function cardPdf(paper: CardPaper, steps: readonly string[]): Promise<Blob> {
	const { default: pdfMake } = await import('pdfmake/build/pdfmake');
	const face = new URL(atkinson, location.href).href;
	pdfMake.addFonts({ Text: { normal: face, bold: face, italics: face, bolditalics: face } });
	const { widthMm, heightMm } = cardPapers[paper];
	const leftMm = (widthMm - card.widthMm) / 2;
	return pdfMake
		.createPdf({
			pageSize: { width: widthMm * PT_PER_MM, height: heightMm * PT_PER_MM },
			pageMargins: [leftMm * PT_PER_MM, MARGIN_MM * PT_PER_MM, leftMm * PT_PER_MM, MARGIN_MM * PT_PER_MM],
			info: { title: `Card to lay beside, ${cardPapers[paper].name}` },
			defaultStyle: { font: 'Text', fontSize: 11, lineHeight: 1.25 },
			content: [
				{ svg: cardSvg(), width: card.widthMm * PT_PER_MM },
				{
					margin: [0, 18, 0, 0],
					ol: [...steps]
				}
			]
		})
		.getBlob();
}
