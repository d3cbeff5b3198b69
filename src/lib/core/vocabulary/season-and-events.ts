import { wordsOf } from './words-of';

/** Where a tree stands in its year. */
export const seasonPhaseNames = {
	rest: 'at rest',
	flush: 'in its first flush',
	summer: 'in full growth',
	autumn: 'growth ending'
};
export type SeasonPhase = keyof typeof seasonPhaseNames;
export const seasonPhases = wordsOf(seasonPhaseNames);

/** What befell it in the last weeks and makes some causes likelier before anything is looked at. */
export const recentEvents = [
	'bought',
	'repotted',
	'moved',
	'dug',
	'cold-night',
	'hot-spell',
	'long-rain'
] as const;
export type RecentEvent = (typeof recentEvents)[number];
/** Whether a word names a recent event. */
export const isRecentEvent = (word: unknown): word is RecentEvent =>
	(recentEvents as readonly unknown[]).includes(word);
export const recentEventNames: Record<RecentEvent, string> = {
	bought: 'just bought',
	repotted: 'repotted',
	moved: 'moved',
	dug: 'dug or root-cut',
	'cold-night': 'a cold night',
	'hot-spell': 'a hot spell',
	'long-rain': 'long rain'
};
