import { describe, expect, it } from 'vitest';
import fc from 'fast-check';
import { readCsv, writeCsv } from '$core/text/csv';

/** RFC 4180. */
describe('files of rows', () => {
	it.each([',', ';', '\t', '|'])('are read whichever sign parts them: %s', (sign) => {
		const text = ['\uFEFF a ', 'b'].join(sign) + `\n# said of it\n\n1${sign}"x, y; z"\r\n`;
		expect(readCsv(text)).toEqual({ header: ['a', 'b'], rows: [['1', 'x, y; z']] });
	});
	it('have no header where there is nothing in them', () => {
		for (const text of ['', '\n\n', '# only a word']) expect(readCsv(text)).toEqual({ header: [], rows: [] });
	});
	it('come back as they were written, whatever is in a cell', () => {
		fc.assert(
			fc.property(
				fc.array(fc.record({ a: fc.string({ minLength: 1 }), b: fc.integer() }), { minLength: 1 }),
				(data) => {
					// A line that begins with # is a word about the file.
					const rows = data.filter(({ a }) => !a.startsWith('#') && a.trim() !== '');
					fc.pre(rows.length > 0);
					expect(readCsv(writeCsv(['a', 'b'], rows)).rows).toEqual(rows.map(({ a, b }) => [a, String(b)]));
				}
			)
		);
	});
});
