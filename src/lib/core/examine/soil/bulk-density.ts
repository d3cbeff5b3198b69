import { wordsOf } from '../../vocabulary/words-of';
import { z } from 'zod';
import { measure, oneOf } from '../../vocabulary/fields';
import type { Values } from '../../values/values';
import { textures, type Texture } from '../../vocabulary/textures';

/** One ring of soil, weighed fresh and dried at 105 °C. */
export const soilCore = z
	.strictObject({
		fromMm: measure(0, 2000, 'mm'),
		toMm: measure(1, 2000, 'mm'),
		ringMl: measure(10, 5000, 'ml'),
		freshG: measure(1, 15_000, 'g').nullable().default(null),
		dryG: measure(1, 15_000, 'g')
	})
	.refine((core) => core.toMm > core.fromMm, {
		path: ['toMm'],
		error: 'must be deeper than the top of the ring'
	})
	.refine((core) => core.freshG === null || core.freshG >= core.dryG, {
		path: ['freshG'],
		error: 'must not weigh less fresh than dry'
	})
	.refine((core) => core.dryG / core.ringMl <= 2.65, {
		path: ['dryG'],
		error: 'is heavier than rock for this ring; check the volume'
	});
export type SoilCore = z.infer<typeof soilCore>;

export const soilCoresData = z.strictObject({
	texture: oneOf(textures),
	cores: z
		.array(soilCore)
		.min(1, { error: 'must hold at least one core' })
		.max(60, { error: 'must be at most 60 cores' })
});
export type SoilCoresData = z.infer<typeof soilCoresData>;

export const densityNames = {
	ideal: 'ideal for roots',
	fair: 'between ideal and harmful',
	affects: 'may affect roots',
	restricts: 'restricts roots'
};
export type DensityJudgement = keyof typeof densityNames;
export const densityJudgements = wordsOf(densityNames);

export const coreOutput = z.object({
	fromMm: z.number(),
	toMm: z.number(),
	bulkDensityMgPerM3: z.number(),
	porosity: z.number().describe('Volume shares. Water and air are null when the ring was not weighed fresh'),
	water: z.number().nullable(),
	air: z.number().nullable(),
	judgement: z.enum(densityJudgements),
	lacksAir: z.boolean().nullable()
});
export type CoreResult = z.infer<typeof coreOutput>;

/**
 * Bulk density, porosity and air of a soil core, judged by texture.
 * Bulk density = dry mass / ring volume; porosity = 1 − density / 2.65; air = porosity − water.
 * @see USDA NRCS soil quality, bulk density
 */
export function judgeCore(core: SoilCore, texture: Texture, values: Values): CoreResult {
	const density = core.dryG / core.ringMl;
	const porosity = 1 - density / values['soil.particle-density'];
	const water = core.freshG === null ? null : (core.freshG - core.dryG) / core.ringMl;
	const air = water === null ? null : Math.max(0, porosity - water);
	return {
		fromMm: core.fromMm,
		toMm: core.toMm,
		bulkDensityMgPerM3: density,
		porosity,
		water,
		air,
		judgement: judgeDensity(density, texture, values),
		lacksAir: air === null ? null : air < values['soil.air-least']
	};
}

/**
 * What a density means to roots in a soil of a texture.
 * @param densityMgPerM3 dry mass by whole volume, Mg/m³
 */
export const judgeDensity = (densityMgPerM3: number, texture: Texture, values: Values): DensityJudgement =>
	densityMgPerM3 > values[`soil.density.restricts.${texture}`]
		? 'restricts'
		: densityMgPerM3 >= values[`soil.density.affects.${texture}`]
			? 'affects'
			: densityMgPerM3 < values[`soil.density.ideal.${texture}`]
				? 'ideal'
				: 'fair';
