import { nextOf } from '$core/tree/next';
import { describe, expect, it } from 'vitest';
import { addDays } from '$core/maths/calendar';
import { releaseFacts, stillWaitedFor } from '$core/tree/gate';
import type { CheckFirst, OpenCauses, Urgent } from '$core/tree/urgent';
import { taskSchema } from '$core/vocabulary/task';
import { bookDetails, bookEntrySchema, type BookEntry, type BookKind } from '$core/aftercare/book/book';
import type { TreeRecords } from '$core/tree/case';
import { cut, treeRecords as records } from '../records';
import { liftSchema } from '$core/replant/lifting/lift';
import { emptyRoute } from '$core/replant/lifting/route';
import { smellSince } from '$core/tree/kept';
import { standingOf } from '$core/tree/standing';
import { lineOfCare, standingSentence, workLabel } from '$core/tree/line-of-care';
import { pictureSchema } from '$core/take-in/picture';
import { examinationSchema } from '$core/examine/diagnosis/examination';
import { observationSchema } from '$core/examine/looks/observation';
import type { Cut } from '$core/roots/plan/plan';
import { lastRootWork, rootLosses } from '$core/tree/losses';
import { defaultValues } from '$core/values/values';

const today = '2026-04-18';
const look = (observedOn: string, leafCover: number | null) =>
	observationSchema.parse({ id: `o-${observedOn}`, version: 1, observedOn, leafCover, note: 'seen' });
const task = (id: string, fromOn: string, toOn: string, state = 'open') =>
	taskSchema.parse({
		id,
		version: 1,
		kind: 'look',
		title: `Look ${id}`,
		fromOn,
		toOn,
		state,
		closedOn: null,
		skipReason: ''
	});

describe('what a look may still answer', () => {
	it('is what open work waits for, until it was seen since the work', () => {
		const release = { condition: 'buds-move', value: 0, byOn: '2026-05-11', after: '' };
		const turn = { ...task('turn', '2026-03-30', '2026-04-20'), source: 'turn@2026-03-02', release };
		const asked = (change: Partial<TreeRecords>) =>
			stillWaitedFor(records({ tasks: [taskSchema.parse(turn)], ...change }), today, defaultValues);
		const seen = (on: string) => ({ ...look(on, null), buds: 'open' as const });
		expect(asked({})).toEqual(['buds-move']);
		expect(asked({ observations: [seen('2026-04-10')] })).toEqual([]);
		// Buds of before the work release nothing; what is closed asks for nothing.
		expect(asked({ observations: [seen('2026-03-01')] })).toEqual(['buds-move']);
		expect(asked({ tasks: [taskSchema.parse({ ...turn, state: 'done', closedOn: '2026-04-01' })] })).toEqual(
			[]
		);
		// A flush that hardened too late to be fed was seen all the same.
		const feed = {
			...task('feed', '2026-06-20', '2026-07-18'),
			kind: 'feeding',
			source: 'feeding@2026-03-02',
			release: { condition: 'flush-hardened', value: 0, byOn: '2026-08-15', after: '' }
		};
		const inAutumn = (shoots: string[]) =>
			stillWaitedFor(
				records({
					tasks: [taskSchema.parse(feed)],
					observations: shoots.map((on) => ({ ...look(on, null), shootExtensionMm: 90 }))
				}),
				'2026-10-20',
				defaultValues
			);
		expect(inAutumn(['2026-08-20', '2026-10-01'])).toEqual([]);
		expect(inAutumn(['2026-08-20'])).toEqual(['flush-hardened']);
		// By its last day nobody saw them: it is asked still.
		expect(stillWaitedFor(records({ tasks: [taskSchema.parse(turn)] }), '2026-05-12', defaultValues)).toEqual(
			['buds-move']
		);
	});
});

