import { describe, expect, it } from 'vitest';
import { consentSchema, type Consent } from '$core/roots/plan/plan';
import { ownersRoots } from '$core/roots/plan/consent';
import { proposalFor } from '$core/roots/plan/proposal';
import { planInput } from '$core/roots/plan/plan';
import { rootMapInput, type Segment } from '$core/roots/map/root-map';
import { isStructural } from '$core/roots/map/shares';
import { cutStops, isThroughStem } from '$core/roots/plan/work-stops';
import { defaultValues as values } from '$core/values/values';
import type { Permission } from '$core/vocabulary/words';
import { RootsState } from '$views/roots/roots-state.svelte';
import { cut, freshRoots, treeRecords } from '../records';

const records = treeRecords();
const [place] = records.places;
const { rootMap } = records;
if (!place || !rootMap) throw new Error('a place and a map');
const anchor = rootMap.segments.find((segment) => segment.rootClass === 'anchor');
if (!anchor) throw new Error('an anchor');
const consent = (answer: 'yes' | 'no'): Consent =>
	consentSchema.parse({ segmentId: anchor.id, answer, on: '2026-04-01', how: 'by letter' });

const stops = (
	segment: Segment,
	{
		consents = [],
		permission = 'own',
		frame = 'ground',
		atMm = 400
	}: { consents?: Consent[]; permission?: Permission; frame?: 'ground' | 'container'; atMm?: number } = {}
) =>
	cutStops(
		{
			stage: { loss: 0.1, allowed: 0.3 },
			seasonFit: 'in-window',
			nightC: null,
			coldLimitC: 0,
			cuts: [{ cut: { atMm }, segment }],
			map: { ...rootMap, frame },
			windows: [],
			consents,
			permission
		},
		values
	).filter((stop) => stop.kind === 'owner' || stop.kind === 'one-way');

describe('the word of the owner', () => {
	it('is asked for each structural root of a tree that is not one’s own', () => {
		expect(stops(anchor)).toEqual([]);
		expect(stops(anchor, { permission: 'written' })).toEqual([
			{ kind: 'owner', why: 'The owner was not asked about 1 root of these.' }
		]);
		expect(stops(anchor, { permission: 'written', consents: [consent('yes')] })).toEqual([]);
		expect(stops(anchor, { permission: 'written', consents: [consent('no')] })[0]?.why).toBe(
			'The owner said no to 1 root of these.'
		);
		expect(stops(anchor, { permission: 'written', frame: 'container' })).toEqual([]);
		const thin = { ...anchor, rootClass: 'feeder' as const, diameterStartMm: 24.9 };
		expect(stops(thin, { permission: 'written' })).toEqual([]);
		expect(stops({ ...thin, diameterStartMm: 25 }, { permission: 'written' })).toHaveLength(1);
	});
	it('stands in the letter while the cut is planned, and a no stays after it', () => {
		const map = { ...rootMap, frame: 'ground' as const };
		const asked = (cuts: ReturnType<typeof cut>[], consents: Consent[], permission: Permission = 'written') =>
			ownersRoots(map, { cuts, consents }, { permission }, values).map(({ segment, consent: said }) => [
				segment.id,
				said?.answer ?? null
			]);
		expect(asked([cut(anchor.id, 0)], [])).toEqual([[anchor.id, null]]);
		expect(asked([cut(anchor.id, 0)], [], 'own')).toEqual([]);
		expect(asked([cut(anchor.id, 0, null, 'left')], [])).toEqual([]);
		expect(asked([], [consent('no')])).toEqual([[anchor.id, 'no']]);
		// Cut it is not asked about any more; what was answered stands.
		const gone = cut(anchor.id, 0, '2026-03-20');
		expect(asked([gone], [])).toEqual([]);
		expect(asked([gone], [consent('yes')])).toEqual([[anchor.id, 'yes']]);
	});
	it('a no locks the root and takes its planned cut off; taken back, it frees it', () => {
		const { id: _m, version: _v, ...map } = rootMap;
		const roots = new RootsState({
			...freshRoots,
			kind: records.kind,
			permission: 'written',
			rootMap: { ...map, id: 'm', version: 1, frame: 'ground' },
			plan: {
				...planInput.parse({
					temper: 'usual',
					vigour: 'fair',
					reserves: 'field-grown',
					stageDates: ['2026-02-10'],
					cuts: [cut(anchor.id, 0)]
				}),
				id: 'q',
				version: 1
			}
		});
		const said = { on: '2026-02-10', how: 'on the spot' };
		roots.answer(anchor.id, { answer: 'yes', ...said });
		expect(roots.plan.cuts).toHaveLength(1);
		expect(roots.plan.consents).toEqual([{ segmentId: anchor.id, answer: 'yes', ...said }]);
		roots.answer(anchor.id, { answer: 'no', ...said });
		expect(roots.plan.cuts).toEqual([]);
		expect(roots.map.segments.find((one) => one.id === anchor.id)?.keep).toBe(true);
		roots.answer(anchor.id, null);
		expect(roots.plan.consents).toEqual([]);
		expect(roots.map.segments.find((one) => one.id === anchor.id)?.keep).toBe(false);
		roots.answer(anchor.id, { answer: 'no', ...said });
		roots.remove(anchor.id);
		expect(roots.plan.consents).toEqual([]);
	});
});

