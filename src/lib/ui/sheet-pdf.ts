import atkinsonBold from '@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-700-normal.woff?url';
import atkinsonItalic from '@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-400-italic.woff?url';
import atkinson from '@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-400-normal.woff?url';
import atkinsonMoreBold from '@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-ext-700-normal.woff?url';
import atkinsonMoreItalic from '@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-ext-400-italic.woff?url';
import atkinsonMore from '@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-ext-400-normal.woff?url';
import bricolage from '@fontsource/bricolage-grotesque/files/bricolage-grotesque-latin-700-normal.woff?url';
import roboto from 'pdfmake/fonts/Roboto/Roboto-Regular.ttf?url';
import robotoBold from 'pdfmake/fonts/Roboto/Roboto-Medium.ttf?url';
import robotoItalic from 'pdfmake/fonts/Roboto/Roboto-Italic.ttf?url';
import type { Content, TDocumentDefinitions, TableCell } from 'pdfmake/interfaces';
import { standaloneSvg } from './picture';

/*
 * A sheet of the page as PDF. What stands on paper comes from one place, the page: its headings, paragraphs, lists, tables,
 * drawings and pictures are read off and set anew, so that text stays text.
 */

const MARGIN_PT = 40;
const WIDTH_PT = 595.28 - 2 * MARGIN_PT;
const GAP_PT = 14;
const INK = '#241c16';
const PADDING_PT = 4;
/** Points for a pixel of the page. */
const SCALE = 0.68;

const face = (normal: string, bold: string, italics: string) => ({
	normal,
	bold,
	italics,
	bolditalics: bold
});

/** The font that holds a character: the text face has Latin only, in two files; what it has not is set in another. */
function fontOf(char: string, heading: boolean): string {
	const code = char.codePointAt(0) ?? 0;
	const latin =
		code <= 0xff ||
		code === 0x131 ||
		code === 0x152 ||
		code === 0x153 ||
		(code >= 0x2000 && code <= 0x206f) ||
		code === 0x20ac ||
		code === 0x2122 ||
		code === 0x2191 ||
		code === 0x2193 ||
		code === 0x2212 ||
		code === 0x2215;
	if (latin) return heading ? 'Head' : 'Text';
	if ((code >= 0x100 && code <= 0x2ff) || (code >= 0x1e00 && code <= 0x1eff)) return 'More';
	return 'Other';
}

/** Signs that no font at hand draws, in ones that it does. */
const plain = (text: string): string =>
	text
		.replace(/→/g, '›')
		.replace(/[✓✔]/g, '+')
		.replace(/[✗✕]/g, '×')
		.replace(/○/g, 'o')
		.replace(/[◆◇]/g, '*');

interface Run {
	text: string;
	bold: boolean;
	italics: boolean;
	color: string;
	fontSize: number;
	font: string;
}

/** A colour as `#rrggbb`, from whatever the style sheets say. */
function hex(color: string): string {
	const parts = /rgba?\(([^)]+)\)/
		.exec(color)?.[1]
		?.split(/[,\s/]+/)
		.map(Number);
	if (!parts || parts.length < 3) return '#000000';
	return `#${parts
		.slice(0, 3)
		.map((part) => Math.round(part).toString(16).padStart(2, '0'))
		.join('')}`;
}

const isShown = (element: Element): boolean => {
	if (element.closest('.no-print, .sr-only, script, style, button, input, select, summary')) return false;
	const style = getComputedStyle(element);
	return style.display !== 'none' && style.visibility !== 'hidden';
};
const isInline = (node: Node): boolean =>
	node instanceof Text ||
	(node instanceof Element &&
		!(node instanceof SVGElement) &&
		!(node instanceof HTMLImageElement) &&
		/^inline/.test(getComputedStyle(node).display));

