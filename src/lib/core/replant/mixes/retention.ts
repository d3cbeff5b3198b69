import { potCrossSection, type MixPot } from './mix-pot';
import { z } from 'zod';
import { measure, oneOf } from '../../vocabulary/fields';
import { componentIds, componentOf, type Component } from './components';
import type { Values } from '../../values/values';

/** A part of a mix, by poured volume. */
export const mixPart = z.strictObject({
	componentId: oneOf(componentIds),
	parts: measure(0, 1000, 'parts')
});
export type MixPart = z.infer<typeof mixPart>;
export const mixParts = z
	.array(mixPart)
	.min(1, { error: 'must have at least one part' })
	.max(12, { error: 'must have at most 12 parts' })
	.refine((parts) => parts.some((part) => part.parts > 0), { error: 'must add up to more than nothing' });

/**
 * Water held by a porous material at a suction, as a share of its volume.
 * θ(h) = θr + (θs − θr) / (1 + (α h)^n)^(1 − 1/n)
 * @param suctionCm suction as a height of water, ≥ 0
 * @see van Genuchten 1980, Soil Sci. Soc. Am. J. 44
 * @example sand of Carsel & Parrish 1988 (0.045, 0.43, 0.145, 2.68) holds 0.214 at 10 cm
 */
export function vanGenuchten(
	{
		residual,
		saturated,
		alphaPerCm,
		n
	}: { residual: number; saturated: number; alphaPerCm: number; n: number },
	suctionCm: number
): number {
	const wet = (1 + (alphaPerCm * Math.max(0, suctionCm)) ** n) ** -(1 - 1 / n);
	return residual + (saturated - residual) * wet;
}

/**
 * Height to which water rises in a pore, mm: 4 γ cos θ / (ρ g d), for water at 20 °C (γ 0.0728 N/m) that wets fully.
 * @example 1 mm → 30 mm
 */
export const capillaryRiseMm = (poreMm: number): number =>
	((4 * 0.0728) / (998 * 9.81 * (poreMm / 1000))) * 1000;

/** A mix as it lies in the pot. */
export interface MixBody {
	/** Volume that one litre of the parts, measured one by one, makes together. */
	yield: number;
	/** Pores between and inside the grains, shares of the volume of the mix. */
	between: number;
	inside: number;
	porosity: number;
	/** Pore that rules how high water stands, mm. */
	poreMm: number;
	evenness: number;
	dryKgL: number;
	ph: number;
	/** Shortest life among parts that make a tenth or more; null when all of them last. */
	lifeYears: number | null;
	dust: boolean;
	living: boolean;
}

/**
 * A mix from its parts [our own model; a bench test of the mix replaces it]. Coarsest first, each finer part slips into
 * the pores left between those coarser: all of it that fits when its grains are far smaller, none when they are more than
 * `mix.slipRatio` of their size. The pores of the mix are those of its parts, weighted by how much there is of each and the
 * finer the more (as the surface does).
 * @param parts at least one with parts above zero
 * @throws RangeError when the parts make nothing
 */
export function mixBody(parts: readonly MixPart[], values: Values): MixBody {
	const total = parts.reduce((sum, part) => sum + Math.max(0, part.parts), 0);
	if (!(total > 0)) throw new RangeError('The parts of a mix must add up to more than nothing.');
	const used = parts
		.filter((part) => part.parts > 0)
		.map((part) => ({ of: componentOf(part.componentId), share: part.parts / total }))
		.sort((a, b) => b.of.fineMm - a.of.fineMm);
	let volume = 0;
	let openPores = 0;
	let coarseMm = 0;
	for (const { of, share } of used) {
		const middle = Math.sqrt(of.fineMm * of.coarseMm);
		const ratio = coarseMm > 0 ? middle / coarseMm : 1;
		const slips = Math.max(0, 1 - ratio / values['mix.slipRatio']);
		const filled = Math.min(openPores, share * slips);
		volume += share - filled;
		// What slipped in leaves its own finer pores open.
		openPores += share * of.between - filled;
		coarseMm = coarseMm > 0 ? Math.max(coarseMm, middle) : middle;
	}
	const sum = (of: (part: (typeof used)[number]) => number): number =>
		used.reduce((all, part) => all + of(part), 0);
	const grains = sum(({ of, share }) => share * (1 - of.between));
	const between = Math.max(0.05, 1 - grains / volume);
	const inside = sum(({ of, share }) => share * of.inside) / volume;
	const weight = sum(({ of, share }) => share * (1 - of.between));
	const poreOf = (of: Component): number => of.poreMm ?? of.fineMm * values['mix.poreOfGrain'];
	const poreMm = weight / sum(({ of, share }) => (share * (1 - of.between)) / poreOf(of));
	const lives = used.flatMap(({ of, share }) =>
		share >= values['mix.lifeShare'] && of.lifeYears !== null ? [of.lifeYears] : []
	);
	return {
		yield: volume,
		between,
		inside,
		porosity: between + inside,
		poreMm,
		evenness: sum(({ of, share }) => share * (1 - of.between) * of.evenness) / weight,
		dryKgL: sum(({ of, share }) => share * of.dryKgL) / volume,
		// By the acid itself, not by its logarithm.
		ph: -Math.log10(sum(({ of, share }) => share * 10 ** -of.ph)),
		lifeYears: lives.length > 0 ? Math.min(...lives) : null,
		dust: used.some(({ of }) => of.dust),
		living: used.some(({ of }) => of.living)
	};
}

