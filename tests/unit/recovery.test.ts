import { observationSchema } from '$core/examine/looks/observation';
import { createFormat } from '$core/text/format';
import { measuredOf, twinReadings } from '$views/recovery/measured';
import { describe, expect, it } from 'vitest';
import { observationInput, readingsOf, type Observation } from '$core/examine/looks/observation';
import { verdict, type VerdictInput } from '$core/recovery/verdict';
import { simulateLooks } from '$core/simulate/recovery';
import { addDays } from '$core/maths/calendar';
import { createRandom } from '$core/maths/random';
import { shippedKinds } from '$core/vocabulary/shipped';
import { defaultValues } from '$core/values/values';

let next = 0;
const look = (observedOn: string, measured: Record<string, unknown>): Observation => ({
	...observationInput.parse({ observedOn, ...measured }),
	id: `o${next++}`,
	version: 1
});
const input = (observations: Observation[], change: Partial<VerdictInput> = {}): VerdictInput => ({
	today: '2026-10-01',
	situation: 'potted',
	trunkDiameterMm: 60,
	sinceOn: '2025-03-01',
	observations,
	referenceShootMm: 300,
	rootFunction: null,
	openAlarms: 0,
	stagesLeft: 0,
	...change
});
const answers = (given: VerdictInput) =>
	Object.fromEntries(verdict(given, defaultValues).criteria.map((c) => [c.name, c.answer]));
const good = [
	look('2025-06-01', { diebackLimitMm: 900, shootExtensionMm: 120 }),
	look('2026-05-01', { diebackLimitMm: 900, firmness: 'moves', rootsAtEdge: false }),
	look('2026-09-01', {
		diebackLimitMm: 898,
		shootExtensionMm: 250,
		firmness: 'firm',
		rootsAtEdge: true,
		leafState: 'turgid'
	})
];