describe('a cut through the stem', () => {
	const stub: Segment = { ...anchor, flaws: ['descending'], diameterStartMm: 0.5 * rootMap.trunkDiameterMm };
	it('is a gate: straight down, half as thick as the trunk, at its base', () => {
		expect(isThroughStem(stub, 0, rootMap.trunkDiameterMm, values)).toBe(true);
		expect(isThroughStem(stub, stub.diameterStartMm, rootMap.trunkDiameterMm, values)).toBe(true);
		expect(isThroughStem(stub, stub.diameterStartMm + 1, rootMap.trunkDiameterMm, values)).toBe(false);
		expect(
			isThroughStem(
				{ ...stub, diameterStartMm: stub.diameterStartMm - 1 },
				0,
				rootMap.trunkDiameterMm,
				values
			)
		).toBe(false);
		expect(isThroughStem({ ...stub, flaws: [] }, 0, rootMap.trunkDiameterMm, values)).toBe(false);
		expect(isThroughStem({ ...stub, parentId: 'r1' }, 0, rootMap.trunkDiameterMm, values)).toBe(false);
		expect(stops(stub, { atMm: 0 })).toEqual([
			expect.objectContaining({ kind: 'one-way', why: expect.stringContaining('40 mm') as string })
		]);
	});
});

describe('an open referral', () => {
	it('keeps structural roots out of every proposal, wished for or not', () => {
		const { id: _id, version: _version, ...drawn } = rootMap;
		const map = rootMapInput.parse(drawn);
		const plan = planInput.parse({
			temper: 'usual',
			vigour: 'fair',
			reserves: 'field-grown',
			stageDates: ['2025-02-10'],
			cuts: [{ ...cut(anchor.id, 0), byOwner: true }]
		});
		const ask = (held: boolean) =>
			proposalFor(
				{ tree: records.tree, kind: records.kind, place, today: '2025-02-10', held },
				map,
				plan,
				'usual',
				values
			).question;
		expect(ask(false).wanted.map((one) => one.segmentId)).toEqual([anchor.id]);
		expect(ask(true).wanted).toEqual([]);
		for (const segment of ask(true).map.segments) expect(segment.keep).toBe(isStructural(segment));
		expect(ask(false).map.segments.some((segment) => segment.keep)).toBe(false);
		// A root that was cut already is not kept by it: what was done stays counted.
		const after = proposalFor(
			{ tree: records.tree, kind: records.kind, place, today: '2025-02-11', held: true },
			map,
			{ ...plan, cuts: [{ ...cut(anchor.id, 0, '2025-02-10'), byOwner: true }] },
			'usual',
			values
		).question;
		expect(after.map.segments.find((segment) => segment.id === anchor.id)?.keep).toBe(false);
	});
});
