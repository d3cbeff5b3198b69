import { describe, expect, it } from 'vitest';
import { judgeCore, judgeDensity } from '$core/examine/soil/bulk-density';
import { infiltrationClass, infiltrationRate } from '$core/examine/soil/infiltration';
import { hardnessOf } from '$core/examine/soil/penetrometer';
import { textureByFeel } from '$core/examine/soil/texture';
import { textureClasses, textures, type Texture } from '$core/vocabulary/textures';
import { waterHeld } from '$core/examine/soil/water-held';
import { defaultValues, markOf } from '$core/values/values';

describe('water held by texture', () => {
	/** Saxton & Rawls 2006, Table 3, at 2.5 % organic matter, in whole percent by volume. */
	it.each([
		['sandy loam', 65, 10, 8, 18, 45],
		['loam', 40, 20, 14, 28, 46],
		['silt loam', 20, 15, 11, 31, 48],
		['clay loam', 30, 35, 22, 36, 48],
		['clay', 25, 50, 30, 42, 50]
	])('of %s is as in Table 3', (_, sand, clay, wilting, capacity, saturation) => {
		const held = waterHeld(sand, clay, 2.5);
		expect(Math.round(held.wilting * 100)).toBe(wilting);
		expect(Math.round(held.fieldCapacity * 100)).toBe(capacity);
		expect(Math.round(held.saturation * 100)).toBe(saturation);
	});
	it('is a number for every soil there is, sand alone and humus alone too', () => {
		for (let sand = 0; sand <= 100; sand += 5)
			for (let clay = 0; clay <= Math.min(60, 100 - sand); clay += 5)
				for (const organic of [0, 2.5, 8]) {
					const held = waterHeld(sand, clay, organic);
					expect(Object.values(held).every((value) => Number.isFinite(value))).toBe(true);
					expect(Math.min(held.wilting, held.conductivityMmPerH)).toBeGreaterThanOrEqual(0);
				}
		expect(waterHeld(100, 0, 0).wilting).toBe(0.01);
	});
	it('refuses what is no soil', () => {
		expect(() => waterHeld(60, 50, 2)).toThrow(RangeError);
		expect(() => waterHeld(20, 61, 2)).toThrow(RangeError);
		expect(() => waterHeld(20, 20, 9)).toThrow(RangeError);
		// Each bound by itself, and what lies on it is a soil.
		for (const [sand, clay, organic] of [
			[-1, 20, 2],
			[20, -1, 2],
			[20, 20, -1]
		] as const)
			expect(() => waterHeld(sand, clay, organic), `${sand} ${clay}`).toThrow(RangeError);
		for (const [sand, clay, organic] of [
			[0, 60, 0],
			[40, 60, 8],
			[100, 0, 0]
		] as const)
			expect(waterHeld(sand, clay, organic).saturation, `${sand} ${clay}`).toBeGreaterThan(0);
	});
	it('stands in the order wilting, field capacity, saturation for every class and any organic matter', () => {
		for (const texture of textures)
			for (const organic of [0, 2.5, 8]) {
				const { sandPercent, clayPercent } = textureClasses[texture];
				const held = waterHeld(sandPercent, clayPercent, organic);
				expect(held.wilting, texture).toBeGreaterThan(0);
				expect(held.fieldCapacity, texture).toBeGreaterThan(held.wilting);
				expect(held.saturation, texture).toBeGreaterThan(held.fieldCapacity);
				expect(held.saturation, texture).toBeLessThan(1);
			}
	});
});

