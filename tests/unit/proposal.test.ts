import { describe, expect, it } from 'vitest';
import { consentSchema, planInput, tempers, type Cut, type PlanInput } from '$core/roots/plan/plan';
import { planFrom, proposalFor, type Proposal } from '$core/roots/plan/proposal';
import { reductionPlan } from '$core/roots/plan/reduction/reduction-plan';
import type { ReductionPlan } from '$core/roots/plan/reduction/question';
import { rootMapInput } from '$core/roots/map/root-map';
import { loadSolver } from '$core/roots/plan/solver';
import { defaultValues as values } from '$core/values/values';
import { cut, treeRecords } from '../records';

const records = treeRecords();
const [place] = records.places;
if (!place || !records.rootMap) throw new Error('a place and a map');
const subject = { tree: records.tree, kind: records.kind, place, today: '2025-02-20' };
const { id: _id, version: _version, ...drawn } = records.rootMap;
const map = rootMapInput.parse(drawn);
const planOf = (cuts: Cut[] = [], change: Partial<PlanInput> = {}): PlanInput =>
	planInput.parse({
		temper: 'usual',
		vigour: 'fair',
		reserves: 'field-grown',
		stageDates: ['2025-02-10', '2026-11-10'],
		cuts,
		...change
	});
const answered = async (proposal: Proposal): Promise<ReductionPlan> =>
	reductionPlan(proposal.question, await loadSolver(), values);
let made = 0;
const newId = (): string => `new-${made++}`;

describe('the question to the planner', () => {
	it('has an allowance for each of its stages, on days in order, the first of which stands', () => {
		for (const temper of tempers) {
			const { stageDates, question } = proposalFor(
				subject,
				map,
				planOf([cut('r4', 0, '2025-02-10')]),
				temper,
				values
			);
			expect(question.allowances).toHaveLength(stageDates.length);
			expect(stageDates[0]).toBe('2025-02-10');
			expect([...stageDates].sort()).toEqual(stageDates);
			// What lies ahead is not put before today.
			for (const on of stageDates.slice(1)) expect(on >= subject.today).toBe(true);
		}
	});

	it('a bolder temper never allows less', () => {
		const [gentle, usual, bold] = (['gentle', 'usual', 'bold'] as const).map(
			(temper) => proposalFor(subject, map, planOf(), temper, values).question.allowances
		);
		for (const [i, share] of (usual ?? []).entries()) {
			expect(share).toBeGreaterThanOrEqual(gentle?.[i] ?? 1);
			expect(share).toBeLessThanOrEqual(bold?.[i] ?? 0);
		}
	});

	it('tells done from wanted from proposed', () => {
		const mine = { ...cut('r3', 1), byOwner: true };
		const { question } = proposalFor(
			subject,
			map,
			planOf([cut('r4', 0, '2025-02-10'), mine, cut('r2', 1)]),
			'usual',
			values
		);
		expect(question.done.map((one) => one.segmentId)).toEqual(['r4']);
		expect(question.wanted.map((one) => one.segmentId)).toEqual(['r3']);
	});

	it('drops what was said of roots that are no longer on the map', () => {
		const { question } = proposalFor(
			subject,
			map,
			planOf([], {
				notBefore: [
					{ segmentId: 'r1', stage: 1 },
					{ segmentId: 'gone', stage: 1 }
				]
			}),
			'usual',
			values
		);
		expect(question.notBefore.map((entry) => entry.segmentId)).toEqual(['r1']);
	});
});

describe('why a root stays', () => {
	// r4 is a scaffold root: here it girdles, so that it would go.
	const girdled = rootMapInput.parse({
		...map,
		segments: map.segments.map((segment) =>
			segment.id === 'r4' ? { ...segment, flaws: ['girdling' as const] } : segment
		)
	});
	const why = async (held: boolean, plan: PlanInput, of = girdled) => {
		const answer = await answered(proposalFor({ ...subject, held }, of, plan, 'usual', values));
		return answer.left.find((one) => one.segmentId === 'r4')?.because ?? null;
	};
	const locked = rootMapInput.parse({
		...girdled,
		segments: girdled.segments.map((segment) => (segment.id === 'r4' ? { ...segment, keep: true } : segment))
	});
	it('is the true reason: an open referral, a no of the owner, or one’s own lock', async () => {
		const no = consentSchema.parse({ segmentId: 'r4', answer: 'no', on: '2025-02-11', how: 'by letter' });
		const yes = consentSchema.parse({ ...no, answer: 'yes' });
		expect(await why(false, planOf())).toMatch(/^anchorage at/);
		expect(await why(false, planOf(), locked)).toBe('you locked it to be kept');
		expect(await why(false, planOf([], { consents: [no] }), locked)).toBe('the owner said no to it');
		expect(await why(false, planOf([], { consents: [yes] }), locked)).toBe('you locked it to be kept');
		expect(await why(true, planOf())).toMatch(/^an arborist has to look/);
	});
	it('is the reason too why a dead root cannot go that would have to', async () => {
		const { unmet } = await answered(proposalFor({ ...subject, held: true }, map, planOf(), 'usual', values));
		expect(unmet).toEqual([expect.stringMatching(/^root 6: dead; an arborist has to look/)]);
	});
});

