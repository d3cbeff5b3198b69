import type { Values } from '../../values/values';

/**
 * A ring of mulch with usual sizes: over the hole a tree is planted in, for its roots are nowhere else; else as far as its roots
 * are protected, within what is spread by hand [our own].
 * @param trunkM trunk above the flare, m
 * @param rootsM radius to which its roots are protected, m
 * @param holeWidthMm width of the hole it is set in, or was lately, mm; null for a tree that grows where it stands
 * @returns inner and outer radius from the middle of the trunk, m to 0.1, and depth, mm
 */
export function mulchRing(
	{ trunkM, rootsM, holeWidthMm }: { trunkM: number; rootsM: number; holeWidthMm: number | null },
	values: Values
): { innerM: number; outerM: number; depthMm: number } {
	const round = (m: number): number => Math.round(m * 10) / 10;
	const innerM = round(trunkM / 2 + values['mulch.offTrunkMm'] / 1000);
	const outM =
		holeWidthMm === null
			? Math.min(values['mulch.mostM'], Math.max(values['mulch.leastM'], rootsM))
			: holeWidthMm / 2000;
	return { innerM, outerM: Math.max(round(outM), round(innerM + 0.1)), depthMm: values['mulch.depthMm'] };
}
