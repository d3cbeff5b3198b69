/** Opposites that a root zone and a tree may stand in; one of each holds. */
export const waters = ['even', 'wet', 'dry'] as const;
export const rooms = ['usual', 'tight', 'roomy'] as const;
export const lives = ['alive', 'dead'] as const;
export type WorldPart = (typeof waters)[number] | (typeof rooms)[number] | (typeof lives)[number];
export const worldPartNames: Record<WorldPart, string> = {
	even: 'neither wet nor dry',
	wet: 'wet',
	dry: 'dry',
	usual: 'room as usual',
	tight: 'tight',
	roomy: 'roomy',
	alive: 'alive',
	dead: 'dead'
};
