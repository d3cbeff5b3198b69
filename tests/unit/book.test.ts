import { describe, expect, it } from 'vitest';
import fc from 'fast-check';
import {
	bookDetails,
	bookEntrySchema,
	bookInput,
	bookKind,
	bookKindIds,
	bookSentence,
	type BookDetails,
	type BookEntry,
	type BookKind,
	type Detail
} from '$core/aftercare/book/book';
import {
	ballAfter,
	broughtUp,
	crownLeft,
	nightsUnderCover,
	rootsSevered,
	ruleDone,
	spokenAgainst,
	type BookFacts
} from '$core/aftercare/book/effects';
import { defaultValues as values } from '$core/values/values';
import { standingOf } from '$core/tree/standing';
import { foundLately, eventsTold } from '$core/tree/carried';
import { lastRootWork, rootLosses } from '$core/tree/losses';
import { recoveryCase } from '$core/tree/recovery-case';
import { observationSchema } from '$core/examine/looks/observation';
import { cut, treeRecords } from '../records';

const entry = (kind: BookKind, on: string, details: Partial<BookDetails> = {}, note = ''): BookEntry =>
	bookEntrySchema.parse({
		id: `b-${kind}-${on}`,
		version: 1,
		kind,
		on,
		details: { ...bookDetails.parse({}), ...details },
		note
	});
const blankLook = observationSchema.parse({ id: 'o', version: 1, observedOn: '2025-07-10', leafCover: 0.7 });
const ball = { widthMm: 300, depthMm: 200 };
const no: BookFacts = { rootsCutOn: null, feedingWaits: false, livingLimitMm: null, limitSteady: false };

/** Something for every detail a kind asks for. */
function filled(kind: BookKind): BookDetails {
	const of = bookKind(kind);
	const details: Record<string, unknown> = { ...bookDetails.parse({}) };
	const some: Partial<Record<Detail, unknown>> = {
		product: 'Bark',
		strength: '2 g to a litre',
		first: 'buds move',
		share: 0.2,
		untilOn: '2026-06-01',
		price: 12
	};
	for (const detail of Object.keys(of.asks) as Detail[]) details[detail] = some[detail] ?? 3;
	if (of.choices) details.choice = Object.keys(of.choices.options)[0];
	return details as BookDetails;
}

describe('every kind of the field book', () => {
	it.each(bookKindIds)('%s takes what it asks for, says it, and refuses what it does not ask for', (kind) => {
		const whole = bookInput.parse({ kind, on: '2026-04-01', details: filled(kind) });
		const sentence = bookSentence(whole, true);
		expect(sentence).toMatch(/^[A-Z].*\.$/);
		expect(sentence).not.toMatch(/null|undefined|NaN|\b1 days\b|\.\./);
		const stranger = (['leanDeg', 'price', 'litres', 'temperatureC'] as const).find(
			(detail) => !bookKind(kind).asks[detail]
		);
		expect(
			bookInput.safeParse({ kind, on: '2026-04-01', details: { ...filled(kind), [stranger ?? 'price']: 3 } })
				.success
		).toBe(false);
		for (const [detail, asked] of Object.entries(bookKind(kind).asks))
			if (asked.needed)
				expect(
					bookInput.safeParse({ kind, on: '2026-04-01', details: { ...filled(kind), [detail]: null } })
						.success,
					detail
				).toBe(false);
		// What stays until a day has a word for that day, and what comes again has one too.
		expect(Boolean(bookKind(kind).until)).toBe('untilOn' in bookKind(kind).asks);
		expect(Boolean(bookKind(kind).again)).toBe('everyDays' in bookKind(kind).asks);
	});
	it('a stay does not end before it began', () => {
		const covered = {
			kind: 'covered',
			on: '2026-04-10',
			details: { ...filled('covered'), untilOn: '2026-04-09' }
		};
		expect(bookInput.safeParse(covered).error?.issues[0]?.message).toContain('2026-04-10');
	});
	it('says what was chosen, and nothing where nothing was', () => {
		const freed = entry('roots-freed', '2026-04-01', { choice: 'air' });
		const { label } = bookKind('roots-freed');
		expect(bookSentence(freed, true)).toBe(`${label}: an air tool.`);
		expect(bookSentence({ ...freed, details: { ...freed.details, choice: null } }, true)).toBe(`${label}.`);
	});
	it('sides are spoken by the clock of the pot and by the compass of the ground', () => {
		const leans = entry('leans', '2026-04-01', { bearingDeg: 90, leanDeg: 12 });
		expect(bookSentence(leans, true)).toBe('Leans: towards east, from upright 12°.');
		expect(bookSentence(leans, false)).toBe('Leans: towards left, from upright 12°.');
	});
});