/** Text of a node in runs of one style and one font each. */
function runsOf(node: Node): Run[] {
	if (node instanceof HTMLBRElement)
		return [{ text: '\n', bold: false, italics: false, color: '#000000', fontSize: 10, font: 'Text' }];
	if (node instanceof Text) {
		const parent = node.parentElement;
		const text = plain((node.textContent ?? '').replace(/\s+/g, ' '));
		if (!parent || text === '') return [];
		const style = getComputedStyle(parent);
		const heading = parent.closest('h1, h2, h3, h4') !== null;
		const color = hex(style.color);
		// What is light stands on something dark there, and on paper here.
		const light = /^#(?:[c-f].){3}$/.test(color);
		const look = {
			bold: !heading && (light || Number(style.fontWeight) >= 600),
			italics: style.fontStyle === 'italic',
			color: light ? INK : color,
			fontSize: Math.round(parseFloat(style.fontSize) * SCALE * 10) / 10
		};
		const runs: Run[] = [];
		for (const char of text) {
			const font = fontOf(char, heading);
			const last = runs.at(-1);
			// A space goes with the run it stands in.
			if (last && (last.font === font || char === ' ')) last.text += char;
			else runs.push({ ...look, font, text: char, bold: look.bold || (heading && font !== 'Head') });
		}
		return runs;
	}
	if (node instanceof Element && !(node instanceof SVGElement)) {
		if (!isShown(node)) return [];
		return [...node.childNodes].flatMap(runsOf);
	}
	return [];
}

/** Runs without space at their ends or twice between words. */
function paragraph(runs: Run[]): Run[] {
	const kept: Run[] = [];
	for (const run of runs) {
		const before = kept.at(-1)?.text ?? ' ';
		const text = /\s$/.test(before) ? run.text.replace(/^ +/, '') : run.text;
		if (text !== '') kept.push({ ...run, text });
	}
	const last = kept.at(-1);
	if (last) last.text = last.text.replace(/ +$/, '');
	return kept.filter((run) => run.text !== '');
}

async function dataUrl(image: HTMLImageElement): Promise<string> {
	const answer = await fetch(image.currentSrc || image.src);
	if (!answer.ok) throw new Error('A picture of the sheet could not be read.');
	const blob = await answer.blob();
	return new Promise((resolve, reject) => {
		const reader = new FileReader();
		reader.onload = () => resolve(String(reader.result));
		reader.onerror = () => reject(new Error('A picture of the sheet could not be read.'));
		reader.readAsDataURL(blob);
	});
}