describe('the verdict', () => {
	it('what others have still to see vetoes it, whatever else holds', () => {
		const flagged = verdict(
			input(good, { flags: [{ title: 'A qualified arborist has to see it' }] }),
			defaultValues
		);
		expect(flagged.reEstablished).toBe(false);
		expect(flagged.criteria.find((one) => one.name === 'last-look')).toMatchObject({ answer: 'not-met' });
	});
	it('a cause that the last look says to act on is not well, and one that a check decides is not known', () => {
		const urgent = {
			subject: 'Girdling roots are',
			chance: 0.88,
			on: '2026-09-01',
			stage: 'roots',
			meaning: ''
		} as const;
		const check = {
			subject: 'Soil compaction is',
			chance: 0.74,
			on: '2026-09-01',
			check: { label: 'A rod stops short', how: '' }
		};
		const of = (causes: VerdictInput['causes']) => {
			const found = verdict(input(good, causes ? { causes } : {}), defaultValues);
			const last = found.criteria.find(({ name }) => name === 'last-look');
			return [last?.answer, last?.because, found.owed, found.reEstablished] as const;
		};
		expect(of({ urgent: null, check: null })).toEqual(of(undefined));
		expect(of(undefined)[0]).toBe('met');
		expect(of({ urgent, check })).toEqual([
			'not-met',
			'Girdling roots are likely (88 %) by the look of 2026-09-01, and nothing was done about it since.',
			[],
			false
		]);
		expect(of({ urgent: null, check })).toEqual([
			'unknown',
			'Soil compaction is likely (74 %) by the look of 2026-09-01; check first: a rod stops short.',
			['Check it: a rod stops short'],
			false
		]);
		expect(of({ urgent: null, check: null, waits: { ...urgent, windowOn: '2027-03-24' } })).toEqual([
			'not-met',
			'Girdling roots are likely (88 %) by the look of 2026-09-01; the work waits for its window on 2027-03-24.',
			[],
			false
		]);
		expect(of({ urgent: null, check: { ...check, check: null } })[2]).toEqual(['Look at it anew in Examine']);
	});
	it('work of which nobody said whether it was done is not known to be done', () => {
		const of = (change: Partial<VerdictInput>) => verdict(input(good, change), defaultValues);
		const one = of({ unanswered: 1 });
		expect(one.reEstablished).toBe(false);
		expect(one.criteria.find((each) => each.name === 'no-alarm')).toMatchObject({ answer: 'unknown' });
		expect(one.owed).toEqual([expect.stringMatching(/done, or skip it/)]);
		expect(
			of({ unanswered: 1, openAlarms: 1 }).criteria.find((each) => each.name === 'no-alarm')
		).toMatchObject({ answer: 'not-met' });
	});
	it('is re-established only when every criterion is met', () => {
		expect(verdict(input(good), defaultValues).reEstablished).toBe(true);
		for (const spoil of [
			{ openAlarms: 1 },
			{ stagesLeft: 1 },
			{ referenceShootMm: 400 },
			{ referenceShootMm: null }
		] as Partial<VerdictInput>[])
			expect(verdict(input(good, spoil), defaultValues).reEstablished).toBe(false);
	});
	it('speaks of work only where there was any', () => {
		const said = (worked: boolean) =>
			verdict(input([], { worked }), defaultValues)
				.criteria.map((one) => one.because)
				.join(' ');
		expect(said(true)).toMatch(/Nobody has looked since the work\./);
		expect(said(false)).toMatch(/Nobody has looked since it came\./);
		expect(said(false)).not.toMatch(/work/);
	});
	it('knows nothing from nothing', () => {
		expect(answers(input([]))).toEqual({
			'last-look': 'unknown',
			'no-dieback': 'unknown',
			function: 'unknown',
			'roots-at-edge': 'unknown',
			firm: 'unknown',
			'no-alarm': 'met',
			'no-stage-left': 'met'
		});
	});
	it('counts quiet time from the last fall of the living limit', () => {
		const falling = [...good, look('2026-09-20', { diebackLimitMm: 700 })];
		expect(answers(input(falling))['no-dieback']).toBe('not-met');
		expect(
			answers(
				input([look('2026-08-01', { diebackLimitMm: 900 }), look('2026-09-01', { diebackLimitMm: 900 })])
			)['no-dieback']
		).toBe('not-met');
	});
	it('a winter proves nothing: what is quiet is counted in growth, a short season whole', () => {
		const twice = (from: string, to: string) => [
			look(from, { diebackLimitMm: 900 }),
			look(to, { diebackLimitMm: 900 })
		];
		const seasons = [
			{ from: '2025-04-01', to: '2025-10-15' },
			{ from: '2026-04-01', to: '2026-10-15' }
		];
		const told = (from: string, to: string, of?: VerdictInput['seasons']) =>
			verdict(input(twice(from, to), { seasons: of }), defaultValues).criteria.find(
				(one) => one.name === 'no-dieback'
			);
		// 194 days apart, nearly all of them winter.
		expect(told('2025-10-01', '2026-04-13')?.answer).toBe('met');
		expect(told('2025-10-01', '2026-04-13', seasons)).toMatchObject({
			answer: 'not-met',
			because: 'No new dieback measured for 194 days, 26 of them in growth; 180 are wanted, 120 in growth.'
		});
		// Part of one season and part of the next are one.
		expect(told('2025-09-15', '2026-06-30', seasons)).toMatchObject({
			answer: 'met',
			because: 'No new dieback measured for 288 days, 120 of them in growth; 180 are wanted, 120 in growth.'
		});
		expect(told('2025-09-15', '2026-06-29', seasons)?.answer).toBe('not-met');
		// Growth alone is not enough.
		expect(told('2025-04-01', '2025-09-27', seasons)?.answer).toBe('not-met');
		expect(told('2025-04-01', '2025-09-28', seasons)?.answer).toBe('met');
		// Where the season is shorter than that, it is enough.
		const short = [
			{ from: '2025-05-20', to: '2025-09-10' },
			{ from: '2026-05-20', to: '2026-09-10' }
		];
		expect(told('2025-09-11', '2026-09-10', short)?.answer).toBe('met');
		expect(told('2025-09-11', '2026-09-09', short)?.because).toContain(
			'112 of them in growth; 180 are wanted, 113'
		);
	});
	it('what was seen last can veto, whatever held before', () => {
		for (const seen of [
			{ leafState: 'dropped', leafCover: 0 },
			{ leafState: 'wilted' },
			{ leafState: 'scorched' },
			{ leafCover: 0.2 },
			{ smell: 'sulphur' },
			{ smell: 'sour' },
			{ pests: 'many' },
			{ firmness: 'moves' },
			{ firmness: 'loose' },
			{ diebackLimitMm: 0 }
		] as const) {
			const found = verdict(input([...good, look('2026-09-29', seen)]), defaultValues);
			expect(found.criteria.find((one) => one.name === 'last-look')?.answer, JSON.stringify(seen)).toBe(
				'not-met'
			);
			expect(found.reEstablished).toBe(false);
		}
		// As much of the crown in leaf as is asked for, and no less, is well.
		const least = defaultValues['verdict.coverLeast'];
		const covered = (leafCover: number) =>
			answers(input([...good, look('2026-09-29', { leafCover })]))['last-look'];
		expect([covered(least), covered(least - 0.01)]).toEqual(['met', 'not-met']);
		// Leaves that fall in their autumn say nothing.
		const autumn = look('2026-09-29', { leafState: 'dropped', leafCover: 0 });
		expect(answers(input([...good, autumn], { leaflessOn: ['2026-09-29'] }))['last-look']).toBe('met');
		const said = (seen: Partial<Observation>) =>
			verdict(input([look('2026-09-29', { leafState: 'turgid', ...seen })]), defaultValues).criteria.find(
				({ name }) => name === 'last-look'
			)?.because;
		expect(said({})).toBe('Leaves were well on 2026-09-29. Nobody looked for pests.');
		expect(said({ smell: 'none' })).toBe(
			'Leaves and smell were well when last looked at, its leaves on 2026-09-29. Nobody looked for pests.'
		);
		expect(said({ smell: 'none', pests: 'some' })).toBe(
			'Leaves, smell and pests were well when last looked at, its leaves on 2026-09-29.'
		);
		// That it stands firm says nothing of how a leafless tree is; buds, wood, smell or pests do.
		const bare = (seen: Partial<Observation>) =>
			answers(input([look('2026-09-29', { firmness: 'firm', ...seen })], { leaflessOn: ['2026-09-29'] }))[
				'last-look'
			];
		expect(bare({})).toBe('unknown');
		for (const seen of [
			{ buds: 'swelling' },
			{ diebackLimitMm: 400 },
			{ smell: 'none' },
			{ pests: 'none' }
		] as const)
			expect(bare(seen), JSON.stringify(seen)).toBe('met');
		// In leaf since, it was not looked at: what was seen of it bare says nothing of its leaves.
		const since = (leaflessNow?: boolean) =>
			verdict(
				input([look('2026-09-29', { smell: 'none' })], { leaflessOn: ['2026-09-29'], leaflessNow }),
				defaultValues
			).criteria.find(({ name }) => name === 'last-look');
		expect(since(true)).toEqual(since());
		expect(since()?.because).toMatch(/it bore no leaves then/);
		expect(since(false)).toMatchObject({ answer: 'unknown' });
		expect(since(false)?.because).toMatch(/not looked at since they came/);
	});
	it('nobody is asked to weigh what grows in the ground, or is too heavy for a scale', () => {
		const owed = (situation: 'potted' | 'in-ground', tooHeavy = false) =>
			verdict(input([], { situation, tooHeavy }), defaultValues).owed;
		expect(owed('potted', true).join()).not.toMatch(/weigh/i);
		expect(owed('potted', true)).toContain('Measure its shoots, and those of a healthy one near by');
		expect(owed('potted').join()).toMatch(/Weigh it/);
		expect(owed('in-ground').join()).not.toMatch(/weigh/i);
		expect(owed('in-ground')).toContain('Measure its shoots, and those of a healthy one near by');
	});
	it('shoots that were measured are not asked for again where only the reference is wanting', () => {
		const owed = (change: Partial<VerdictInput>, shootOn = '2026-08-20') =>
			verdict(
				input([look(shootOn, { shootExtensionMm: 300 })], { situation: 'in-ground', ...change }),
				defaultValues
			).owed.filter((one) => /shoots/.test(one));
		const named = 'Measure the shoots of a healthy one near by, with the next look';
		expect(owed({ referenceShootMm: null })).toEqual([named]);
		expect(owed({ referenceShootMm: 0 })).toEqual([named]);
		expect(owed({ referenceShootMm: null, situation: 'potted', rootFunction: null })).toEqual([
			'Weigh it before and after water, or measure the shoots of a healthy one near by, with the next look'
		]);
		// Shoots of long ago are measured again, those of before the work count for nothing.
		const late = addDays('2026-08-20', defaultValues['verdict.shootDays']);
		expect(owed({ referenceShootMm: null, today: late })).toEqual([named]);
		expect(owed({ referenceShootMm: null, today: addDays(late, 1) })).toEqual([
			'Measure its shoots, and those of a healthy one near by'
		]);
		expect(owed({ referenceShootMm: null, sinceOn: '2026-08-21' })).toEqual([
			'Measure its shoots, and those of a healthy one near by'
		]);
	});
	it('roots that were too few by weighings of weeks ago are weighed again', () => {
		const today = '2026-09-01';
		const asked = (days: number, phi = 0.5) =>
			verdict(
				input([], {
					today,
					situation: 'potted',
					rootFunction: { phi, low: phi - 0.05, high: phi + 0.05 },
					weighedOn: addDays(today, -days)
				}),
				defaultValues
			).owed.some((one) => /^Weigh it/.test(one));
		const again = defaultValues['water.weighAgainDays'];
		expect(asked(again)).toBe(false);
		expect(asked(again + 1)).toBe(true);
		// Enough then is enough as long as it stands.
		expect(asked(again + 1, 0.95)).toBe(false);
	});
	it('what was seen long ago is not known now, and the look that is owed is named', () => {
		const years = verdict(input(good, { today: '2033-09-01' }), defaultValues);
		expect(years.reEstablished).toBe(false);
		for (const name of ['last-look', 'no-dieback', 'function', 'roots-at-edge', 'firm'])
			expect(years.criteria.find((one) => one.name === name)?.answer, name).toBe('unknown');
		expect(years.owed).toHaveLength(5);
		expect(years.criteria[0]?.because).toContain('7 years ago');
		expect(verdict(input(good), defaultValues).owed).toEqual([]);
		// Each ages by its own time; that it moved does not grow old.
		expect(answers(input(good, { today: '2027-03-01' }))).toMatchObject({
			'last-look': 'unknown',
			firm: 'met'
		});
		const loose = [...good, look('2026-09-02', { firmness: 'loose' })];
		expect(answers(input(loose, { today: '2033-09-01' })).firm).toBe('not-met');
		const weighed = { rootFunction: { phi: 0.9, low: 0.8, high: 1 }, referenceShootMm: null };
		expect(answers(input(good, { ...weighed, weighedOn: '2026-09-20' })).function).toBe('met');
		expect(answers(input(good, { ...weighed, weighedOn: '2025-11-01' })).function).toBe('unknown');
		// Weighings that leave the band as wide as it was are no evidence, for or against; one that lies whole above what is wanted is.
		const between = (low: number, high: number) =>
			answers(
				input(good, {
					...weighed,
					rootFunction: { phi: (low + high) / 2, low, high },
					weighedOn: '2026-09-20'
				})
			).function;
		expect(between(0.6, 1.2)).toBe('unknown');
		expect(between(0.3, 0.9)).toBe('unknown');
		expect(between(0.7, 1.1)).toBe('met');
		expect(between(0.3, 0.7)).toBe('not-met');
		expect(between(0.81, 1.5)).toBe('met');
	});
	it('asks for the shoots of the healthy tree that is named, never for a name again', () => {
		const of = (change: Partial<VerdictInput>, looks = good) => {
			const found = verdict(
				input(looks, { situation: 'in-ground', referenceShootMm: null, ...change }),
				defaultValues
			);
			return [
				found.criteria.find(({ name }) => name === 'function')?.because,
				found.owed.filter((text) => /shoots/.test(text))
			];
		};
		expect(of({})).toEqual([
			'No shoots of a healthy one are known to set them against.',
			['Measure the shoots of a healthy one near by, with the next look']
		]);
		expect(of({ referenceUnmeasured: 'KO-05' })).toEqual([
			'Nobody measured the shoots of KO-05, its healthy reference.',
			['Measure the shoots of KO-05']
		]);
		expect(of({ referenceUnmeasured: 'KO-05' }, [])[1]).toEqual(['Measure its shoots, and those of KO-05']);
		expect(of({}, [])[1]).toEqual(['Measure its shoots, and those of a healthy one near by']);
	});
	it('ignores looks from before the work', () => {
		expect(answers(input(good, { sinceOn: '2026-08-01' }))['no-dieback']).toBe('unknown');
	});
	it('what rocked and was held or set anew since is not known to stand firm, nor to be well, until it is tried', () => {
		const rocking = [...good, look('2026-09-25', { firmness: 'moves', leafState: 'turgid' })];
		const of = (change: Partial<VerdictInput>, looks = rocking) => {
			const found = verdict(input(looks, change), defaultValues);
			const [well, firm] = ['last-look', 'firm'].map((name) =>
				found.criteria.find((one) => one.name === name)
			);
			return { well, firm, owed: found.owed };
		};
		expect(of({})).toMatchObject({ well: { answer: 'not-met' }, firm: { answer: 'not-met' }, owed: [] });
		const setAnew =
			'It rocked a little on 2026-09-25; it was set anew on 2026-09-25, and nobody has tried it since.';
		expect(of({ setOn: '2026-09-25' })).toMatchObject({
			well: { answer: 'unknown', because: setAnew },
			firm: { answer: 'unknown', because: setAnew },
			owed: ['Push it gently: does it stand firm?']
		});
		expect(of({ heldOn: '2026-09-28' }).firm).toEqual({
			name: 'firm',
			label: 'Tree firm',
			answer: 'unknown',
			because:
				'It rocked a little on 2026-09-25; it has been held since 2026-09-28, and nobody has tried it since.'
		});
		// What it does besides is told first, and a look after it was set tells how it stands.
		const wilted = [...good, look('2026-09-25', { firmness: 'moves', leafState: 'wilted' })];
		expect(of({ setOn: '2026-09-26' }, wilted).well).toMatchObject({
			answer: 'not-met',
			because: 'Leaves wilted on 2026-09-25.'
		});
		const bare = of({ setOn: '2026-09-26' }, [look('2026-09-25', { firmness: 'moves' })]);
		expect(bare.well?.because).toBe('Its leaves were not looked at in their season.');
		expect(bare.owed).toContain('Look at leaves, smell and pests');
		expect(of({ setOn: '2026-09-24' }).firm?.answer).toBe('not-met');
	});
	it('a thin crown speaks against it only once leaves are usually out, and until they fall', () => {
		const thin = (leafCover: number, partlyOn: string[]) => {
			const looks = [...good, look('2026-09-20', { leafCover, leafState: 'turgid' })];
			return verdict(input(looks, { partlyOn }), defaultValues).criteria[0];
		};
		const least = defaultValues['verdict.coverLeast'];
		expect(thin(least - 0.01, [])).toMatchObject({ name: 'last-look', answer: 'not-met' });
		expect(thin(least - 0.01, ['2026-09-19'])?.answer).toBe('not-met');
		expect(thin(0.25, ['2026-09-20'])).toMatchObject({
			answer: 'unknown',
			because: 'Leaf cover 25 % on 2026-09-20, in the weeks in which leaves come or fall.'
		});
		// A full crown is well whenever it is seen.
		expect(thin(least, ['2026-09-20'])?.answer).toBe('met');
	});
	it('what stands firm in its ties is not known to stand by itself', () => {
		const firmOf = (
			tiedOn: string | null,
			looks = good,
			untilOn = '2026-01-01',
			offOn: string | null = null
		) => {
			const tied = tiedOn === null ? null : { on: tiedOn, untilOn, offOn };
			const { criteria, owed, reEstablished } = verdict(input(looks, { tied }), defaultValues);
			return { firm: criteria.find(({ name }) => name === 'firm'), owed, reEstablished };
		};
		const on = good.findLast((look) => look.firmness === 'firm')?.observedOn ?? '';
		expect(firmOf(null)).toMatchObject({ firm: { answer: 'met' }, owed: [], reEstablished: true });
		for (const tiedOn of [on, '2024-01-01'])
			expect(firmOf(tiedOn)).toMatchObject({
				firm: {
					answer: 'unknown',
					because: `It stood firm on ${on}, with what has held it since ${tiedOn}; whether it does by itself is not known.`
				},
				owed: ['Loosen what holds it, and push it gently: does it stand by itself?'],
				reEstablished: false
			});
		// Before its day nobody is sent to loosen it.
		const today = input(good).today;
		expect(firmOf(on, good, today).owed[0]).toMatch(/^Loosen/);
		expect(firmOf(on, good, addDays(today, 1)).owed).toEqual([
			`What holds it may come off from ${addDays(today, 1)} on: then try whether it stands by itself`
		]);
		// Taken off, it is tried anew; on that day or later it was.
		const off = (offOn: string) => firmOf('2024-01-01', good, '2026-01-01', offOn);
		expect(off(addDays(on, 1))).toMatchObject({
			firm: {
				answer: 'unknown',
				because: `It stood firm on ${on}, while it was held; that came off on ${addDays(on, 1)}, and nobody has tried it since.`
			},
			owed: ['Push it gently: does it stand firm?']
		});
		expect(off(on).firm?.answer).toBe('met');
		// It stood firm before anything held it; and what rocks in its ties rocks.
		expect(firmOf('2026-12-31').firm?.answer).toBe('met');
		expect(firmOf('2024-01-01', [...good, look('2026-09-25', { firmness: 'loose' })]).firm?.answer).toBe(
			'not-met'
		);
	});
	it('takes the last word on firmness and roots', () => {
		expect(
			answers(input([...good, look('2026-09-25', { firmness: 'loose', rootsAtEdge: false })]))
		).toMatchObject({ firm: 'not-met', 'roots-at-edge': 'not-met' });
	});
	/** Watson; Gilman, University of Florida (memory): about 6 months per inch of caliper in a temperate climate. */
	it('in the ground asks for the time served by the trunk', () => {
		const ground = { situation: 'in-ground', trunkDiameterMm: 254 } as const;
		expect(answers(input(good, ground))['roots-at-edge']).toBe('not-met');
		expect(answers(input(good, { ...ground, sinceOn: '2021-09-01' }))['roots-at-edge']).toBe('met');
		// 10 in × 6 months = 60; where it stood it serves the share of a dug tree's loss (our own): 0.18 ÷ 0.9 of them, 12.
		const served = (stoodLoss: number | null, months: number) =>
			verdict(
				input(good, { ...ground, stoodLoss, sinceOn: addDays('2026-10-01', -Math.round(months * 30.44)) }),
				defaultValues
			).criteria.find(({ name }) => name === 'roots-at-edge');
		expect(served(0.18, 12.1)).toMatchObject({
			answer: 'met',
			because: '12 of about 12 months, by its trunk and the 18 % of living root it lost.'
		});
		expect(served(0.18, 11.9)?.answer).toBe('not-met');
		expect(served(0.95, 59)?.answer).toBe('not-met');
		expect(served(0.95, 61)?.answer).toBe('met');
		expect(served(null, 12.1)).toMatchObject({
			answer: 'not-met',
			because: '12 of about 60 months, by its trunk.'
		});
		expect(served(0, 0)).toMatchObject({
			answer: 'met',
			because: 'It stands where it grew, and lost no root here.'
		});
	});
});

