/** The twelve texture classes of the USDA triangle. */
export const textures = [
	'sand',
	'loamy-sand',
	'sandy-loam',
	'loam',
	'silt-loam',
	'silt',
	'sandy-clay-loam',
	'clay-loam',
	'silty-clay-loam',
	'sandy-clay',
	'silty-clay',
	'clay'
] as const;
export type Texture = (typeof textures)[number];

export interface TextureClass {
	label: string;
	/** Typical sand and clay, % by mass: Saxton & Rawls 2006, Table 3 [from memory but for the five of the handbook]. */
	sandPercent: number;
	clayPercent: number;
}

export const textureClasses: Record<Texture, TextureClass> = {
	sand: { label: 'sand', sandPercent: 88, clayPercent: 5 },
	'loamy-sand': { label: 'loamy sand', sandPercent: 80, clayPercent: 5 },
	'sandy-loam': { label: 'sandy loam', sandPercent: 65, clayPercent: 10 },
	loam: { label: 'loam', sandPercent: 40, clayPercent: 20 },
	'silt-loam': { label: 'silt loam', sandPercent: 20, clayPercent: 15 },
	silt: { label: 'silt', sandPercent: 10, clayPercent: 5 },
	'sandy-clay-loam': { label: 'sandy clay loam', sandPercent: 60, clayPercent: 25 },
	'clay-loam': { label: 'clay loam', sandPercent: 30, clayPercent: 35 },
	'silty-clay-loam': { label: 'silty clay loam', sandPercent: 10, clayPercent: 35 },
	'sandy-clay': { label: 'sandy clay', sandPercent: 50, clayPercent: 40 },
	'silty-clay': { label: 'silty clay', sandPercent: 10, clayPercent: 45 },
	clay: { label: 'clay', sandPercent: 25, clayPercent: 50 }
};
