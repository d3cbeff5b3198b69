import { createRandom } from '../maths/random';

export interface SimulatedSoil {
	/** Where the hard layer begins and ends, mm; no layer when they are equal. */
	hardFromMm: number;
	hardToMm: number;
	hardMpa: number;
	positions: number;
	deepestMm: number;
	stepMm: number;
}

export const simulatedSoils = {
	'under a path': { hardFromMm: 50, hardToMm: 350, hardMpa: 3.6, positions: 5, deepestMm: 600, stepMm: 25 },
	'a hard pan': { hardFromMm: 280, hardToMm: 420, hardMpa: 2.9, positions: 5, deepestMm: 600, stepMm: 25 },
	'open soil': { hardFromMm: 0, hardToMm: 0, hardMpa: 0, positions: 5, deepestMm: 600, stepMm: 25 }
} as const satisfies Record<string, SimulatedSoil>;
export type SimulatedSoilName = keyof typeof simulatedSoils;

/**
 * What a penetrometer would write, as CSV in its own words: a comment that says it is simulated, then position, depth and
 * resistance. Soil grows firmer with depth; the hard layer comes in and goes out over 60 mm; each position differs.
 */
export function simulatePenetrometer(soil: SimulatedSoil, seed: number): string {
	const random = createRandom(seed);
	const lines = ['# simulated penetrometer, not a real soil', 'position,depth_mm,resistance_kpa'];
	for (let position = 1; position <= soil.positions; position++) {
		const firmness = Math.exp(0.12 * random.normal());
		for (let depth = soil.stepMm; depth <= soil.deepestMm; depth += soil.stepMm) {
			const loose = 0.35 + (0.9 * depth) / 600;
			const edge = (at: number): number => 1 / (1 + Math.exp(-(depth - at) / 15));
			const inside = soil.hardToMm > soil.hardFromMm ? edge(soil.hardFromMm) * (1 - edge(soil.hardToMm)) : 0;
			const mpa = (loose + (soil.hardMpa - loose) * inside) * firmness * Math.exp(0.06 * random.normal());
			lines.push(`${position},${depth},${Math.round(mpa * 1000)}`);
		}
	}
	return `${lines.join('\n')}\n`;
}