describe('a look', () => {
	it('is refused when nothing was measured or said, or what was is absurd', () => {
		const fault = (change: Record<string, unknown>) =>
			observationInput.safeParse({ observedOn: '2026-04-18', ...change }).error?.issues[0]?.message;
		expect(fault({})).toMatch(/nothing was measured/);
		expect(fault({ weightKg: -2 })).toMatch(/0.01 to 5000 kg/);
		expect(fault({ leafCover: 1.2 })).toMatch(/0 to 1/);
		expect(fault({ note: 'x', observedOn: '1800-01-01' })).toMatch(/1950-01-01 to 2100-12-31/);
		expect(fault({ note: 'x'.repeat(10_000) })).toMatch(/at most 4000/);
		expect(fault({ note: 'fine' })).toBeUndefined();
	});
	it('gives readings oldest first and skips what was not measured', () => {
		expect(readingsOf([good[2], good[0]] as Observation[], 'shootExtensionMm').map((r) => r.value)).toEqual([
			120, 250
		]);
	});
});

describe('the simulator', () => {
	const kind = shippedKinds.find((candidate) => candidate.id === 'carpinus');
	if (!kind) throw new Error('no hornbeam');
	const tree = {
		seed: 5,
		kind,
		place: { kind: 'open', latitudeDeg: 52, elevationM: 0, heldMinimumC: null },
		from: '2024-03-01',
		to: '2026-03-01',
		losses: [],
		fitness: 0.9,
		heightMm: 1500,
		fullWeightKg: 20,
		healthyShootMm: 300,
		everyDays: 25,
		diesOn: null
	} as const;
	it('repeats itself for a seed, and only for that seed', () => {
		expect(simulateLooks(tree, defaultValues)).toEqual(simulateLooks(tree, defaultValues));
		expect(simulateLooks({ ...tree, seed: 6 }, defaultValues)).not.toEqual(
			simulateLooks(tree, defaultValues)
		);
	});
	it('writes looks that a person could have written', () => {
		const looks = simulateLooks(tree, defaultValues);
		expect(looks.length).toBeGreaterThan(20);
		for (const made of looks) expect(observationInput.safeParse(made).success).toBe(true);
		const winter = looks.filter((made) => made.observedOn.slice(5, 7) === '01');
		expect(winter.every((made) => made.leafCover === null)).toBe(true);
	});
	it('ends in a dead tree when it dies', () => {
		const looks = simulateLooks({ ...tree, diesOn: '2025-07-01' }, defaultValues);
		expect(looks.at(-1)).toMatchObject({ leafCover: null, leafState: 'dropped' });
	});
	it('draws evenly', () => {
		const random = createRandom(1);
		const mean = Array.from({ length: 20_000 }, () => random.next()).reduce((a, b) => a + b, 0) / 20_000;
		expect(mean).toBeCloseTo(0.5, 2);
	});
});