/** A drawing as the PDF takes it: plain colours, the fonts that it has, and letters without the halo that it cannot draw behind. */
function drawing(svg: SVGSVGElement): string {
	const copy = new DOMParser().parseFromString(standaloneSvg(svg), 'image/svg+xml').documentElement;
	for (const part of [copy, ...copy.querySelectorAll('*')]) {
		for (const name of ['fill', 'stroke']) {
			const value = part.getAttribute(name);
			if (value === null) continue;
			if (/^rgba\(.*,\s*0\)$/.test(value)) part.setAttribute(name, 'none');
			else if (value.startsWith('rgb')) part.setAttribute(name, hex(value));
			else part.setAttribute(name, value.replace(/"/g, ''));
		}
		if (part.hasAttribute('font-family')) part.setAttribute('font-family', 'Text');
		if (/^t(ext|span)$/.test(part.tagName)) part.setAttribute('stroke', 'none');
	}
	return plain(new XMLSerializer().serializeToString(copy));
}

const above = (element: Element): number =>
	Math.round(Math.min(24, parseFloat(getComputedStyle(element).marginTop) || 0) * SCALE);

/** Blocks of an element, in its order. */
async function blocksOf(element: Element, widthPt: number): Promise<Content[]> {
	const blocks: Content[] = [];
	let inline: Run[] = [];
	const flush = (): void => {
		const text = paragraph(inline);
		if (text.length > 0) blocks.push({ text, alignment: alignmentOf(element) });
		inline = [];
	};
	for (const node of element.childNodes) {
		if (isInline(node)) inline.push(...runsOf(node));
		else if (node instanceof Element && isShown(node)) {
			flush();
			const block = await blockOf(node, widthPt);
			if (!block) continue;
			// A heading is not parted from the drawing under it.
			const before = node.previousElementSibling;
			const heading = before && /^H[1-4]$/.test(before.tagName) ? blocks.at(-1) : undefined;
			if (heading && node.querySelector(':scope svg, :scope img'))
				blocks.splice(-1, 1, { stack: [heading, block], unbreakable: true });
			else blocks.push(block);
		}
	}
	flush();
	return blocks;
}

const alignmentOf = (element: Element): 'left' | 'right' | 'center' => {
	const align = getComputedStyle(element).textAlign;
	return align === 'right' || align === 'end' ? 'right' : align === 'center' ? 'center' : 'left';
};

async function blockOf(element: Element, widthPt: number): Promise<Content | null> {
	const margin: [number, number, number, number] = [0, above(element), 0, 0];
	if (element instanceof SVGSVGElement) {
		const { width, height } = element.viewBox.baseVal;
		const shown = Math.min(widthPt, element.getBoundingClientRect().width * SCALE, (560 * width) / height);
		return { svg: drawing(element), width: shown, margin };
	}
	if (element instanceof HTMLImageElement)
		return {
			image: await dataUrl(element),
			fit: [Math.min(widthPt, element.clientWidth * SCALE), 360],
			margin
		};
	if (element instanceof HTMLTableElement) return { ...(await tableOf(element, widthPt)), margin };
	if (element instanceof HTMLUListElement || element instanceof HTMLOListElement) {
		const items: Content[] = [];
		for (const item of element.children)
			if (isShown(item)) items.push({ stack: await blocksOf(item, widthPt - 12) });
		if (items.length === 0) return null;
		const marked = getComputedStyle(element).listStyleType !== 'none';
		if (!marked) return { stack: items, margin };
		return element instanceof HTMLOListElement ? { ol: items, margin } : { ul: items, margin };
	}
	const style = getComputedStyle(element);
	const children = [...element.children].filter(isShown);
	const beside =
		(style.display === 'grid' && style.gridTemplateColumns.split(' ').length > 1) ||
		(style.display === 'flex' && style.flexDirection === 'row');
	if (beside && children.length > 1)
		return besideEachOther(children, style.display === 'flex', widthPt, margin);
	if (/^H[1-4]$/.test(element.tagName)) {
		const text = paragraph(runsOf(element));
		return text.length > 0 ? { text, headlineLevel: 1, margin } : null;
	}
	const blocks = await blocksOf(element, widthPt);
	if (blocks.length === 0) return null;
	const boxed = style.borderLeftStyle === 'solid' && parseFloat(style.borderLeftWidth) >= 3;
	const block: Content = {
		stack: blocks,
		margin: boxed ? [8, margin[1], 0, 0] : margin,
		// A figure is not torn.
		unbreakable: element.tagName === 'FIGURE'
	};
	const ruled = style.borderBottomStyle === 'solid' && parseFloat(style.borderBottomWidth) >= 2;
	return ruled
		? {
				stack: [
					block,
					{
						canvas: [
							{
								type: 'line',
								x1: 0,
								y1: 3,
								x2: widthPt,
								y2: 3,
								lineWidth: 1.2,
								lineColor: hex(style.borderBottomColor)
							}
						]
					}
				]
			}
		: block;
}

/** Children side by side as they stand on the page, row by row. */
async function besideEachOther(
	children: Element[],
	flex: boolean,
	widthPt: number,
	margin: [number, number, number, number]
): Promise<Content> {
	const rows: Element[][] = [];
	let top = Number.NaN;
	for (const child of children) {
		const box = child.getBoundingClientRect();
		const row = rows.at(-1);
		// What overlaps the row above by height stands beside it.
		if (row && box.top < top) row.push(child);
		else rows.push([child]);
		top = box.bottom - 4;
	}
	const stack: Content[] = [];
	for (const row of rows) {
		const each = (widthPt - (row.length - 1) * GAP_PT) / row.length;
		const columns: Content[] = [];
		for (const [i, child] of row.entries()) {
			const block = await blockOf(child, flex ? widthPt : each);
			const last = flex && row.length > 1 && i === row.length - 1;
			columns.push({ stack: block ? [block] : [], width: flex ? (last ? 'auto' : '*') : each } as Content);
		}
		stack.push(row.length === 1 ? (columns[0] as Content) : { columns, columnGap: GAP_PT });
	}
	return { stack, margin };
}

async function tableOf(table: HTMLTableElement, widthPt: number) {
	const rows = [...table.rows].filter(isShown);
	const count = Math.max(
		1,
		...rows.map((row) => [...row.cells].reduce((sum, cell) => sum + cell.colSpan, 0))
	);
	const body: TableCell[][] = [];
	for (const row of rows) {
		const cells: TableCell[] = [];
		for (const cell of row.cells) {
			if (!isShown(cell)) continue;
			cells.push({
				stack: await blocksOf(cell, widthPt / count),
				colSpan: cell.colSpan,
				alignment: alignmentOf(cell),
				noWrap: cell.tagName === 'TH' || getComputedStyle(cell).whiteSpace === 'nowrap'
			});
			for (let i = 1; i < cell.colSpan; i++) cells.push({});
		}
		while (cells.length < count) cells.push({});
		body.push(cells);
	}
	// Columns keep their shares of the page; what is not wrapped there is not wrapped here.
	const row = rows.find((one) => one.cells.length === count);
	const shares = row
		? [...row.cells].map((cell) => cell.getBoundingClientRect().width)
		: Array.from({ length: count }, () => 1);
	const whole = shares.reduce((sum, share) => sum + share, 0) || 1;
	const widths = shares.map((share) => (share / whole) * widthPt - PADDING_PT);
	return {
		table: {
			headerRows: table.tHead ? table.tHead.rows.length : 0,
			dontBreakRows: true,
			widths,
			body: body.length > 0 ? body : [[{ text: '' }]]
		},
		layout: {
			hLineWidth: (line: number) => (line === 0 ? 0 : 0.4),
			vLineWidth: () => 0,
			hLineColor: () => '#b5ab99',
			paddingLeft: () => 0,
			paddingRight: () => PADDING_PT
		}
	};
}

/** What the sheet says, as a document to be set. The page is read in its light colours, whatever it is shown in. */
async function sheetDocument(sheet: HTMLElement, title: string): Promise<TDocumentDefinitions> {
	const root = document.documentElement;
	const theme = root.dataset.theme;
	root.dataset.theme = 'light';
	try {
		return {
			pageSize: 'A4',
			pageMargins: [MARGIN_PT, MARGIN_PT, MARGIN_PT, 46],
			info: { title },
			defaultStyle: { font: 'Text', fontSize: 10, lineHeight: 1.2 },
			content: await blocksOf(sheet, WIDTH_PT),
			footer: (page, pages) => ({
				text: `${title}    ${page} / ${pages}`,
				fontSize: 8,
				color: '#5a5750',
				margin: [MARGIN_PT, 14, MARGIN_PT, 0]
			}),
			pageBreakBefore: (node, nodes) =>
				node.headlineLevel === 1 && nodes.getFollowingNodesOnPage().length === 0
		};
	} finally {
		root.dataset.theme = theme;
	}
}

/** A sheet of the page as a PDF file. @throws Error when a picture or a font cannot be read */
export async function sheetPdf(sheet: HTMLElement, title: string): Promise<Blob> {
	const [{ default: pdfMake }, definition] = await Promise.all([
		import('pdfmake/build/pdfmake'),
		sheetDocument(sheet, title)
	]);
	const here = (path: string): string => new URL(path, location.href).href;
	pdfMake.addFonts({
		Text: face(here(atkinson), here(atkinsonBold), here(atkinsonItalic)),
		More: face(here(atkinsonMore), here(atkinsonMoreBold), here(atkinsonMoreItalic)),
		Head: face(here(bricolage), here(bricolage), here(bricolage)),
		Other: face(here(roboto), here(robotoBold), here(robotoItalic))
	});
	return pdfMake.createPdf(definition).getBlob();
}