describe('a torn anchor', () => {
	it('stays, and its torn end is cut clean behind the tear', async () => {
		const torn = rootMapInput.parse({
			...map,
			segments: map.segments.map((segment) =>
				segment.id === 'r0' ? { ...segment, flaws: ['torn' as const] } : segment
			)
		});
		const { cuts, left } = await answered(proposalFor(subject, torn, planOf(), 'usual', values));
		const own = cuts.find((one) => one.segmentId === 'r0');
		expect(own?.atMm).toBeGreaterThan(0);
		expect(own?.reason).toBe('torn, clean behind the tear');
		expect(own?.livingShare).toBeLessThan(0.05);
		expect(left.some((one) => one.segmentId === 'r0')).toBe(false);
		// Any other anchor stays whole.
		const crowded = rootMapInput.parse({
			...torn,
			segments: torn.segments.map((segment) =>
				segment.id === 'r0' ? { ...segment, flaws: ['crossing' as const] } : segment
			)
		});
		const other = await answered(proposalFor(subject, crowded, planOf(), 'usual', values));
		expect(other.cuts.some((one) => one.segmentId === 'r0')).toBe(false);
		expect(other.left.find((one) => one.segmentId === 'r0')?.because).toMatch(/^anchors are kept/);
	});
});

describe('a plan with what the planner proposes', () => {
	it('is valid, keeps what was cut as it was, and never cuts a root twice', async () => {
		const done = { ...cut('r4', 0, '2025-02-10'), note: 'rot at the tip' };
		const before = planOf([done]);
		const proposal = proposalFor(subject, map, before, 'bold', values);
		const plan = planFrom(before, proposal, await answered(proposal), newId);
		expect(planInput.safeParse(plan).error).toBeUndefined();
		expect(plan.cuts[0]).toEqual(done);
		const cutRoots = plan.cuts.map((one) => one.segmentId);
		expect(new Set(cutRoots).size).toBe(cutRoots.length);
		expect(plan.temper).toBe('bold');
		expect(new Set(plan.cuts.map((one) => one.id)).size).toBe(plan.cuts.length);
	});

	it('takes dead root first of all, which costs no living root', async () => {
		const proposal = proposalFor(subject, map, planOf(), 'gentle', values);
		const plan = planFrom(planOf(), proposal, await answered(proposal), newId);
		expect(plan.cuts.some((one) => one.segmentId === 'r5' && one.stage === 0)).toBe(true);
	});

	it('a wish that would take the tree’s hold is not followed, and said to be unmet', async () => {
		const wish = { ...cut('r3', 0), byOwner: true };
		const proposal = proposalFor(subject, map, planOf([wish]), 'bold', values);
		const answer = await answered(proposal);
		expect(answer.unmet).toEqual(['root 4: what you want cut']);
		expect(answer.give.join(' ')).toMatch(/anchorage window at \d+° would fall to \d+ %/);
		expect(planFrom(planOf([wish]), proposal, answer, newId).cuts.map((one) => one.segmentId)).toEqual([
			'r5'
		]);
	});

	it('a cut set by hand keeps its identity, its note and its owner', async () => {
		const mine = { ...cut('r5', 0), byOwner: true, note: 'in the way of the front' };
		const before = planOf([mine]);
		const proposal = proposalFor(subject, map, before, 'bold', values);
		const plan = planFrom(before, proposal, await answered(proposal), newId);
		const kept = plan.cuts.find((one) => one.segmentId === 'r5');
		expect(kept).toMatchObject({
			id: 'c-r5',
			note: 'in the way of the front',
			byOwner: true,
			state: 'planned'
		});
		expect(plan.cuts.filter((one) => one.segmentId !== 'r5').every((one) => !one.byOwner)).toBe(true);
	});

	it('names no more stages than it uses', async () => {
		const proposal = proposalFor(subject, map, planOf(), 'usual', values);
		const plan = planFrom(planOf(), proposal, await answered(proposal), newId);
		const last = Math.max(0, ...plan.cuts.map((one) => one.stage));
		expect(plan.stageDates).toEqual(proposal.stageDates.slice(0, last + 1));
	});

	it('keeps no reason longer than a plan may hold', () => {
		const proposal = proposalFor(subject, map, planOf(), 'usual', values);
		const long = 'y'.repeat(900);
		const plan = planFrom(
			planOf(),
			proposal,
			{
				cuts: [{ segmentId: 'r1', atMm: 10, stage: 0, reason: long, whyThen: long }]
			} as unknown as ReductionPlan,
			newId
		);
		expect(planInput.safeParse(plan).error).toBeUndefined();
	});
});
