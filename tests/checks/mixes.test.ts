import { roundPot } from '$core/replant/pots/volume';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { componentIds, components } from '$core/replant/mixes/components';
import { componentLitres, mixes, mixOf, type MixId } from '$core/replant/mixes/mixes';
import { reachMix } from '$core/replant/mixes/reach';
import {
	capillaryRiseMm,
	mixBody,
	mixParts,
	vanGenuchten,
	waterAndAir,
	waterAt
} from '$core/replant/mixes/retention';
import { defaultValues } from '$core/values/values';

const none = { coarseLayerMm: 0, coarsePoreMm: 3 };
const of = (...parts: [keyof typeof components, number][]) =>
	mixBody(
		parts.map(([componentId, amount]) => ({ componentId, parts: amount })),
		defaultValues
	);

describe('water held at a suction', () => {
	/** Carsel & Parrish 1988, Water Resour. Res. 24: mean parameters (from memory); results recomputed. */
	const sand = { residual: 0.045, saturated: 0.43, alphaPerCm: 0.145, n: 2.68 };
	const loam = { residual: 0.078, saturated: 0.43, alphaPerCm: 0.036, n: 1.56 };
	const clay = { residual: 0.068, saturated: 0.38, alphaPerCm: 0.008, n: 1.09 };
	it.each([
		[sand, 10, 0.214],
		[sand, 100, 0.049],
		[loam, 100, 0.242],
		[loam, 330, 0.165],
		[loam, 15_000, 0.088],
		[clay, 330, 0.347]
	])('follows van Genuchten 1980 for %o at %i cm: %f', (soil, cm, expected) => {
		expect(vanGenuchten(soil, cm)).toBeCloseTo(expected, 3);
	});
	it.each([
		[0.5, 59],
		[1, 30],
		[2, 15]
	])('rises in a pore of %f mm by %i mm (4 γ / ρ g d)', (pore, rise) => {
		expect(Math.round(capillaryRiseMm(pore))).toBe(rise);
	});
});

describe('water and air in a pot', () => {
	it('container capacity agrees with an independent integration (Riemann sum of 100,000 steps, straight sides)', () => {
		const body = of(['compost', 1], ['grit-fine', 1]);
		const { containerCapacity } = waterAndAir(body, { depthMm: 200 }, none, 200);
		let sum = 0;
		for (let i = 0; i < 100_000; i++) sum += waterAt(body, ((i + 0.5) / 100_000) * 200);
		expect(containerCapacity).toBeCloseTo(sum / 100_000, 4);
	});
	it('of coarse grains that drain at once is what they hold inside, of a sponge all of its pores', () => {
		const open = waterAndAir(of(['grit-coarse', 1]), { depthMm: 300 }, none, 300);
		expect(open.containerCapacity).toBeLessThan(0.06);
		expect(waterAt(of(['peat', 1]), 0)).toBeCloseTo(of(['peat', 1]).porosity, 9);
	});
	it('a shallower pot of the same mix is wetter', () => {
		const body = of(['pumice-fine', 2], ['compost', 1]);
		fc.assert(
			fc.property(fc.integer({ min: 30, max: 400 }), fc.integer({ min: 10, max: 300 }), (depth, more) => {
				const at = (mm: number) => waterAndAir(body, { depthMm: mm }, none, mm).containerCapacity;
				expect(at(depth + more)).toBeLessThan(at(depth));
			})
		);
	});
	it('a coarse layer does not drain the mix above: over the same rooting depth it holds nearly what a shallower pot holds', () => {
		const body = of(['compost', 1], ['grit-fine', 1]);
		const with50 = waterAndAir(body, { depthMm: 250 }, { coarseLayerMm: 50, coarsePoreMm: 4 }, 250);
		const shallow = waterAndAir(body, { depthMm: 200 }, none, 200);
		const whole = waterAndAir(body, { depthMm: 250 }, none, 250);
		expect(with50.containerCapacity).toBeGreaterThan(whole.containerCapacity);
		expect(Math.abs(with50.containerCapacity - shallow.containerCapacity)).toBeLessThan(0.03);
	});
	it('water, air and grains make the whole, at every depth and together', () => {
		const pot = roundPot(300, 240, 250);
		for (const id of Object.keys(mixes) as MixId[]) {
			const body = mixBody(mixes[id].parts, defaultValues);
			const result = waterAndAir(body, pot, none, 230);
			for (const point of result.byDepth) {
				expect(point.water + point.air).toBeCloseTo(body.porosity, 9);
				expect(point.air).toBeGreaterThanOrEqual(-1e-9);
			}
			expect(result.waterL + result.airL).toBeCloseTo(result.mixL * body.porosity, 6);
			expect(body.porosity).toBeGreaterThan(0.3);
			expect(body.porosity).toBeLessThan(1);
		}
	});
});

