import type { RootClass, RootFlaw } from '$core/roots/map/root-map';

/** Own glyphs, one family: 16 × 16, one stroke of 1.8, trunk above, soil below. Path data. */
export const classGlyphs: Record<RootClass, string> = {
	anchor: 'M8 2v5M8 7c-1 3-4 4-5 7M8 7c1 3 4 4 5 7M5.5 10.5h5',
	scaffold: 'M8 2v5M8 7c1 3 3 4 6 5M8 7c-.5 2-1 3-1 6',
	secondary: 'M2 5c4 0 5 2 6 4M8 9c1 2 3 3 6 3M8 9c0 2-.5 3-1 5',
	feeder: 'M3 3c1 4 3 6 5 11M6 8c2 0 4-1 6-3M7 11c2 1 3 1 5 0'
};

export const flawGlyphs: Record<RootFlaw, string> = {
	girdling: 'M8 5a3 3 0 1 0 .1 0M2 12c0-6 3-10 7-10s5 3 5 5',
	crossing: 'M2 3l12 10M14 3l-4 4M6 10l-4 3',
	circling: 'M8 2a6 6 0 1 1-5.5 3.6M2 2.5l.5 3.2 3-.6',
	'turned-back': 'M3 2v6a5 5 0 0 0 10 0V5M10.5 7L13 4.5 15.5 7',
	rising: 'M2 13c5 0 7-3 9-10M8 5l3-2.5L13.5 6',
	descending: 'M8 2v11M5 10l3 3.5 3-3.5',
	'non-radial': 'M3 2v4c5 0 7 3 11 3M3 6c0 4-1 6-1 8',
	crowded: 'M4 2v12M8 2v12M12 2v12',
	torn: 'M3 2v5l3-2 1 4 3-3 1 5 2-2v5',
	rotten: 'M3 2c0 4 3 4 4 7M9 12h.1M11 9h.1M12.5 13h.1M7 13h.1',
	'too-thick': 'M5 2v12M11 2v12M5 8h6',
	sucker: 'M8 14V6M8 9C5 9 4 7 4 5M8 7c3 0 4-2 4-5',
	'above-plane': 'M2 9h12M4 6c2-3 6-3 8 0M8 9v5'
};
