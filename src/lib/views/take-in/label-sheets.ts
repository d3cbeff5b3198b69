import QRCode from 'qrcode';

/** A sheet of labels as it is bought, or cut from plain paper: where its labels lie. */
export interface LabelSheet {
	label: string;
	/** Size of the paper as print styles name it, and in mm. */
	paper: 'A4' | 'letter';
	paperWidthMm: number;
	paperHeightMm: number;
	widthMm: number;
	heightMm: number;
	columns: number;
	rows: number;
	leftMm: number;
	topMm: number;
	/** Between two labels side by side. */
	gapMm: number;
}

const A4 = { paper: 'A4', paperWidthMm: 210, paperHeightMm: 297 } as const;
const LETTER = { paper: 'letter', paperWidthMm: 215.9, paperHeightMm: 279.4 } as const;

/** Common sizes of label sheets (trade practice, from memory), and a strip to stick in, our own. */
export const labelSheets = {
	'card-24': {
		label: 'A4, 24 to a sheet',
		...A4,
		...{ widthMm: 70, heightMm: 37, columns: 3, rows: 8, leftMm: 0, topMm: 0.5, gapMm: 0 }
	},
	'card-21': {
		label: 'A4, 21 to a sheet',
		...A4,
		...{ widthMm: 63.5, heightMm: 38.1, columns: 3, rows: 7, leftMm: 7.2, topMm: 15.1, gapMm: 2.5 }
	},
	'letter-30': {
		label: 'Letter, 30 to a sheet',
		...LETTER,
		...{ widthMm: 66.7, heightMm: 25.4, columns: 3, rows: 10, leftMm: 4.8, topMm: 12.7, gapMm: 3.1 }
	},
	'letter-10': {
		label: 'Letter, 10 to a sheet',
		...LETTER,
		...{ widthMm: 101.6, heightMm: 50.8, columns: 2, rows: 5, leftMm: 4, topMm: 12.7, gapMm: 4.8 }
	},
	strip: {
		label: 'A4, strips to cut and stick in',
		...A4,
		...{ widthMm: 125, heightMm: 20, columns: 1, rows: 13, leftMm: 14, topMm: 14, gapMm: 0 }
	}
} satisfies Record<string, LabelSheet>;
export type LabelSheetName = keyof typeof labelSheets;
export const labelSheetNames = Object.keys(labelSheets) as LabelSheetName[];

/** Labels of a sheet. */
export const perSheet = ({ columns, rows }: LabelSheet): number => columns * rows;

/** Where a label lies on its sheet, from its upper left corner, mm. */
export function placeOnSheet(sheet: LabelSheet, index: number): { leftMm: number; topMm: number } {
	const at = index % perSheet(sheet);
	return {
		leftMm: sheet.leftMm + (at % sheet.columns) * (sheet.widthMm + sheet.gapMm),
		topMm: sheet.topMm + Math.floor(at / sheet.columns) * sheet.heightMm
	};
}

/** A QR code as the outline of its dark squares, one unit each, and how many it has to a side. */
export function qrPath(text: string): { side: number; path: string } {
	const { modules } = QRCode.create(text, { errorCorrectionLevel: 'M' });
	let path = '';
	for (let row = 0; row < modules.size; row++)
		for (let column = 0; column < modules.size; column++)
			if (modules.get(row, column)) path += `M${column} ${row}h1v1h-1z`;
	return { side: modules.size, path };
}