describe('losses of roots, from the records', () => {
	it('puts what was found dead on the day of mapping, what was cut on its day, what is planned on its stage', () => {
		const { found, done, planned } = rootLosses(
			records({}, [cut('r4', 0, '2025-02-10'), cut('r3', 1)]),
			defaultValues
		);
		expect(found).toHaveLength(1);
		// Five living roots of 30 mm and one dead of 20 mm, alike in fine roots: 400 of 4900.
		expect(found[0]).toEqual({ on: '2025-02-03', share: expect.closeTo(400 / 4900, 9) });
		expect(done).toMatchObject([{ on: '2025-02-10', by: 'cut', share: expect.closeTo(0.2, 9) }]);
		expect(planned).toEqual([{ on: '2026-11-10', share: expect.closeTo(0.2, 9) }]);
	});
	it('adds up cuts of one day, and leaves out what was left', () => {
		const { done } = rootLosses(
			records({}, [cut('r4', 0, '2025-02-10'), cut('r3', 0, '2025-02-10'), cut('r2', 0, null, 'left')]),
			defaultValues
		);
		expect(done).toMatchObject([{ on: '2025-02-10', by: 'cut', share: expect.closeTo(0.4, 9) }]);
		// Counted on the map: no band.
		expect(done[0]?.low).toBe(done[0]?.high);
	});
	it('tells aftercare what the last day of cutting was: rot, structure, the next stage', () => {
		const last = lastRootWork(
			records({}, [cut('r5', 0, '2025-02-10'), cut('r4', 0, '2025-02-10'), cut('r3', 1)]),
			defaultValues
		);
		expect(last).toEqual({
			on: '2025-02-10',
			by: 'cut',
			livingLoss: expect.closeTo(0.2, 9),
			ofBall: expect.closeTo(0.2, 9),
			rotWasCut: false,
			structuralCut: true,
			nextStageOn: '2026-11-10'
		});
		expect(lastRootWork(records({}, [cut('r3', 1)]), defaultValues)).toBeNull();
		expect(lastRootWork(records({ rootMap: null, plan: null }), defaultValues)).toBeNull();
	});
});

describe('the line of care', () => {
	const line = (change: Partial<TreeRecords> = {}, cuts: Cut[] = []) =>
		lineOfCare(records(change, cuts), today, defaultValues);
	const kindsOf = (care: ReturnType<typeof line>) => care.marks.map((mark) => mark.kind);

	it('draws everything that the records hold, in order of their days', () => {
		const care = line(
			{
				observations: [look('2025-06-01', 0.8), look('2025-07-01', null)],
				tasks: [task('a', '2026-05-01', '2026-05-10'), task('b', '2026-03-01', '2026-03-05', 'done')]
			},
			[cut('r4', 0, '2025-02-10'), cut('r3', 1)]
		);
		expect(kindsOf(care)).toEqual([
			'taken-in',
			'examined',
			'stage-done',
			'look',
			'look',
			'due',
			'stage-planned'
		]);
		expect(care.marks.find((mark) => mark.kind === 'stage-done')?.label).toBe('20 % cut');
		expect(care.marks.find((mark) => mark.kind === 'stage-planned')?.label).toBe('stage II');
		expect(care.leafCover).toEqual([{ on: '2025-06-01', value: 0.8 }]);
	});
	it('shows what the field book holds of its time here, and nothing of the time before', () => {
		const entry = (kind: BookKind, on: string): BookEntry =>
			bookEntrySchema.parse({
				id: `${kind}-${on}`,
				version: 1,
				kind,
				on,
				details: bookDetails.parse(bookFilled[kind])
			});
		const bookFilled: Partial<Record<BookKind, object>> = {
			'mower-scar': {},
			'shoots-of-year': { lengthMm: 100 },
			'crown-burnt': { share: 0.1, choice: 'sun' },
			bought: { choice: 'sun' }
		};
		const care = line({
			book: [
				entry('shoots-of-year', '2024-10-01'),
				entry('bought', '2025-02-01'),
				entry('mower-scar', '2025-02-01'),
				entry('crown-burnt', '2025-06-01')
			]
		});
		const told = care.marks.filter((mark) => mark.kind === 'look').map((mark) => [mark.on, mark.label]);
		expect(told).toEqual([
			['2025-02-01', 'wound from a mower, strimmer or car'],
			['2025-06-01', 'part of the crown burnt or broken']
		]);
	});

	it('frames pictures above it, one frame a day with what was taken', () => {
		const picture = (id: string, takenOn: string, view: string) =>
			pictureSchema.parse({
				id,
				version: 1,
				takenOn,
				view,
				note: '',
				hash: 'a'.repeat(64),
				widthPx: 400,
				heightPx: 300,
				greenness: null
			});
		const { marks } = line({
			pictures: [
				picture('p1', '2025-05-02', 'front'),
				picture('p2', '2025-05-02', 'collar'),
				picture('p3', '2025-06-02', 'leaf')
			]
		});
		expect(marks.filter((mark) => mark.kind === 'picture')).toEqual([
			{ on: '2025-05-02', kind: 'picture', label: 'pictures: front, collar', stage: 'recovery' },
			{ on: '2025-06-02', kind: 'picture', label: 'picture: leaf', stage: 'recovery' }
		]);
	});
	it('covers all of its marks, past and to come, with growing seasons in it', () => {
		const care = line({}, [cut('r3', 1)]);
		for (const mark of care.marks) expect(mark.on >= care.span.from && mark.on <= care.span.to).toBe(true);
		expect(care.seasons.length).toBeGreaterThanOrEqual(2);
		for (const season of care.seasons)
			expect(season.to >= care.span.from && season.from <= care.span.to).toBe(true);
	});
	it('expects root function from what was found and cut; nothing cut and nothing dead, nothing drawn', () => {
		const care = line({}, [cut('r4', 0, '2025-02-10')]);
		expect(care.expected[0]?.expected).toBeCloseTo(1 - 400 / 4900, 6);
		const atCut = care.expected.find((point) => point.on >= '2025-02-10');
		expect(atCut?.expected).toBeCloseTo((1 - 400 / 4900) * 0.8, 2);
		expect(line({ rootMap: null, plan: null }).expected).toEqual([]);
	});
	it('forgets a planned stage whose day is past when it looks ahead', () => {
		const missed = line({}, [cut('r3', 0)]);
		expect(missed.expected.every((point) => point.expected > 0.9)).toBe(true);
		expect(kindsOf(missed)).toContain('stage-planned');
	});
	it('ends with the verdict when the case is closed', () => {
		// Work that was open on that day is due no more.
		const closed = records({ tasks: [task('turn', '2026-04-28', '2026-05-10')] });
		expect(kindsOf(lineOfCare(closed, today, defaultValues))).toContain('due');
		const care = lineOfCare(
			{ ...closed, tree: { ...closed.tree, state: 're-established', closedOn: '2026-03-01' } },
			today,
			defaultValues
		);
		expect(care.marks.at(-1)).toMatchObject({ kind: 'verdict', on: '2026-03-01', label: 're-established' });
		expect(kindsOf(care)).not.toContain('due');
	});
	it('never spans more than eight years', () => {
		const care = line({ tasks: [task('far', '2090-01-01', '2090-02-01')] });
		expect(Number(care.span.to.slice(0, 4)) - Number(care.span.from.slice(0, 4))).toBeLessThanOrEqual(8);
	});
	it('names a day on which only dead root was cut as that', () => {
		expect(workLabel({ by: 'cut', share: 0 })).toBe('dead root cut');
		expect(workLabel({ by: 'cut', share: 0.314 })).toBe('31 % cut');
		expect(workLabel({ by: 'lift', share: 0.93 })).toBe('lifted, 7 % of its roots came along');
		expect(workLabel({ by: 'lift', share: 0.997 })).toContain('under 1 %');
	});
});