describe('a twin on the charts', () => {
	const seen = (observedOn: string, measures: Record<string, unknown>) =>
		observationSchema.parse({ id: `o-${observedOn}`, version: 1, observedOn, note: 'seen', ...measures });
	const twin = {
		name: 'H-00 Hornbeam',
		observations: [
			seen('2024-06-01', { leafCover: 0.9, diebackLimitMm: 2000 }),
			seen('2025-06-01', { leafCover: 1, weightKg: 12, woundwoodMm: 4 })
		]
	};
	it('is drawn wherever it was measured in the time that is shown, and nowhere else', () => {
		expect(twinReadings(twin, 'leafCover', '2025-01-01')).toEqual({
			name: 'H-00 Hornbeam',
			readings: [{ on: '2025-06-01', value: 1 }]
		});
		expect(twinReadings(twin, 'woundwoodMm', '2025-01-01')?.readings).toHaveLength(1);
		expect(twinReadings(twin, 'diebackLimitMm', '2025-01-01')).toBeNull();
		expect(twinReadings(twin, 'diebackLimitMm', '2024-01-01')?.readings).toHaveLength(1);
		expect(twinReadings(twin, 'suckers', '2024-01-01')).toBeNull();
		expect(twinReadings(null, 'leafCover', '2024-01-01')).toBeNull();
	});
	it('has a weight that says nothing of another pot', () => {
		expect(twinReadings(twin, 'weightKg', '2024-01-01')).toBeNull();
	});
	it('everything that is charted is shown in the person’s units', () => {
		const shown = measuredOf(createFormat({ units: 'imperial', locale: 'en-GB' })).map((one) =>
			one.show(1000)
		);
		expect(shown).toEqual(['100,000 %', '39.37 in', '3.3 ft', '2,204.6 lb', '39.37 in', '1,000']);
	});
});
