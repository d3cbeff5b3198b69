import jsQR from 'jsqr';
import { describe, expect, it } from 'vitest';
import { labelSheetNames, labelSheets, perSheet, placeOnSheet, qrPath } from '$views/take-in/label-sheets';

describe('a sheet of labels', () => {
	it('holds all its labels within its paper, none over another', () => {
		for (const name of labelSheetNames) {
			const sheet = labelSheets[name];
			const places = Array.from({ length: perSheet(sheet) }, (_, i) => placeOnSheet(sheet, i));
			for (const [i, { leftMm, topMm }] of places.entries()) {
				expect(leftMm, name).toBeGreaterThanOrEqual(0);
				expect(leftMm + sheet.widthMm, name).toBeLessThanOrEqual(sheet.paperWidthMm);
				expect(topMm + sheet.heightMm, name).toBeLessThanOrEqual(sheet.paperHeightMm);
				for (const other of places.slice(i + 1))
					expect(
						Math.abs(other.leftMm - leftMm) >= sheet.widthMm - 1e-6 ||
							Math.abs(other.topMm - topMm) >= sheet.heightMm - 1e-6
					).toBe(true);
			}
			expect(placeOnSheet(sheet, perSheet(sheet)), name).toEqual(places[0]);
		}
	});
	it('lies in the middle of its paper, as printers of them expect', () => {
		for (const name of labelSheetNames.filter((one) => one !== 'strip')) {
			const sheet = labelSheets[name];
			const last = placeOnSheet(sheet, perSheet(sheet) - 1);
			expect(last.leftMm + sheet.widthMm + sheet.leftMm, name).toBeCloseTo(sheet.paperWidthMm, -0.5);
			expect(last.topMm + sheet.heightMm + sheet.topMm, name).toBeCloseTo(sheet.paperHeightMm, -0.5);
		}
	});
});

it('the code of a label is read as the address it was made of', () => {
	const address = 'https://shed.local:4747/trees/0b6b1d3e-6a51-4d63-9a0f-1f7f1f1b2c3d';
	const { side, path } = qrPath(address);
	const [scale, margin] = [4, 4];
	const width = (side + 2 * margin) * scale;
	const pixels = new Uint8ClampedArray(width * width * 4).fill(255);
	for (const [, column, row] of path.matchAll(/M(\d+) (\d+)h1v1h-1z/g))
		for (let y = 0; y < scale; y++)
			for (let x = 0; x < scale; x++) {
				const at = (((Number(row) + margin) * scale + y) * width + (Number(column) + margin) * scale + x) * 4;
				pixels.fill(0, at, at + 3);
			}
	expect(jsQR(pixels, width, width)?.data).toBe(address);
});
