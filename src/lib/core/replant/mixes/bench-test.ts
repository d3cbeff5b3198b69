import { wordsOf } from '../../vocabulary/words-of';
import { z } from 'zod';
import { calendarDate, measure, note, oneOf, share, shortText } from '../../vocabulary/fields';
import type { Values } from '../../values/values';
import { mixBody, mixParts, waterAndAir, type MixBody } from './retention';

/** What was measured of a mix; it takes the place of what its grains would tell. */
const measuredMix = z
	.strictObject({
		measuredOn: calendarDate(),
		how: oneOf(['volumes', 'weighings']),
		depthMm: measure(20, 2000, 'mm').describe('Depth of the mix in the test pot'),
		porosity: share().describe('Pores, share of the volume of the mix'),
		containerCapacity: share().describe('Water held once drained, share of the volume'),
		dryKgL: measure(0.01, 3, 'kg/L').nullable().default(null)
	})
	.refine((test) => test.containerCapacity <= test.porosity, {
		path: ['containerCapacity'],
		error: 'must not be more than the pores can hold; check the volumes'
	});
export type MeasuredMix = z.infer<typeof measuredMix>;

/** A mix as it is used: a name, its parts, and what was measured of it. */
export const pottingMix = z.strictObject({
	name: shortText(80),
	parts: mixParts,
	measured: measuredMix.nullable().default(null)
});
export type PottingMix = z.infer<typeof pottingMix>;

/** True when two mixes are made of the same parts in the same proportions, whatever they are called. */
export function sameMix(a: Pick<PottingMix, 'parts'>, b: Pick<PottingMix, 'parts'>): boolean {
	const shares = ({ parts }: Pick<PottingMix, 'parts'>): Map<string, number> => {
		const total = parts.reduce((sum, part) => sum + part.parts, 0);
		const byId = new Map<string, number>();
		for (const part of parts)
			if (part.parts > 0) byId.set(part.componentId, (byId.get(part.componentId) ?? 0) + part.parts / total);
		return byId;
	};
	const [left, right] = [shares(a), shares(b)];
	return (
		left.size === right.size && [...left].every(([id, part]) => Math.abs((right.get(id) ?? -1) - part) < 1e-6)
	);
}

const litres = () => measure(0.01, 500, 'L');
const kilograms = () => measure(0.005, 1000, 'kg');

/**
 * Bench test with a measuring jug: a pot with closed holes filled with dry mix, water poured until it stands level with the
 * mix, then the holes opened and what runs out caught.
 */
export const benchTestInput = z
	.strictObject({ fillL: litres(), takenUpL: litres(), drainedL: measure(0, 500, 'L') })
	.refine((test) => test.takenUpL <= test.fillL, {
		path: ['takenUpL'],
		error: 'must not be more than the mix itself; check the volume of the fill'
	})
	.refine((test) => test.drainedL <= test.takenUpL, {
		path: ['drainedL'],
		error: 'must not be more than was poured in'
	});

/** Two weighings of the mix alone: drained, and dried through; a third while full of water gives the pores too. */
export const weighTestInput = z
	.strictObject({
		fillL: litres(),
		dryKg: kilograms(),
		drainedKg: kilograms(),
		fullKg: kilograms().nullable().default(null)
	})
	.refine((test) => test.drainedKg > test.dryKg, {
		path: ['drainedKg'],
		error: 'must be heavier than the dry mix'
	})
	.refine((test) => test.fullKg === null || test.fullKg >= test.drainedKg, {
		path: ['fullKg'],
		error: 'must not be lighter than the drained mix'
	});

export const mixTestOutput = z.object({
	porosity: z.number(),
	containerCapacity: z.number(),
	airSpace: z.number(),
	dryKgL: z.number().nullable()
});
export type TestResult = z.infer<typeof mixTestOutput>;

/**
 * Air space is what ran out over the volume of the mix; what stayed is container capacity.
 * @example 10 L took up 7 L, 2.5 L ran out: air 0.25, water 0.45, pores 0.7
 */
export function benchTest({ fillL, takenUpL, drainedL }: z.infer<typeof benchTestInput>): TestResult {
	return {
		porosity: takenUpL / fillL,
		containerCapacity: (takenUpL - drainedL) / fillL,
		airSpace: drainedL / fillL,
		dryKgL: null
	};
}

/**
 * Water held is the difference of drained and dry; a kilogram is a litre. Without the weight full of water the pores are
 * those worked out from the parts, but never less than the water found.
 * @param modelPorosity pores from the parts, share
 */
export function weighTest(
	{ fillL, dryKg, drainedKg, fullKg }: z.infer<typeof weighTestInput>,
	modelPorosity: number
): TestResult {
	const containerCapacity = Math.min(1, (drainedKg - dryKg) / fillL);
	const porosity = Math.min(
		1,
		Math.max(containerCapacity, fullKg === null ? modelPorosity : (fullKg - dryKg) / fillL)
	);
	return { porosity, containerCapacity, airSpace: porosity - containerCapacity, dryKgL: dryKg / fillL };
}

/**
 * A mix whose pores and water at the tested depth are those that were measured, so that other depths follow from it: the
 * pores inside the grains stay as worked out unless more water would follow than was found, and the size of the pores between
 * them is set so that the mean over the tested depth is the water that was found.
 */
export function calibrated(body: MixBody, measured: MeasuredMix, values: Values): MixBody {
	const inside = Math.min(body.inside, measured.containerCapacity * values['mix.insideMost']);
	const with_ = (poreMm: number): MixBody => ({
		...body,
		porosity: measured.porosity,
		inside,
		between: measured.porosity - inside,
		poreMm,
		dryKgL: measured.dryKgL ?? body.dryKgL
	});
	const held = (poreMm: number): number =>
		waterAndAir(
			with_(poreMm),
			{ depthMm: measured.depthMm },
			{ coarseLayerMm: 0, coarsePoreMm: 1 },
			measured.depthMm
		).containerCapacity;
	let [fine, coarse] = [Math.log(0.005), Math.log(50_000)];
	for (let i = 0; i < 60; i++) {
		const middle = (fine + coarse) / 2;
		// Wider pores hold less.
		if (held(Math.exp(middle)) > measured.containerCapacity) fine = middle;
		else coarse = middle;
	}
	return with_(Math.exp((fine + coarse) / 2));
}

/** The body of a mix: as measured where it was, else from its parts. @throws RangeError when the parts make nothing */
export function bodyOf({ parts, measured }: Pick<PottingMix, 'parts' | 'measured'>, values: Values): MixBody {
	const body = mixBody(parts, values);
	return measured ? calibrated(body, measured, values) : body;
}

/** Where the mix that goes in was before. */
export const mixHistoryNames = {
	new: 'new',
	healthy: 'reused, from a healthy tree',
	rot: 'reused, after rot',
	pests: 'reused, after pests',
	unknown: 'reused, from where is not known'
};
export type MixHistory = keyof typeof mixHistoryNames;
export const mixHistories = wordsOf(mixHistoryNames);

/** Old mix after rot, pests or of unknown history goes in only against a reason given [common practice, no source]. */
export const mixReuse = z
	.strictObject({ history: oneOf(mixHistories), because: note(300) })
	.refine((reuse) => reuse.history === 'new' || reuse.history === 'healthy' || reuse.because !== '', {
		path: ['because'],
		error: 'must say why old mix goes in after all; rot and pests travel in it'
	});
export type MixReuse = z.infer<typeof mixReuse>;
export const newMix: MixReuse = { history: 'new', because: '' };