/** Water a mix holds at a suction, share of its volume: what its grains hold inside, and what stands between them. */
export function waterAt(body: MixBody, suctionMm: number): number {
	const alphaPerCm = 10 / capillaryRiseMm(body.poreMm);
	return (
		body.inside +
		vanGenuchten({ residual: 0, saturated: body.between, alphaPerCm, n: body.evenness }, suctionMm / 10)
	);
}

export const depthPointOutput = z.object({
	heightMm: z.number().describe('Height above the floor of the pot, mm'),
	water: z.number(),
	air: z.number()
});
export type DepthPoint = z.infer<typeof depthPointOutput>;

export const waterAndAirOutput = z.object({
	byDepth: z.array(depthPointOutput).describe('From the top of the coarse layer to the top of the mix'),
	containerCapacity: z
		.number()
		.describe('Share of the mix that is water once it has drained, and that is air'),
	airSpace: z.number(),
	porosity: z.number(),
	easilyAvailable: z
		.number()
		.describe('Water that roots draw easily: between 10 and 50 cm of suction (De Boodt & Verdonck 1972)'),
	mixL: z.number().describe('Litres of mix, of water held, and of air'),
	waterL: z.number(),
	airL: z.number(),
	wetKg: z.number(),
	saturatedMm: z
		.number()
		.describe(
			'Height of what is nearly saturated (less than a tenth of the pores between are air), above where the mix begins'
		)
});
export type WaterAndAir = z.infer<typeof waterAndAirOutput>;

/**
 * Water and air in a pot after it was watered through and has drained. Suction at a height is that height above the free
 * water at the holes. A coarse layer under the mix does not drain it: water crosses into it only where the suction is less
 * than its own pores bear, so the wet zone stands on top of it.
 */
export function waterAndAir(
	body: MixBody,
	pot: MixPot,
	{ coarseLayerMm, coarsePoreMm }: { coarseLayerMm: number; coarsePoreMm: number },
	fillMm: number
): WaterAndAir {
	const from = Math.min(Math.max(0, coarseLayerMm), fillMm);
	const head = from > 0 ? Math.min(from, capillaryRiseMm(coarsePoreMm)) : 0;
	const STEPS = 200;
	const step = (fillMm - from) / STEPS;
	const byDepth: DepthPoint[] = [];
	let [mix, water, saturatedMm] = [0, 0, 0];
	for (let i = 0; i < STEPS; i++) {
		const heightMm = from + (i + 0.5) * step;
		const held = waterAt(body, heightMm - from + head);
		const area = potCrossSection(pot, heightMm) * step;
		mix += area;
		water += area * held;
		if (body.porosity - held < 0.1 * body.between) saturatedMm = heightMm - from;
		byDepth.push({ heightMm, water: held, air: body.porosity - held });
	}
	const containerCapacity = mix > 0 ? water / mix : 0;
	const litres = (mm3: number): number => mm3 / 1e6;
	return {
		byDepth,
		containerCapacity,
		airSpace: body.porosity - containerCapacity,
		porosity: body.porosity,
		easilyAvailable: waterAt(body, 100) - waterAt(body, 500),
		mixL: litres(mix),
		waterL: litres(water),
		airL: litres(mix * body.porosity - water),
		wetKg: litres(mix) * body.dryKgL + litres(water),
		saturatedMm
	};
}