describe('bulk density', () => {
	/** USDA NRCS soil quality, bulk density: ideal under, may affect roots from, restricts over; Mg/m³. */
	const limits: [Texture[], number, number, number][] = [
		[['sand', 'loamy-sand'], 1.6, 1.69, 1.8],
		[['sandy-loam', 'loam'], 1.4, 1.63, 1.8],
		[['sandy-clay-loam', 'clay-loam'], 1.4, 1.6, 1.75],
		[['silt', 'silt-loam'], 1.4, 1.6, 1.75],
		[['silty-clay-loam'], 1.4, 1.55, 1.65],
		[['sandy-clay', 'silty-clay'], 1.1, 1.49, 1.58],
		[['clay'], 1.1, 1.39, 1.47]
	];
	it('is judged by the limits of its texture, and every texture has them', () => {
		expect(limits.flatMap(([list]) => list).sort()).toEqual([...textures].sort());
		for (const [list, ideal, affects, restricts] of limits)
			for (const texture of list) {
				const judge = (density: number) => judgeDensity(density, texture, defaultValues);
				expect(judge(ideal - 0.005), texture).toBe('ideal');
				expect(judge(ideal + 0.005), texture).toBe('fair');
				expect(judge(affects + 0.005), texture).toBe('affects');
				expect(judge(restricts), texture).toBe('affects');
				expect(judge(restricts + 0.005), texture).toBe('restricts');
				expect(markOf(`soil.density.restricts.${texture}`)).toMatch(/published/);
			}
	});
	/** Porosity = 1 − density / 2.65; air = porosity − water; worked by hand. */
	it('gives porosity, water and air of a weighed ring', () => {
		const core = judgeCore(
			{ fromMm: 100, toMm: 150, ringMl: 100, freshG: 178, dryG: 150 },
			'clay-loam',
			defaultValues
		);
		expect(core.bulkDensityMgPerM3).toBeCloseTo(1.5, 10);
		expect(core.porosity).toBeCloseTo(0.43396, 5);
		expect(core.water).toBeCloseTo(0.28, 10);
		expect(core.air).toBeCloseTo(0.15396, 5);
		expect(core.lacksAir).toBe(false);
		const wet = judgeCore(
			{ fromMm: 100, toMm: 150, ringMl: 100, freshG: 186, dryG: 150 },
			'clay-loam',
			defaultValues
		);
		expect(wet.lacksAir).toBe(true);
	});
});

/** Over 2 MPa roots slow sharply, over 3 MPa hardly any grows: widely published, from memory. */
it('resistance slows roots over 2 MPa and stops them over 3 MPa', () => {
	expect([1.9, 2, 2.1, 3, 3.1].map((mpa) => hardnessOf(mpa, defaultValues))).toEqual([
		'open',
		'open',
		'slow',
		'slow',
		'stops'
	]);
});

describe('infiltration', () => {
	/** USDA NRCS classes, mm/h. */
	it.each([
		[1.4, 'very slow'],
		[1.5, 'slow'],
		[4.9, 'slow'],
		[5, 'moderately slow'],
		[15, 'moderate'],
		[51, 'moderately rapid'],
		[152, 'rapid'],
		[508, 'very rapid']
	])('of %s mm/h is %s', (rate, name) => expect(infiltrationClass(rate, defaultValues)).toBe(name));
	/** I = S √t + A t [Philip 1957, from memory]: made from S = 20 mm/√h, A = 12 mm/h, both are found again. */
	it('finds Philip’s two terms of a curve made from them', () => {
		const readings = [0, 6, 15, 30, 60, 90, 120].map((minutes) => ({
			minutes,
			sunkMm: 20 * Math.sqrt(minutes / 60) + 12 * (minutes / 60)
		}));
		const rate = infiltrationRate({ ringDiameterMm: 300, readings }, defaultValues);
		expect(rate.sorptivityMmPerRootH).toBeCloseTo(20, 6);
		expect(rate.philipSteadyMmPerH).toBeCloseTo(12, 6);
		expect(rate.firstMmPerH).toBeGreaterThan(rate.steadyMmPerH);
	});
	it('of a steady flow is that flow', () => {
		const readings = [0, 10, 20, 30].map((minutes) => ({ minutes, sunkMm: minutes * 0.5 }));
		const rate = infiltrationRate({ ringDiameterMm: 300, readings }, defaultValues);
		expect(rate.steadyMmPerH).toBeCloseTo(30, 9);
		expect(rate).toMatchObject({ class: 'moderate', steady: true });
	});
});

/** Thien 1979, flow diagram for texture by feel: ribbons under 1, 1 to 2, over 2 inches; from memory. */
it.each([
	[false, 0, 'gritty', 'sand'],
	[true, 0, 'gritty', 'loamy-sand'],
	[true, 20, 'gritty', 'sandy-loam'],
	[true, 20, 'smooth', 'silt-loam'],
	[true, 20, 'neither', 'loam'],
	[true, 40, 'gritty', 'sandy-clay-loam'],
	[true, 40, 'smooth', 'silty-clay-loam'],
	[true, 40, 'neither', 'clay-loam'],
	[true, 60, 'gritty', 'sandy-clay'],
	[true, 60, 'smooth', 'silty-clay'],
	[true, 60, 'neither', 'clay']
] as const)('by feel: ball %s, ribbon %s mm, %s is %s', (ball, ribbonMm, feel, texture) =>
	expect(textureByFeel({ ball, ribbonMm, feel })).toBe(texture)
);