describe('roots severed on a bound ball', () => {
	const scored = (count: number, depthMm: number, choice = 'sides'): number =>
		rootsSevered(
			{ kind: 'ball-scored', details: { ...bookDetails.parse({}), count, depthMm, choice } },
			ball,
			values
		)?.share ?? NaN;
	it('follows its model: six cuts through the mat meet 0.9 of a root each', () => {
		// Half of the roots in the mat; met 6 × 0.15 = 0.9 times; 0.9 / 1.9 of it is lost; wall 0.727 of wall and base.
		const wall = (Math.PI * 300 * 200) / (Math.PI * 300 * 200 + (Math.PI / 4) * 300 ** 2);
		expect(scored(6, 20)).toBeCloseTo(0.5 * (0.9 / 1.9) * wall, 10);
		expect(scored(6, 20, 'sides-and-base')).toBeCloseTo(0.5 * (0.9 / 1.9), 10);
		expect(scored(6, 10)).toBeCloseTo(scored(6, 20) / 2, 10);
		expect(scored(6, 60)).toBeCloseTo(scored(6, 20), 10);
	});
	it('a slice takes the mat at the base and its part of the inside', () => {
		const wall = Math.PI * 300 * 200;
		const base = (Math.PI / 4) * 300 ** 2;
		const sliced = rootsSevered(
			{ kind: 'ball-sliced', details: { ...bookDetails.parse({}), depthMm: 50 } },
			ball,
			values
		);
		expect(sliced?.share).toBeCloseTo(0.5 * (base / (wall + base)) + 0.5 * 0.25, 10);
		expect(sliced?.low).toBeLessThanOrEqual(sliced?.share ?? 0);
		expect(sliced?.high).toBeGreaterThanOrEqual(sliced?.share ?? 1);
		expect(
			ballAfter({ kind: 'ball-sliced', details: { ...bookDetails.parse({}), depthMm: 50 } }, ball)
		).toEqual({ widthMm: 300, depthMm: 150 });
	});
	it('sparing a side costs less, and more taken never costs less', () => {
		const freed = (depthMm: number, bearingDeg: number | null): number =>
			rootsSevered(
				{ kind: 'ball-shaved', details: { ...bookDetails.parse({}), depthMm, bearingDeg } },
				ball,
				values
			)?.share ?? NaN;
		expect(freed(20, 90)).toBeCloseTo(0.75 * freed(20, null), 10);
		fc.assert(
			fc.property(
				fc.integer({ min: 1, max: 60 }),
				fc.integer({ min: 1, max: 40 }),
				fc.integer({ min: 1, max: 40 }),
				(count, depth, more) => {
					expect(scored(count, depth + more)).toBeGreaterThanOrEqual(scored(count, depth));
					expect(scored(count + 1, depth)).toBeGreaterThan(scored(count, depth));
					expect(freed(depth + more, null)).toBeGreaterThan(freed(depth, null));
					for (const share of [scored(count, depth), freed(depth, null)]) expect(share).toBeLessThan(1);
				}
			)
		);
	});
	it('counts on every page: roots, last work, ball, and where recovery begins', () => {
		const before = treeRecords();
		const sliced = { ...before, book: [entry('ball-sliced', '2025-06-01', { depthMm: 40 })] };
		const lost = rootLosses(sliced, values).done;
		expect(lost).toHaveLength(1);
		expect(lost[0]).toMatchObject({ on: '2025-06-01', by: 'ball' });
		expect(standingOf(sliced, '2025-06-01', values).rootsLiving.value).toBeLessThan(
			standingOf(before, '2025-06-01', values).rootsLiving.value ?? 0
		);
		expect(lastRootWork(sliced, values)).toMatchObject({
			by: 'cut',
			on: '2025-06-01',
			livingLoss: lost[0]?.share,
			ofBall: lost[0]?.share
		});
		// The ball as mapped is 360 mm wide; its depth was nobody's measure, so that there is none to be less.
		expect(standingOf(sliced, '2025-06-01', values).ballDepthMm.value).toBeNull();
		const deep = { ...sliced, rootMap: before.rootMap && { ...before.rootMap, ballDepthMm: 200 } };
		expect(standingOf(deep, '2025-06-01', values).ballDepthMm).toMatchObject({
			value: 160,
			known: 'worked-out',
			by: 'sliced'
		});
		expect(standingOf(deep, '2025-05-31', values).ballDepthMm.value).toBe(200);
	});
	it('of one day each work finds the ball that the one before left', () => {
		const records = treeRecords();
		const mapped = { ...records, rootMap: records.rootMap && { ...records.rootMap, ballDepthMm: 200 } };
		const slices = ['a', 'b'].map((id) => ({ ...entry('ball-sliced', '2025-06-01', { depthMm: 50 }), id }));
		const [first, second] = rootLosses({ ...mapped, book: slices }, values).done;
		expect(first?.share).toBe(rootLosses({ ...mapped, book: slices.slice(0, 1) }, values).done[0]?.share);
		expect(second?.share).toBeGreaterThan(first?.share ?? 1);
	});
	it('two works of one ball are each reckoned on what the one before left', () => {
		const records = treeRecords();
		const mapped = { ...records, rootMap: records.rootMap && { ...records.rootMap, ballDepthMm: 200 } };
		const twice = {
			...mapped,
			book: [
				entry('ball-sliced', '2025-06-01', { depthMm: 50 }),
				entry('ball-sliced', '2025-07-01', { depthMm: 50 })
			]
		};
		const [first, second] = rootLosses(twice, values).done;
		expect(second?.share).toBeGreaterThan(first?.share ?? 1);
		expect(standingOf(twice, '2025-07-01', values).ballDepthMm.value).toBe(100);
	});
});