describe('how a tree stands', () => {
	/** Looked at lately, so that a look is not what comes next. */
	const seen = (change: Partial<TreeRecords> = {}, cuts: Cut[] = []) =>
		records({ observations: [look('2026-04-01', null)], ...change }, cuts);
	const sentence = (
		of: ReturnType<typeof seen>,
		urgent: Urgent | null = null,
		check: CheckFirst | null = null,
		waits: OpenCauses['waits'] = null
	) =>
		standingSentence(
			of,
			today,
			{
				facts: releaseFacts(of, [], null, defaultValues),
				urgent,
				check,
				waits,
				standing: standingOf(of, today, defaultValues)
			},
			defaultValues
		);
	it('says what presses before what is planned, and never what waits for the tree', () => {
		const waits = {
			...task('half-off', '2026-05-01', '2026-05-02'),
			release: { condition: 'buds-move' as const, value: 0, byOn: '2099-01-01', after: '' }
		};
		const of = seen({ tasks: [waits, task('soon', '2026-05-10', '2026-05-12')] });
		expect(sentence(of).next).toBe('Look soon');
		// What waits for its window stands in the row of days.
		const bound = (windowOn: string) =>
			sentence(of, null, null, {
				subject: 'Pot-bound roots are',
				chance: 0.99,
				on: today,
				windowOn,
				stage: 'replant',
				meaning: ''
			}).next;
		expect([bound('2026-05-12'), bound('2026-05-13')]).toEqual([
			'Pot-bound roots are likely (99 %): the window for the work opens on 2026-05-12',
			'Look soon'
		]);
		const potting = { on: '2026-06-01', what: 'Potting', stage: 'replant', undated: false } as const;
		const waitsToo = { subject: 'Pot-bound roots are', chance: 0.99, windowOn: '2026-05-01' };
		const stands = { out: null, smell: null, pottedOn: null, urgent: null, check: null, firmness: null };
		const first = { ...task('soon', '2026-05-10', '2026-05-12') };
		expect(
			nextOf(
				[first],
				{ ...stands, planned: potting, waits: waitsToo },
				today,
				releaseFacts(of, [], null, defaultValues),
				today,
				defaultValues
			)?.what
		).toBe('Look soon');
		const urgent: Urgent = {
			conditionId: 'root-rot',
			subject: 'Root rot is',
			chance: 0.64,
			on: today,
			atRoots: true,
			stage: 'roots',
			water: 'less',
			pot: 'smaller',
			meaning: '',
			untilOn: '2099-01-01'
		};
		expect(sentence(of, urgent).next).toBe('Root rot is likely (64 %): act now');
		const check: CheckFirst = {
			subject: 'Girdling roots are',
			chance: 0.83,
			on: today,
			check: { signId: 'girdler-seen', label: 'Roots lie against the trunk', how: '', minutes: 1 }
		};
		expect(sentence(of, urgent, check).next).toBe('Root rot is likely (64 %): act now');
		expect(sentence(of, null, check).next).toBe(
			'Girdling roots are likely (83 %); check first: roots lie against the trunk'
		);
		expect(sentence(of, null, { ...check, check: null }).next).toBe(
			'Girdling roots are likely (83 %); look anew, with what was seen since'
		);
	});
	it('says what is planned where no task comes before it, and first of all that it is out of the ground', () => {
		const planned = (change: Partial<TreeRecords>, cuts: Cut[] = []) => sentence(seen(change, cuts)).next;
		const lateTask = task('soon', '2025-01-10', '2025-01-12');
		expect(planned({}, [cut('r4', 0)])).toBe('Cut one root, stage I for 2025-02-10');
		expect(planned({ tasks: [lateTask] }, [cut('r4', 0)])).toBe('Look soon');
		const later = task('later', '2025-02-20', '2025-03-12');
		expect(planned({ tasks: [later] }, [cut('r4', 0)])).toBe('Cut one root, stage I for 2025-02-10');
		const lift = (after: string) =>
			liftSchema.parse({
				id: 'l',
				version: 1,
				plannedOn: '2026-03-05',
				school: 'field',
				reading: 'across',
				ballDiameterMm: 400,
				ballDepthMm: 300,
				route: emptyRoute,
				ticks: [],
				log: { liftedOn: '2026-03-05', ballDiameterMm: 400, ballDepthMm: 300, after }
			});
		const base = seen();
		const tree = { ...base.tree, situation: 'just-lifted' as const };
		expect(planned({ tree, lifts: [lift('wrapped')], tasks: [lateTask] })).toBe(
			'Out of the ground since 2026-03-05: set it or heel it in'
		);
		expect(planned({ tree, lifts: [lift('heeled-in')] })).toMatch(/^Heeled in since 2026-03-05/);
		// Roots in the air die by the hour, heeled in they live: what presses comes after the one and before the other.
		const rot: Urgent = {
			conditionId: 'root-rot',
			subject: 'Root rot is',
			chance: 0.64,
			on: '2026-03-05',
			atRoots: true,
			stage: 'roots',
			water: 'less',
			pot: 'smaller',
			meaning: '',
			untilOn: '2099-01-01'
		};
		const pressed = (after: string) => sentence(seen({ tree, lifts: [lift(after)] }), rot).next;
		expect(pressed('wrapped')).toMatch(/^Out of the ground/);
		expect(pressed('out')).toMatch(/^Out of the ground/);
		expect(pressed('heeled-in')).toMatch(/^Root rot is likely/);
		expect(
			planned({ observations: [{ ...look('2026-04-01', null), firmness: 'moves' }], tasks: [lateTask] })
		).toBe('It rocks a little: hold it firm');
		expect(
			planned({ observations: [{ ...look('2026-04-01', null), firmness: 'loose' }], tasks: [lateTask] })
		).toBe('It moves at the base: hold it firm');
	});
	it('a bad smell since it was set and worked on leads until it is old; one of before is of what was taken away', () => {
		const smelt = (on: string, smell = 'sour') =>
			seen({
				observations: [observationSchema.parse({ id: 'o', version: 1, observedOn: on, smell })],
				tasks: [task('soon', '2026-05-10', '2026-05-12')]
			});
		expect(sentence(smelt('2026-04-10')).next).toMatch(/^Its (pot|soil) smells sour: let air in/);
		expect(sentence(smelt('2026-04-10', 'none')).next).toBe('Look soon');
		expect(sentence(smelt('2026-03-01')).next).toBe('Look soon');
		const { smell, stands } = standingOf(smelt('2026-04-10'), today, defaultValues);
		expect(smellSince({ smell, stands }, '2026-04-09')).toEqual({ value: 'sour', on: '2026-04-10' });
		expect(smellSince({ smell, stands }, '2026-04-10')).toBeNull();
		const planted = (on: string) => ({ smell, stands: { ...stands, by: 'planted', on } });
		expect(smellSince(planted('2026-04-10'), null)).toBeNull();
		expect(smellSince(planted('2026-04-09'), null)).not.toBeNull();
		// What it smelt of on the day it came is of the pot it stands in.
		expect(
			smellSince({ smell, stands: { ...stands, by: 'taking in', on: '2026-04-10' } }, null)
		).not.toBeNull();
	});
	it('what belonged to the days of the work leads no more when they are long over', () => {
		const shelter = { ...task('on', '2025-03-01', '2025-03-03'), source: 'shelter-on@2025-03-01' };
		expect(sentence(seen({ tasks: [shelter, task('soon', '2026-05-10', '2026-05-12')] })).next).toBe(
			'Look soon'
		);
		expect(sentence(seen({ tasks: [shelter] })).next).toMatch(/set the next look/);
	});
	it('asks for a look where nobody has looked for long, unless its work is of these days, or is late and cannot wait', () => {
		const most = defaultValues['look.overdueDays'];
		const next = (unseen: number, change: Partial<TreeRecords> = {}) => {
			const on = addDays(today, -unseen);
			const base = records();
			return [
				{ ...base, ...change, observations: [look(on, null)] },
				{
					...base,
					...change,
					examinations: [examinationSchema.parse({ id: 'e', version: 1, examinedOn: on, findings: [] })]
				},
				{ ...base, ...change, examinations: [], tree: { ...base.tree, takenInOn: on } }
			].map((of) => sentence(of).next);
		};
		const all = (what: string) => [what, what, what];
		expect(next(most)).toEqual(all(`Unseen for ${most} days: look at it`));
		expect(next(most - 1)).toEqual(all('Nothing is planned: set the next look.'));
		// A task of the day, of no work or of work of before.
		const soon = task('soon', '2026-04-10', '2026-05-12');
		expect(next(most, { tasks: [soon] })[0]).toMatch(/^Unseen/);
		const after = (days: number) => ({ tasks: [{ ...soon, source: `turning@${addDays(today, -days)}` }] });
		expect(next(most, after(most - 1))).toEqual(all('Look soon'));
		expect(next(most, after(most))[0]).toMatch(/^Unseen/);
		expect(next(most + 40, after(most))[0]).toMatch(/^Unseen/);
		const late = (kind: 'cold' | 'turning') => ({
			tasks: [{ ...task('late', '2026-04-01', addDays(today, -1)), kind }]
		});
		expect(next(most, late('cold'))).toEqual(all('Look late'));
		expect(next(most, late('turning'))[0]).toMatch(/^Unseen/);
		const lateToday = { tasks: [{ ...task('late', '2026-04-01', today), kind: 'cold' as const }] };
		expect(next(most, lateToday)[0]).toMatch(/^Unseen/);
	});
	it('says the time in care and what closes first', () => {
		const standing = sentence(
			seen({
				tasks: [task('late', '2026-05-01', '2026-06-01'), task('soon', '2026-05-10', '2026-05-12')]
			})
		);
		expect(standing).toEqual({ stands: '14 months in care.', next: 'Look soon' });
		expect(sentence(seen()).next).toMatch(/set the next look/);
	});
	it.each([
		['dead', /^Lost after 13 months/],
		['re-established', /^Re-established after/],
		['gone', /^Gone to another home/]
	] as const)('says how a case ended: %s', (state, words) => {
		const base = seen();
		expect(sentence({ ...base, tree: { ...base.tree, state, closedOn: '2026-03-01' } }).stands).toMatch(
			words
		);
	});
});
