import { z } from 'zod';
import type { ColdLimit } from '../../climate/cold-limit';
import type { SeriesDay } from '../../climate/series';
import type { Values } from '../../values/values';

export const guardKinds = ['cold', 'heat', 'wind', 'dry-air'] as const;
export type GuardKind = (typeof guardKinds)[number];

/** What a tree stands just now. */
export interface Limits {
	treeId: string;
	tag: string;
	coldC: number;
	heatC: number;
	gustMs: number;
	/** Only for a tree with few roots; null for others. */
	vpdKpa: number | null;
	/** Why a limit is tighter than it usually is; empty where it is not. */
	why: Record<GuardKind, string>;
}

/**
 * Limits of a tree on a day: its kind's cold limit, tightened while its cut roots are fresh or it bears tender new shoots;
 * heat, gusts and dry air the tighter the fewer roots it has.
 */
export function limitsOf(
	tree: {
		id: string;
		tag: string;
		cold: ColdLimit;
		rootFunction: number;
		tipsMs: number | null;
	},
	values: Values
): Limits {
	const few = tree.rootFunction < values['rootFunction.few'];
	const fewWhy = few ? 'few roots' : '';
	return {
		treeId: tree.id,
		tag: tree.tag,
		coldC: tree.cold.limitC,
		heatC: values[few ? 'guard.freshHeatC' : 'guard.heatC'],
		gustMs: Math.min(values['guard.gustMs'], tree.tipsMs ?? Infinity),
		vpdKpa: few ? values['guard.vpdKpa'] : null,
		why: { cold: tree.cold.why, heat: fewWhy, wind: '', 'dry-air': fewWhy }
	};
}

export const warningOutput = z.object({
	kind: z.enum(guardKinds),
	on: z.string(),
	figure: z.number().describe('What the day brings, in its unit'),
	trees: z
		.array(z.object({ treeId: z.string(), tag: z.string(), limit: z.number(), why: z.string() }))
		.describe('Trees beyond their limit, tightest first'),
	what: z.string(),
	byWhen: z.string(),
	sure: z.boolean().describe('Forecast, or only the usual climate')
});
export type Warning = z.infer<typeof warningOutput>;

const advice: Record<GuardKind, { what: readonly [one: string, many: string]; byWhen: string }> = {
	cold: {
		what: ['Bring it under cover, or lay fleece', 'Bring them under cover, or lay fleece'],
		byWhen: 'before dusk'
	},
	heat: {
		what: [
			'Shade it, water in the morning, no work at roots',
			'Shade them, water in the morning, no work at roots'
		],
		byWhen: 'the evening before'
	},
	wind: {
		what: ['Set it down and tie it; its pot off the bench', 'Set them down and tie them; pots off the bench'],
		byWhen: 'before the wind rises'
	},
	'dry-air': { what: ['Shade and mist, or a tent', 'Shade and mist, or a tent'], byWhen: 'by mid-morning' }
};

/**
 * What to do against a danger.
 * @param plants how many it touches, each of a lot counted
 */
export const guardWhat = (kind: GuardKind, plants: number): string => advice[kind].what[plants === 1 ? 0 : 1];

/**
 * Warnings for the trees of one place, one for each kind of danger and day, grouped: what it brings, whom it touches, what to do
 * and by when.
 * @param days today and the days ahead
 */
export function warningsFor(days: readonly SeriesDay[], trees: readonly Limits[]): Warning[] {
	const warnings: Warning[] = [];
	for (const day of days) {
		const sure = day.source === 'forecast' || day.source === 'station' || day.source === 'typed';
		const add = (
			kind: GuardKind,
			figure: number | null,
			limitOf: (tree: Limits) => number | null,
			beyond: (figure: number, limit: number) => boolean
		): void => {
			if (figure === null) return;
			const touched = trees.flatMap((tree) => {
				const limit = limitOf(tree);
				return limit !== null && beyond(figure, limit)
					? [{ treeId: tree.treeId, tag: tree.tag, limit, why: tree.why[kind] }]
					: [];
			});
			if (touched.length === 0) return;
			touched.sort((a, b) => (kind === 'cold' ? b.limit - a.limit : a.limit - b.limit));
			const { byWhen } = advice[kind];
			const what = guardWhat(kind, touched.length);
			warnings.push({ kind, on: day.on, figure, trees: touched, what, byWhen, sure });
		};
		add(
			'cold',
			day.minC,
			(tree) => tree.coldC,
			(c, limit) => c < limit
		);
		add(
			'heat',
			day.maxC,
			(tree) => tree.heatC,
			(c, limit) => c > limit
		);
		add(
			'wind',
			day.gustMs,
			(tree) => tree.gustMs,
			(ms, limit) => ms > limit
		);
		add(
			'dry-air',
			day.vpdKpa,
			(tree) => tree.vpdKpa,
			(kpa, limit) => kpa > limit
		);
	}
	return warnings;
}