describe('what an entry says elsewhere', () => {
	it('what was cut off the crown is allowed for in its leaves; what burnt since is not', () => {
		const book = [
			entry('crown-cut', '2025-06-01', { share: 0.3, choice: 'living' }),
			entry('crown-cut', '2025-06-02', { share: 0.5, choice: 'dead' }),
			entry('crown-burnt', '2025-07-01', { share: 0.2, choice: 'sun' })
		];
		expect(crownLeft(book, '2025-05-31', '2025-06-30')).toBeCloseTo(0.7);
		expect(crownLeft(book, '2025-06-01', '2025-08-01')).toBeCloseTo(0.8);
		expect(crownLeft(book, '2025-01-01', '2025-08-01')).toBeCloseTo(0.56);
	});
	it('makes a look after a crown cut no worse for it, and a burnt crown no better', () => {
		const look = { ...blankLook, observedOn: '2025-07-10', leafCover: 0.7 };
		const of = (book: BookEntry[]) => {
			const records = treeRecords({ observations: [look], book });
			const place = records.places[0];
			if (!place) throw new Error('no place');
			return recoveryCase(
				records,
				{ place, series: [], course: [], referenceShootMm: null },
				'2025-07-11',
				values
			);
		};
		expect(of([]).looks[0]?.leafCover).toBe(0.7);
		expect(of([entry('crown-cut', '2025-06-01', { share: 0.3, choice: 'living' })]).looks[0]?.leafCover).toBe(
			1
		);
		expect(of([entry('crown-cut', '2025-07-10', { share: 0.3, choice: 'living' })]).looks[0]?.leafCover).toBe(
			1
		);
		expect(of([entry('crown-cut', '2025-07-11', { share: 0.3, choice: 'living' })]).looks[0]?.leafCover).toBe(
			0.7
		);
		expect(of([entry('crown-burnt', '2025-07-01', { share: 0.3, choice: 'sun' })]).looks[0]?.leafCover).toBe(
			0.7
		);
	});
	it('a crown cut before the work is missing from the crown that recovery begins with', () => {
		const begun = (
			book: BookEntry[],
			looks = [{ ...blankLook, observedOn: '2025-06-20', leafCover: 0.9 }]
		) => {
			const records = treeRecords({ observations: looks, book }, [cut('r4', 0, '2025-07-01')]);
			const place = records.places[0];
			if (!place) throw new Error('no place');
			return recoveryCase(
				records,
				{ place, series: [], course: [], referenceShootMm: null },
				'2025-07-11',
				values
			).crownAtStart;
		};
		const taken = (on: string) => [entry('crown-cut', on, { share: 0.5, choice: 'living' })];
		expect(begun([])).toBeCloseTo(0.9, 9);
		expect(begun(taken('2025-06-25'))).toBeCloseTo(0.45, 9);
		// What was cut before that look is in it already; what is cut after the start is progress, or none.
		expect(begun(taken('2025-06-20'))).toBeCloseTo(0.9, 9);
		expect(begun(taken('2025-07-02'))).toBeCloseTo(0.9, 9);
		expect(begun(taken('2025-06-25'), [])).toBeCloseTo(0.5, 9);
	});
	it('a purchase and a repotting of before are events of the diagnosis; a split bark is a sign that was found', () => {
		const records = treeRecords({
			book: [
				entry('bought', '2025-05-20', { choice: 'shade' }),
				entry('repotted-before', '2025-05-25', { choice: 'before' }),
				entry('frost-split', '2025-05-28')
			]
		});
		expect(eventsTold(records, '2025-06-01', values).sort()).toEqual(['bought', 'repotted']);
		expect(eventsTold(records, '2026-06-01', values)).toEqual([]);
		expect(foundLately(records, '2025-06-01', values).map((one) => one.signId)).toEqual([
			'watered-as-before',
			'bark-cracks'
		]);
		expect(foundLately(records, '2025-05-26', values).map((one) => one.signId)).toEqual([
			'watered-as-before'
		]);
		expect(foundLately(records, '2025-09-01', values)).toEqual([]);
	});
	it('lean, light and height are facts with their day', () => {
		const records = treeRecords({
			book: [
				entry('leans', '2025-03-01', { bearingDeg: 90, leanDeg: 12 }),
				entry('light-from', '2025-03-02', { bearingDeg: 180 }),
				entry('crown-cut', '2025-03-03', { share: 0.2, heightMm: 1200, choice: 'headed' })
			]
		});
		const stands = standingOf(records, '2025-03-03', values);
		expect(stands.lean.value).toEqual({ towardDeg: 90, deg: 12 });
		expect(stands.lightDeg).toMatchObject({ value: 180, on: '2025-03-02', known: 'seen' });
		expect(stands.heightMm).toMatchObject({ value: 1200, by: 'field book' });
		expect(stands.crownTaken.value).toBe(0.2);
		expect(standingOf(records, '2025-02-28', values).lean.value).toBeNull();
	});
});

