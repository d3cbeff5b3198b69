import type { RootMapInput } from '$core/roots/map/root-map';
import { rootProtectionArea, structuralRootZoneRadiusM } from '$core/roots/plan/zones';
import type { Values } from '$core/values/values';

/** Zones round a tree in the ground, by name, as circles about its trunk; none round a ball. */
export function zonesOf(
	map: Pick<RootMapInput, 'frame' | 'trunkDiameterMm'>,
	values: Values
): { name: string; radiusMm: number }[] {
	if (map.frame !== 'ground') return [];
	const trunkM = map.trunkDiameterMm / 1000;
	const trunks = values['ground.noCutTrunkDiameters'];
	return [
		{ name: `${trunks} trunk diameters`, radiusMm: trunks * map.trunkDiameterMm },
		{ name: 'structural root zone', radiusMm: structuralRootZoneRadiusM(trunkM, values) * 1000 },
		{ name: 'root protection area', radiusMm: rootProtectionArea(trunkM, values).radiusM * 1000 }
	];
}