describe('mixes', () => {
	it('knows at least twenty components, each with pores that fit in it and sizes in order', () => {
		expect(componentIds.length).toBeGreaterThanOrEqual(20);
		for (const id of componentIds) {
			const { between, inside, fineMm, coarseMm, dryKgL } = components[id];
			expect(between + inside, id).toBeLessThan(1);
			expect(fineMm, id).toBeLessThan(coarseMm);
			expect(dryKgL, id).toBeGreaterThan(0);
		}
	});
	it('more of the coarse of one stuff never holds more water at the same depth', () => {
		fc.assert(
			fc.property(
				fc.integer({ min: 0, max: 10 }),
				fc.integer({ min: 0, max: 10 }),
				fc.integer({ min: 20, max: 400 }),
				(a, b, suctionMm) => {
					const [less, more] = [Math.min(a, b), Math.max(a, b)];
					const grit = (coarse: number) => of(['grit-coarse', coarse], ['sand-coarse', 10 - coarse]);
					// Of the water between the grains, as a share of the pores that hold it.
					const share = (coarse: number) => {
						const body = grit(coarse);
						return (waterAt(body, suctionMm) - body.inside) / body.between;
					};
					expect(share(more)).toBeLessThanOrEqual(share(less) + 1e-9);
				}
			)
		);
	});
	it('fines slip between coarse grains: the mix is less than its parts, and never less than its coarsest', () => {
		expect(of(['grit-coarse', 1], ['sand-fine', 1]).yield).toBeLessThan(0.85);
		expect(of(['pumice-coarse', 1]).yield).toBeCloseTo(1, 9);
		fc.assert(
			fc.property(fc.integer({ min: 1, max: 9 }), (sand) => {
				const body = of(['grit-coarse', 10 - sand], ['sand-fine', sand]);
				expect(body.yield).toBeGreaterThanOrEqual((10 - sand) / 10 - 1e-9);
				expect(body.yield).toBeLessThanOrEqual(1 + 1e-9);
			})
		);
		const litres = componentLitres(mixOf('compost-grit').parts, 10, defaultValues);
		expect(litres.reduce((sum, part) => sum + part.litres, 0)).toBeGreaterThanOrEqual(10);
	});
	it('refuses parts that sum to zero', () => {
		expect(() => of(['perlite', 0])).toThrow(/more than nothing/);
		expect(mixParts.safeParse([{ componentId: 'perlite', parts: 0 }]).error?.issues[0]?.message).toMatch(
			/more than nothing/
		);
		expect(mixParts.safeParse([{ componentId: 'perlite', parts: -1 }]).success).toBe(false);
	});
});

describe('reaching a wanted mix from what is at hand', () => {
	const wish = { airFrom: 0.2, airTo: 0.35, waterFrom: 0, waterTo: 1 };
	const pot = { depthMm: 150 };
	const reach = (
		stock: (keyof typeof components)[],
		begin: { componentId: keyof typeof components; parts: number }[] = []
	) => reachMix(stock, wish, { pot, layer: none, fillMm: 150 }, defaultValues, { begin });
	it('meets the wish where it can be met, and changes no more than it must', () => {
		const begin = [{ componentId: 'compost' as const, parts: 1 }];
		const [best] = reach(['compost', 'pumice-coarse'], begin);
		expect(best?.miss).toBe(0);
		expect(best?.airSpace).toBeGreaterThanOrEqual(0.2);
		// One tenth less of what is new would not do.
		const parts = best?.parts ?? [];
		const coarse = parts.find((part) => part.componentId === 'pumice-coarse')?.parts ?? 0;
		const less = mixBody(
			[
				{ componentId: 'compost', parts: 11 - coarse },
				{ componentId: 'pumice-coarse', parts: coarse - 1 }
			],
			defaultValues
		);
		expect(waterAndAir(less, pot, none, 150).airSpace).toBeLessThan(0.2);
	});
	it('uses nothing that is not in stock, and says how far the nearest misses', () => {
		const [best] = reach(['sand-fine']);
		expect(best?.parts).toEqual([{ componentId: 'sand-fine', parts: 10 }]);
		expect(best?.miss).toBeGreaterThan(0.05);
	});
	it('agrees with trying every mix by hand', () => {
		const stock = ['perlite', 'loam', 'coir'] as const;
		const [best] = reach([...stock]);
		let least = Infinity;
		for (let a = 0; a <= 10; a++)
			for (let b = 0; a + b <= 10; b++) {
				const body = of(['perlite', a], ['loam', b], ['coir', 10 - a - b]);
				const { airSpace } = waterAndAir(body, pot, none, 150);
				least = Math.min(least, Math.max(0, 0.2 - airSpace, airSpace - 0.35));
			}
		expect(best?.miss).toBeCloseTo(least, 3);
	});
});
