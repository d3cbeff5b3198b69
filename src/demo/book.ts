import {
	bookDetails,
	bookInput,
	type BookDetails,
	type BookInput,
	type BookKind
} from '$core/aftercare/book/book';

const entry = (kind: BookKind, on: string, details: Partial<BookDetails> = {}, note = ''): BookInput =>
	bookInput.parse({ kind, on, details: { ...bookDetails.parse({}), ...details }, note });

/** What the yard wrote into the field books of its trees, by tag. */
export const demoBook: Readonly<Record<string, readonly BookInput[]>> = {
	'H-03': [
		entry('put-off', '2025-09-20', {
			choice: 'wire',
			first: 'a full season of growth after the last root stage',
			untilOn: '2026-10-10'
		})
	],
	'L-01': [
		entry('mower-scar', '2025-05-10', {
			heightMm: 60,
			bearingDeg: 225,
			lengthMm: 180,
			widthMm: 45
		}),
		entry('leans', '2025-05-10', { bearingDeg: 90, leanDeg: 4 }, 'The owner says: always so.'),
		entry('top-dressed', '2025-06-02', { choice: 'mulch', depthMm: 60, product: 'half-rotted chips' })
	],
	'C-07': [
		entry('rot-before', '2026-03-07', { choice: 'roots', product: 'a saucer emptied now and then' }),
		entry('treated', '2026-03-14', { choice: 'cuts', product: 'clean cut only, charcoal dust at the base' }),
		entry('covered', '2026-03-15', { untilOn: '2026-04-26' }, 'A bag on hoops, aired each noon.')
	],
	'B-05': [
		entry('bought', '2025-06-28', { choice: 'shade', price: 0, product: 'the arcade' }),
		entry('crown-cut', '2025-06-29', { share: 0.3, heightMm: 900, choice: 'living' }),
		entry('shoots-of-year', '2024-10-01', { lengthMm: 220, count: 6 })
	],
	'A-01': [entry('warmed', '2026-03-20', { temperatureC: 24, untilOn: '2026-05-10' })],
	'X-40': [
		entry(
			'ball-scored',
			'2025-10-04',
			{ count: 4, depthMm: 12, choice: 'sides' },
			'Two of ten were left as they were, to compare.'
		),
		entry('labelled', '2025-10-05', { product: 'batch, day, pot' })
	],
	'P-09': [
		entry('bought', '2026-02-07', { choice: 'unknown', price: 65, product: 'the Hallow auction' }),
		entry('repotted-before', '2026-01-20', { choice: 'before', widthMm: 320 })
	],
	'G-11': [
		entry('crown-burnt', '2026-01-05', { share: 0.35, choice: 'frost', bearingDeg: 45 }),
		entry('leaves-washed', '2026-03-28', {
			product: 'lukewarm water',
			choice: 'rinsed',
			minutes: 5,
			everyDays: 14
		})
	],
	'T-05': [entry('ground-frozen', '2026-04-04', { choice: 'sodden', depthMm: 200 })]
};