describe('what an entry brings up and what speaks against it', () => {
	it('its end and its next time become dated work', () => {
		const cover = broughtUp(entry('covered', '2026-04-01', { untilOn: '2026-05-01' }), 's', values);
		expect(cover).toEqual([
			expect.objectContaining({
				fromOn: '2026-05-01',
				toOn: '2026-05-08',
				everyDays: null,
				title: bookKind('covered').until
			})
		]);
		const wash = broughtUp(
			entry('leaves-washed', '2026-04-01', { everyDays: 5, choice: 'rinsed' }),
			's',
			values
		);
		expect(wash).toEqual([
			expect.objectContaining({ fromOn: '2026-04-06', toOn: '2026-04-11', everyDays: 5 })
		]);
		const later = broughtUp(
			entry('put-off', '2026-04-01', { untilOn: '2027-02-01', first: 'two steady looks', choice: 'carve' }),
			's',
			values
		);
		expect(later[0]).toMatchObject({
			title: 'Put off until now: carving',
			reason: 'First: two steady looks'
		});
		expect(broughtUp(entry('crown-cut', '2026-04-01', { share: 0.1, choice: 'dead' }), 's', values)).toEqual(
			[]
		);
	});
	const stops = (
		kind: BookKind,
		details: Partial<BookDetails>,
		facts = no,
		book: BookEntry[] = []
	): string[] =>
		spokenAgainst(entry(kind, '2026-04-10', { ...filled(kind), ...details }), book, facts, values).map(
			(one) => `${one.stop ? 'stop' : 'mind'}: ${one.text}`
		);
	it('a saw at the stem waits for a limit that was found and held still', () => {
		const found = { ...no, livingLimitMm: 600 };
		expect(stops('stem-sawn', { heightMm: 700, count: 3 })).toEqual([
			expect.stringMatching(/^stop: How high its bark lives/)
		]);
		expect(stops('stem-sawn', { heightMm: 700, count: 3 }, found)).toEqual([
			expect.stringMatching(/^stop: The living limit was not seen steady/)
		]);
		expect(stops('stem-sawn', { heightMm: 700, count: 3 }, { ...found, limitSteady: true })).toEqual([]);
		expect(stops('stem-sawn', { heightMm: 500, count: 3 }, { ...found, limitSteady: true })).toEqual([
			expect.stringMatching(/^stop: Bark was found to live up to \u2063600 mm\u2063/)
		]);
		// A cavity is carved out beside living bark: below the limit, and no cut into it.
		expect(stops('stem-carved', { heightMm: 500, count: 3 }, { ...found, limitSteady: true })).toEqual([]);
	});
	it('says so where the living shoots were not counted', () => {
		const ready = { ...no, livingLimitMm: 600, limitSteady: true };
		expect(stops('stem-sawn', { heightMm: 700, count: null }, ready)).toEqual([
			expect.stringMatching(/^mind: How many living shoots/)
		]);
	});
	it('the last stay under cover is known, over or not, so that its cold nights are none of the tree', () => {
		const stay = entry('night-moved', '2025-05-28', { untilOn: '2025-06-02' });
		const later = entry('night-moved', '2025-07-01', { untilOn: '2025-07-03' });
		expect(nightsUnderCover([stay, later], '2025-05-27')).toBeNull();
		expect(nightsUnderCover([stay, later], '2025-06-20')).toEqual({
			fromOn: '2025-05-28',
			untilOn: '2025-06-02'
		});
		expect(nightsUnderCover([stay, later], '2025-07-01')?.fromOn).toBe('2025-07-01');
		expect(nightsUnderCover([entry('turned', '2025-05-28')], '2025-06-20')).toBeNull();
		expect(nightsUnderCover([stay, entry('turned', '2025-06-10')], '2025-06-20')?.fromOn).toBe('2025-05-28');
	});
	it('some nights under cover are neither a cold night that befell it nor the end of its winter', () => {
		const moved = entry('night-moved', '2025-05-28', { untilOn: '2025-06-02' });
		expect(eventsTold(treeRecords({ book: [moved] }), '2025-06-01', values)).toEqual([]);
		expect(ruleDone(moved)).toBeNull();
		expect(ruleDone(entry('turned', '2025-05-28'))).toBe('turning');
		expect(ruleDone(entry('crown-cut', '2025-05-28', { share: 0.1, choice: 'dead' }))).toBeNull();
		expect(ruleDone(entry('crown-cut', '2025-05-28', { share: 0.1, choice: 'living' }))).toBe('crown');
	});
	it('and stops beside the only living shoot', () => {
		const ready = { ...no, livingLimitMm: 600, limitSteady: true };
		expect(stops('stem-sawn', { heightMm: 700, count: 1 }, ready)).toEqual([
			expect.stringMatching(/^stop: It has one living shoot/)
		]);
		expect(stops('stem-sawn', { heightMm: 700, count: 2 }, ready)).toEqual([]);
	});
	it('food, weed preventers, lime and sulphur are judged by what was done before', () => {
		expect(stops('fed', {}, { ...no, feedingWaits: true })[0]).toMatch(/^stop: Feeding still waits/);
		expect(stops('fed', {})).toEqual([]);
		expect(stops('weed-preventer', {}, { ...no, rootsCutOn: '2026-02-01' })[0]).toMatch(
			/^mind: Roots were cut on 2026-02-01/
		);
		expect(stops('weed-preventer', {}, { ...no, rootsCutOn: '2025-02-01' })).toEqual([]);
		const lime = entry('top-dressed', '2026-02-01', { choice: 'lime' });
		expect(stops('top-dressed', { choice: 'sulphur' }, no, [lime])[0]).toMatch(/Lime was laid on 2026-02-01/);
		expect(stops('top-dressed', { choice: 'lime' }, no, [lime])).toEqual([]);
		expect(stops('top-dressed', { choice: 'sulphur' }, no, [{ ...lime, on: '2025-02-01' }])).toEqual([]);
		expect(stops('crown-cut', { share: values['crown.takeMost'] + 0.01, choice: 'living' })[0]).toMatch(
			/^stop: /
		);
		expect(stops('crown-cut', { share: values['crown.takeMost'] + 0.01, choice: 'dead' })).toEqual([]);
	});
});
