import { normaliseDeg } from '$core/maths/circular';
import { clockTyped, rootEdited, startDepthMm } from '$core/roots/map/root-edit';
import { parseQuickRoot } from '$core/roots/io/quick-entry';
import { segmentFromQuick, segmentSchema, type Segment } from '$core/roots/map/root-map';
import { defaultValues as values } from '$core/values/values';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';

const root = (line: string, id: string, change: Partial<Segment> = {}): Segment => {
	const entry = parseQuickRoot(line, 'container', 80, values);
	if (!entry.ok) throw new Error(entry.problem);
	return segmentSchema.parse({
		...segmentFromQuick(entry.root, { trunkDiameterMm: 80, ballRadiusMm: 180 }, id),
		...change
	});
};
const map = (...segments: Segment[]) => ({ segments, frame: 'container' as const, trunkDiameterMm: 80 });
/** The form as it stands before anything is typed, in the texts of its fields. */
const asIs = (segment: Segment): Record<string, unknown> => ({
	clock: clockTyped(segment, 'container'),
	diameterStartMm: String(segment.diameterStartMm),
	depthMm: String(startDepthMm(segment)),
	rootClass: segment.rootClass,
	condition: segment.condition,
	fineScore: String(segment.fineScore),
	seenToMm: segment.seenToMm === null ? '' : String(segment.seenToMm),
	parentId: segment.parentId ?? '',
	attachMm: segment.parentId === null ? '' : String(segment.attachMm),
	flaws: segment.flaws,
	seenOtherwise: segment.seenOtherwise,
	note: segment.note,
	...(segment.condition === 'dead' && { deadFromMm: String(segment.deadFromMm ?? 0) }),
	...(segment.condition !== 'sound' && {
		doubtfulFromMm: segment.doubtfulFromMm === null ? '' : String(segment.doubtfulFromMm)
	})
});
const kept = (segment: Segment, change: object, ...others: Segment[]): Segment => {
	const edited = rootEdited(segment, map(segment, ...others), { ...asIs(segment), ...change });
	if (!edited.ok) throw new Error(JSON.stringify(edited.problems));
	return edited.segment;
};
const refused = (segment: Segment, change: object, ...others: Segment[]) => {
	const edited = rootEdited(segment, map(segment, ...others), { ...asIs(segment), ...change });
	return edited.ok ? [] : edited.problems.map((problem) => problem.field);
};

describe('a root of the map, changed field by field', () => {
	const one = root('4:30 20 scaffold', 'a');

	it('that was opened and kept is the same root, wherever it stands', () => {
		fc.assert(
			fc.property(fc.double({ min: -170, max: 530, noNaN: true }), (deg) => {
				const azimuthDeg = deg + 0;
				const turned = {
					...one,
					course: one.course.map((point, i) => (i === 0 ? { ...point, azimuthDeg } : point))
				};
				expect(kept(turned, {})).toEqual(turned);
			})
		);
		const dead = root('8 20', 'b', { condition: 'dead', deadFromMm: 60, doubtfulFromMm: 20, seenToMm: 90 });
		expect(kept(dead, {})).toEqual(dead);
	});
	it('turns and sinks whole, and is thinner all along', () => {
		const moved = kept(one, { clock: '6:30', depthMm: '25', diameterStartMm: '10' });
		expect(clockTyped(moved, 'container')).toBe('6:30');
		moved.course.forEach((point, i) => {
			const was = one.course[i];
			expect(normaliseDeg(point.azimuthDeg - (was?.azimuthDeg ?? 0))).toBeCloseTo(60, 9);
			expect(point.depthMm - (was?.depthMm ?? 0)).toBeCloseTo(25 - startDepthMm(one), 9);
			expect(point.radiusMm).toBe(was?.radiusMm);
		});
		expect(moved.diameterEndMm).toBeCloseTo(one.diameterEndMm / 2, 9);
	});
	it('stays on its dial when it goes over the top', () => {
		const before = root('7 20', 'c');
		// A course that runs a good way round, kept near the end of its dial.
		const circling = {
			...before,
			course: before.course.map((point, i) => ({ ...point, azimuthDeg: 420 + i * 60 }))
		};
		for (const clock of ['5:30', '12', '0:15', '6:45', '12:59']) {
			const { course } = kept(circling, { clock });
			const turned = course.map((point, i) => point.azimuthDeg - (circling.course[i]?.azimuthDeg ?? 0));
			for (const turn of turned) expect(turn).toBeCloseTo(turned[0] ?? NaN, 9);
			for (const { azimuthDeg } of course) expect(azimuthDeg >= -180 && azimuthDeg <= 540).toBe(true);
		}
	});
	it('what was guessed of it and is typed otherwise is known; the rest stays a guess', () => {
		const guess = { ...one, guessed: ['class', 'depth', 'length'] as Segment['guessed'] };
		expect(kept(guess, {}).guessed).toEqual(['class', 'depth', 'length']);
		expect(kept(guess, { rootClass: 'anchor' }).guessed).toEqual(['depth', 'length']);
		expect(kept(guess, { depthMm: String(startDepthMm(guess) + 5) }).guessed).toEqual(['class', 'length']);
	});
	it('is sound, doubtful or dead as the one schema of a root has it', () => {
		expect(kept(one, { condition: 'dead' })).toMatchObject({ deadFromMm: 0, doubtfulFromMm: null });
		expect(kept(one, { condition: 'dead', deadFromMm: '40', doubtfulFromMm: '10' })).toMatchObject({
			deadFromMm: 40,
			doubtfulFromMm: 10
		});
		const dead = root('8 20', 'b', { condition: 'dead', deadFromMm: 60, doubtfulFromMm: 20 });
		expect(kept(dead, { condition: 'sound' })).toMatchObject({ deadFromMm: null, doubtfulFromMm: null });
		expect(refused(one, { condition: 'dead', deadFromMm: '10', doubtfulFromMm: '40' })).toEqual([
			'doubtfulFromMm'
		]);
		expect(refused(one, { flaws: ['rotten'] })).toEqual(['condition']);
		expect(kept(one, { flaws: ['rotten'], condition: 'dead' }).flaws).toEqual(['rotten']);
	});
	it('leaves another root only at a place along it, and never what hangs on it', () => {
		const side = root('9 8', 'side', { parentId: 'a', attachMm: 30 });
		expect(kept(side, { parentId: '', attachMm: '' }, one)).toMatchObject({ parentId: null, attachMm: 0 });
		expect(refused(one, { parentId: 'other' })).toEqual(['attachMm']);
		expect(refused(one, { parentId: 'side', attachMm: '10' }, side)).toEqual(['parentId']);
	});
	it.each([
		['clock', 'a'],
		['clock', '13:00'],
		['clock', '4:75'],
		['diameterStartMm', ''],
		['diameterStartMm', 'thick'],
		['diameterStartMm', '81'],
		['depthMm', '5001'],
		['depthMm', ''],
		['seenToMm', 'half'],
		['attachMm', '-1'],
		['fineScore', '4'],
		['rootClass', 'big'],
		['note', 'x'.repeat(401)]
	])('%s typed as “%s” is refused by its name', (field, text) => {
		expect(refused(one, { [field]: text })).toEqual([field]);
	});
	it('a root of another root may be thicker than the trunk was measured', () => {
		expect(refused(one, { diameterStartMm: '80' })).toEqual([]);
		expect(
			refused(root('9 8', 'side', { parentId: 'a', attachMm: 30 }), { diameterStartMm: '90' }, one)
		).toEqual([]);
	});
});
