import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { componentLitres, mixIds, mixOf, usualMix } from '$core/replant/mixes/mixes';
import { groups } from '$core/vocabulary/kind';
import { layerAmounts, sizeAdvice, unrootedShare } from '$core/replant/pots/replant-plan';
import { potVolumeL, type Pot, roundPot } from '$core/replant/pots/volume';
import { defaultValues } from '$core/values/values';

const round = (top: number, heightMm: number): Pot => roundPot(top, top * 0.8, heightMm);

describe('layers in a pot', () => {
	it('always add up to the fill, and none is negative', () => {
		fc.assert(
			fc.property(
				fc.integer({ min: 100, max: 900 }),
				fc.integer({ min: 60, max: 500 }),
				fc.integer({ min: 20, max: 900 }),
				fc.integer({ min: 10, max: 500 }),
				fc.integer({ min: 0, max: 80 }),
				fc.integer({ min: 0, max: 40 }),
				fc.integer({ min: 0, max: 50 }),
				(top, heightMm, ballDiameterMm, ballDepthMm, coarseLayerMm, topLayerMm, headspaceMm) => {
					const pot = round(top, heightMm);
					const parts = layerAmounts(
						{ pot, ballDiameterMm, ballDepthMm, coarseLayerMm, topLayerMm, headspaceMm },
						defaultValues
					);
					const fillL = potVolumeL(pot, 0, Math.max(0, heightMm - headspaceMm));
					expect(parts.coarseL + parts.mainL + parts.topL + parts.ballL).toBeCloseTo(fillL, 6);
					for (const part of [parts.coarseL, parts.mainL, parts.topL, parts.ballL])
						expect(part).toBeGreaterThanOrEqual(-1e-9);
					expect(unrootedShare(parts)).toBeGreaterThanOrEqual(0);
				}
			)
		);
	});
	it('says when the headspace leaves no room', () => {
		const none = layerAmounts(
			{
				pot: round(200, 50),
				ballDiameterMm: 40,
				ballDepthMm: 20,
				coarseLayerMm: 0,
				topLayerMm: 0,
				headspaceMm: 60
			},
			defaultValues
		);
		expect(none.problems[0]).toMatch(/no room/);
	});
});

describe('size of the pot', () => {
	/** Common practice, no source: 50 mm wider; packed 75–100 mm; after rot the pot follows the roots. */
	it('follows the trade’s rules', () => {
		expect(sizeAdvice(200, 0.1, { rot: false, packed: false }, defaultValues)).toMatchObject({
			rule: 'normal',
			widthMm: 250
		});
		expect(sizeAdvice(200, 0, { rot: false, packed: true }, defaultValues)).toMatchObject({
			rule: 'packed',
			widthMm: 290
		});
		expect(sizeAdvice(200, 0, { rot: true, packed: true }, defaultValues)).toMatchObject({
			rule: 'after-rot',
			widthMm: 230
		});
		expect(sizeAdvice(200, 0.45, { rot: false, packed: false }, defaultValues).reason).toMatch(/45 %/);
	});
});

describe('mixes', () => {
	it('split into components by parts', () => {
		for (const id of mixIds) {
			const parts = componentLitres(mixOf(id).parts, 12, defaultValues);
			// Fines slip between coarse grains: never less is poured than the mix that is wanted.
			expect(parts.reduce((sum, part) => sum + part.litres, 0)).toBeGreaterThanOrEqual(12 - 1e-9);
		}
		expect(componentLitres(mixOf('pumice-bark').parts, 8, defaultValues)[0]?.litres).toBeCloseTo(6, 9);
	});
	it('after rot is one that stays airy, for every group that has one', () => {
		for (const group of groups) expect(mixOf(usualMix(group, true)).afterRot, group).toBe(true);
		expect(mixOf(usualMix('ericaceous', false)).groups).toContain('ericaceous');
	});
});
