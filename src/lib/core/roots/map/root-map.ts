import { wordsOf } from '../../vocabulary/words-of';
import { measured } from '../../text/measured';
import { coursePointSchema, type CoursePoint } from './geometry';
import { z } from 'zod';
import { after } from '../../examine/pictures/flat';

import { calendarDate, count, id, measure, note, oneOf, version } from '../../vocabulary/fields';
import type { Values } from '../../values/values';
import { courseLengthMm } from './geometry';
import {
	barkRadiusMm,
	combinedDiameterMm,
	polarPointSchema,
	STEM_LIMIT,
	stemSchema,
	type Trunk
} from './outline';

export const rootClasses = ['anchor', 'scaffold', 'secondary', 'feeder'] as const;
export type RootClass = (typeof rootClasses)[number];

/** sound · doubtful: not certain, from `doubtfulFromMm` outward · dead: from `deadFromMm` outward. */
export const rootConditions = ['sound', 'doubtful', 'dead'] as const;
export type RootCondition = (typeof rootConditions)[number];

export const rootFlawNames = {
	girdling: 'girdles the trunk',
	crossing: 'crosses another root',
	circling: 'circles the ball',
	'turned-back': 'turned back to the trunk',
	rising: 'rises out of the soil',
	descending: 'goes straight down',
	'non-radial': 'does not run outward',
	crowded: 'crowded',
	torn: 'torn',
	rotten: 'rotten',
	'too-thick': 'too thick for its neighbours',
	sucker: 'sucker root',
	'above-plane': 'above the root plane'
};
export type RootFlaw = keyof typeof rootFlawNames;
export const rootFlaws = wordsOf(rootFlawNames);

/** Most roots one map may hold. */
export const MAP_LIMIT = 400;

/** What of a root nobody said, so that it was taken from its thickness and habit. */
export const guessedOfRoot = ['class', 'depth', 'length'] as const;
export type GuessedOfRoot = (typeof guessedOfRoot)[number];

export const segmentSchema = z
	.strictObject({
		id: id(),
		parentId: id().nullable().describe('The root it leaves, or null for the trunk'),
		attachMm: measure(0, 20_000, 'mm').default(0).describe('How far along the parent it leaves'),
		rootClass: oneOf(rootClasses),
		condition: oneOf(rootConditions),
		deadFromMm: measure(0, 20_000, 'mm')
			.nullable()
			.default(null)
			.describe('Dead from here outward; only for dead'),
		doubtfulFromMm: measure(0, 20_000, 'mm')
			.nullable()
			.default(null)
			.describe('Doubtful from here outward, or as far as where it is dead; null for all of a doubtful root'),
		seenToMm: measure(0, 20_000, 'mm')
			.nullable()
			.default(null)
			.describe('Laid open as far as here; beyond it lies in soil and is assumed. Null: all of it was seen'),
		diameterStartMm: measure(0.2, 1500, 'mm'),
		diameterEndMm: measure(0.1, 1500, 'mm'),
		fineScore: count(0, 3).describe('Fine roots it carries: 0 none … 3 dense'),
		flaws: z.array(oneOf(rootFlaws)).max(rootFlaws.length).default([]),
		seenOtherwise: z
			.array(oneOf(rootFlaws))
			.max(rootFlaws.length)
			.default([])
			.describe('Flaws that its course shows and the eye does not'),
		guessed: z
			.array(oneOf(guessedOfRoot))
			.max(guessedOfRoot.length)
			.default([])
			.describe('What nobody said of it: taken from its thickness and habit'),
		sourceKnown: z.boolean({ error: 'must be true or false' }).default(true),
		keep: z
			.boolean({ error: 'must be true or false' })
			.default(false)
			.describe('Locked by the owner: not to be cut'),
		measuredIn: z
			.strictObject({
				pictureId: id(),
				thicknessErrorMm: measure(0, 1500, 'mm')
					.nullable()
					.describe(
						'Within so much of it the true thickness lies in 95 of 100; null where it was typed since'
					),
				lengthErrorMm: measure(0, 20_000, 'mm')
					.nullable()
					.describe('The same of its length; null where its course was drawn since')
			})
			.nullable()
			.default(null)
			.describe('The picture it was read from; null where it was measured by hand'),
		depthIn: z
			.strictObject({
				pictureId: id(),
				errorMm: measure(0, 3000, 'mm').describe('Within so much of it the true depth lies in 95 of 100')
			})
			.nullable()
			.default(null)
			.describe('The picture from the side that its depth was read from; null where it was said'),
		course: z
			.array(coursePointSchema)
			.min(2, { error: 'must have at least two points' })
			.max(60, { error: 'must have at most 60 points' }),
		note: note(400)
	})
	.refine((s) => s.parentId !== s.id, { path: ['parentId'], error: 'must not be the root itself' })
	.refine((s) => s.condition === 'dead' || !s.flaws.includes('rotten'), {
		path: ['condition'],
		error: 'must be dead where it is rotten; say from how far out'
	})
	.refine((s) => s.condition !== 'sound' || s.doubtfulFromMm === null, {
		path: ['doubtfulFromMm'],
		error: 'must be left out for a sound root'
	})
	.refine(
		(s) => s.condition !== 'dead' || s.doubtfulFromMm === null || s.doubtfulFromMm <= (s.deadFromMm ?? 0),
		{
			path: ['doubtfulFromMm'],
			error: 'must not lie beyond where it is dead'
		}
	)
	.refine((s) => courseLengthMm(s.course) >= 1, {
		path: ['course'],
		error: `must be at least ${measured(1, 'mm')} long`
	})
	.refine((s) => s.diameterEndMm <= s.diameterStartMm * 1.5, {
		path: ['diameterEndMm'],
		error: 'must not be more than one and a half times the thickness at its start'
	});
export type Segment = z.infer<typeof segmentSchema>;

export const obstacleKinds = ['kerb', 'wall', 'stone'] as const;
export type ObstacleKind = (typeof obstacleKinds)[number];

/** What stands in the way of roots, seen from above: a line, or for a stone the outline. */
export const obstacleSchema = z
	.strictObject({
		id: id(),
		kind: oneOf(obstacleKinds),
		points: z
			.array(polarPointSchema)
			.min(2, { error: 'must have at least two points' })
			.max(40, { error: 'must have at most 40 points' }),
		toDepthMm: measure(0, 5000, 'mm').default(300).describe('How deep it goes'),
		note: note(120)
	})
	.refine((obstacle) => obstacle.kind !== 'stone' || obstacle.points.length >= 3, {
		path: ['points'],
		error: 'must have at least three points round a stone'
	});
export type Obstacle = z.infer<typeof obstacleSchema>;

/** Radius that a new map begins with where nobody measured the ball, or the ground opened; left so, nobody measured it. */
export const guessedRadiusMm = (tree: { trunkDiameterMm: number; situation: string }): number =>
	Math.round(tree.trunkDiameterMm * (tree.situation === 'in-ground' ? 3 : 2));

export const rootMapInput = z
	.strictObject({
		mappedOn: calendarDate(),
		frame: oneOf(['container', 'ground']),
		trunkDiameterMm: measure(1, 3000, 'mm'),
		stems: z
			.array(stemSchema)
			.max(STEM_LIMIT, { error: `must be at most ${STEM_LIMIT} stems` })
			.default([])
			.describe('Outlines of the stems, where the trunk is not just one round one'),
		ballRadiusMm: measure(10, 20_000, 'mm').describe('Radius of the ball, or of the ground opened'),
		ballDepthMm: measure(10, 5000, 'mm')
			.nullable()
			.default(null)
			.describe('Depth of the ball under the flare'),
		lean: z
			.strictObject({ towardDeg: measure(0, 360, '°'), deg: measure(0, 89, '°') })
			.nullable()
			.default(null)
			.describe('How far the trunk leans, and where to; null when not looked at'),
		picture: z
			.strictObject({
				pictureId: id(),
				toPlan: z
					.array(
						z
							.number({ error: 'must be a number' })
							.describe('One of the nine; mm of the map to px of the picture')
					)
					.length(9, { error: 'must be nine numbers' })
					.describe('From pixels of the picture to millimetres of the map, three rows of three')
			})
			.nullable()
			.default(null)
			.describe('The picture that lies under the map'),
		inPot: polarPointSchema
			.nullable()
			.default(null)
			.describe('Where its middle stands in a pot shared with others, seen from the middle of the pot'),
		obstacles: z.array(obstacleSchema).max(60, { error: 'must be at most 60 obstacles' }).default([]),
		segments: z.array(segmentSchema).max(MAP_LIMIT, { error: `must be at most ${MAP_LIMIT} roots` })
	})
	.superRefine((map, context) => {
		const problem = segmentProblem(map.segments);
		if (problem)
			context.addIssue({
				code: 'custom',
				path: ['segments', problem.index, problem.field],
				message: problem.message
			});
		if (new Set(map.stems.map((stem) => stem.id)).size < map.stems.length)
			context.addIssue({ code: 'custom', path: ['stems'], message: 'must each have a name of their own' });
		const combinedMm = map.stems.length > 0 ? combinedDiameterMm(map.stems) : map.trunkDiameterMm;
		if (Math.abs(combinedMm - map.trunkDiameterMm) > 0.02 * map.trunkDiameterMm + 0.5)
			context.addIssue({
				code: 'custom',
				path: ['trunkDiameterMm'],
				message: `must be ${measured(combinedMm, 'mm')}, what the stems make together`
			});
		for (const [index, segment] of map.segments.entries())
			if (segment.parentId === null && segment.diameterStartMm > map.trunkDiameterMm)
				context.addIssue({
					code: 'custom',
					path: ['segments', index, 'diameterStartMm'],
					message: `must not be thicker than the trunk (${measured(map.trunkDiameterMm, 'mm')})`
				});
	});
export type RootMapInput = z.infer<typeof rootMapInput>;
export const rootMapSchema = rootMapInput.safeExtend({ id: id(), version: version() });
export type RootMap = z.infer<typeof rootMapSchema>;

interface SegmentProblem {
	index: number;
	field: string;
	message: string;
}

/** The first fault in how segments hang together: double identity, unknown parent, or a ring of parents. */
export function segmentProblem(segments: readonly Pick<Segment, 'id' | 'parentId'>[]): SegmentProblem | null {
	const parents = new Map<string, string | null>();
	for (const [index, { id: own, parentId }] of segments.entries()) {
		if (parents.has(own)) return { index, field: 'id', message: 'must be used by one root only' };
		parents.set(own, parentId);
	}
	for (const [index, segment] of segments.entries()) {
		let step: string | null = segment.parentId;
		for (let hops = 0; step !== null; hops++) {
			const next = parents.get(step);
			if (next === undefined) return { index, field: 'parentId', message: 'must be a root of this map' };
			if (hops > segments.length)
				return { index, field: 'parentId', message: 'must not lead back to the root itself' };
			step = next;
		}
	}
	return null;
}

/** A root and all that hangs on it. */
export function rootsFrom(
	segments: readonly Pick<Segment, 'id' | 'parentId'>[],
	rootId: string
): ReadonlySet<string> {
	const found = new Set([rootId]);
	for (let before = 0; before < found.size;) {
		before = found.size;
		for (const { id: own, parentId } of segments)
			if (parentId !== null && found.has(parentId)) found.add(own);
	}
	return found;
}

/**
 * Where a root leaves the trunk or its parent.
 * @returns degrees clockwise from the front
 */
export const startAzimuth = (segment: Pick<Segment, 'course'>): number => segment.course[0]?.azimuthDeg ?? 0;

/** Fine-root score taken when nobody looked: by class [our own]. */
export const usualFineScore: Record<RootClass, number> = { anchor: 1, scaffold: 2, secondary: 2, feeder: 3 };

export interface CourseSketch {
	azimuthDeg: number;
	diameterMm: number;
	lengthMm: number;
	depthMm: number;
	flaws: readonly RootFlaw[];
	trunk: Trunk;
	ballRadiusMm: number;
}

/**
 * A course drawn from what quick entry knows: straight outward, or bent as its flaw says. The points can be
 * dragged afterwards; this only saves the drawing.
 */
function sketchCourse(sketch: CourseSketch): CoursePoint[] {
	const { azimuthDeg, diameterMm, lengthMm, depthMm, flaws, trunk, ballRadiusMm } = sketch;
	const bark = barkRadiusMm(trunk, azimuthDeg) || 1;
	const barkAt = (turn: number): number => barkRadiusMm(trunk, azimuthDeg + turn) || bark;
	const reach = Math.max(bark + 5, Math.min(bark + lengthMm, ballRadiusMm));
	const at = (turn: number, radiusMm: number, depth = depthMm): CoursePoint => ({
		azimuthDeg: azimuthDeg + turn,
		radiusMm,
		depthMm: depth
	});
	const steps = [0, 1, 2, 3, 4, 5, 6];
	if (flaws.includes('girdling'))
		return [
			at(0, bark),
			...steps.map((step) => at(8 + step * 14, barkAt(8 + step * 14) + diameterMm / 2 + 1, depthMm))
		];
	if (flaws.includes('circling'))
		return [
			at(0, bark),
			at(6, (bark + ballRadiusMm) / 2),
			...steps.map((step) => at(16 + step * 22, ballRadiusMm - diameterMm / 2))
		];
	if (flaws.includes('turned-back'))
		return [
			at(0, bark),
			at(4, (bark + reach) / 2),
			at(16, reach * 0.9),
			at(30, (bark + reach) / 2),
			at(38, bark + diameterMm)
		];
	if (flaws.includes('crossing') || flaws.includes('non-radial'))
		return [
			at(0, bark),
			at(12, bark + (reach - bark) * 0.35),
			at(38, bark + (reach - bark) * 0.7),
			at(58, reach)
		];
	if (flaws.includes('descending'))
		return [
			at(0, bark),
			at(2, bark + (reach - bark) * 0.3, depthMm + lengthMm * 0.5),
			at(3, bark + (reach - bark) * 0.4, depthMm + lengthMm)
		];
	if (flaws.includes('rising'))
		return [
			at(0, bark),
			at(3, (bark + reach) / 2, depthMm * 0.3),
			at(5, reach, -Math.min(30, lengthMm * 0.2))
		];
	const bend = ((azimuthDeg * 7) % 11) - 5;
	return [
		at(0, bark),
		at(bend * 0.4, bark + (reach - bark) * 0.5, depthMm + 4),
		at(bend, reach, depthMm + 12)
	];
}

const turned = <T extends { azimuthDeg: number }>(point: T, byDeg: number): T => {
	const deg = point.azimuthDeg + byDeg;
	return { ...point, azimuthDeg: deg > 720 ? deg - 360 : deg < -360 ? deg + 360 : deg };
};

/** What takes a picture to a map, after the map was turned clockwise. */
function turnedPlan(toPlan: readonly number[], byDeg: number): number[] {
	const [c, s] = [Math.cos((byDeg * Math.PI) / 180), Math.sin((byDeg * Math.PI) / 180)];
	return [...after([c, -s, 0, s, c, 0, 0, 0, 1], toPlan)];
}

/** A map turned about its middle: everything on it, by so many degrees clockwise. */
export function turnMap(map: RootMapInput, byDeg: number): RootMapInput {
	const whole = (deg: number): number => ((deg % 360) + 360) % 360;
	return {
		...map,
		picture: map.picture && { ...map.picture, toPlan: turnedPlan(map.picture.toPlan, byDeg) },
		segments: map.segments.map((segment) => {
			// A course keeps in one piece and within the range that is stored.
			const shift = segment.course.some((p) => p.azimuthDeg + byDeg > 720)
				? byDeg - 360
				: segment.course.some((p) => p.azimuthDeg + byDeg < -360)
					? byDeg + 360
					: byDeg;
			return {
				...segment,
				course: segment.course.map((p) => ({ ...p, azimuthDeg: p.azimuthDeg + shift }))
			};
		}),
		stems: map.stems.map((stem) => ({
			...stem,
			centre: turned(stem.centre, byDeg),
			outline:
				stem.outline.shape === 'polygon'
					? { ...stem.outline, points: stem.outline.points.map((p) => turned(p, byDeg)) }
					: stem.outline.shape === 'ellipse'
						? { ...stem.outline, longAzimuthDeg: whole(stem.outline.longAzimuthDeg + byDeg) }
						: stem.outline
		})),
		lean: map.lean && { ...map.lean, towardDeg: whole(map.lean.towardDeg + byDeg) },
		obstacles: map.obstacles.map((obstacle) => ({
			...obstacle,
			points: obstacle.points.map((p) => turned(p, byDeg))
		}))
	};
}

/**
 * Roots seated anew after the trunk was measured better: where they leave it, and where they lie along it, they move with
 * the bark; the rest of their course stays.
 */
export function reseated(segments: readonly Segment[], before: Trunk, after: Trunk): Segment[] {
	return segments.map((segment) => {
		if (segment.parentId !== null) return segment;
		return {
			...segment,
			course: segment.course.map((point, index) => {
				const [old, bark] = [barkRadiusMm(before, point.azimuthDeg), barkRadiusMm(after, point.azimuthDeg)];
				const near = index === 0 || point.radiusMm <= old + 2 * segment.diameterStartMm;
				const radiusMm = index === 0 ? bark : near ? point.radiusMm + bark - old : point.radiusMm;
				return { ...point, radiusMm: Math.min(20_000, Math.max(index === 0 ? 0 : bark, radiusMm)) };
			})
		};
	});
}

/** A root with all that hangs on it, copied evenly round the ring: `count` in all, the one that stands among them. */
export function copiesRound(
	segments: readonly Segment[],
	rootId: string,
	count: number,
	newId: () => string
): Segment[] {
	const among = rootsFrom(segments, rootId);
	const family = segments.filter((segment) => among.has(segment.id));
	return Array.from({ length: Math.max(0, count - 1) }, (_, i) => {
		const byDeg = ((i + 1) * 360) / count;
		const ids = new Map(family.map((segment) => [segment.id, newId()]));
		return family.map((segment): Segment => {
			const over = segment.course.some((p) => p.azimuthDeg + byDeg > 720) ? 360 : 0;
			return {
				...segment,
				id: ids.get(segment.id) ?? segment.id,
				measuredIn: null,
				depthIn: null,
				parentId: segment.parentId === null ? null : (ids.get(segment.parentId) ?? segment.parentId),
				keep: false,
				course: segment.course.map((p) => ({ ...p, azimuthDeg: p.azimuthDeg + byDeg - over }))
			};
		});
	}).flat();
}

/** What quick entry and the keys produce before it becomes a segment. */
export interface QuickRoot {
	azimuthDeg: number;
	diameterMm: number;
	rootClass: RootClass;
	condition: RootCondition;
	deadFromMm: number | null;
	doubtfulFromMm: number | null;
	seenToMm: number | null;
	depthMm: number;
	lengthMm: number | null;
	flaws: RootFlaw[];
	/** What was not said of it. */
	guessed: GuessedOfRoot[];
	sourceKnown: boolean;
	keep: boolean;
	/** Stage to cut it in, 0 being now; null when undecided. */
	stage: number | null;
	note: string;
}

/** A full segment from a quick root, drawn on this map. */
export function segmentFromQuick(
	quick: QuickRoot,
	map: Trunk & Pick<RootMap, 'ballRadiusMm'>,
	segmentId: string
): Segment {
	const lengthMm =
		quick.lengthMm ??
		Math.max(30, Math.min(quick.diameterMm * 12, map.ballRadiusMm - barkRadiusMm(map, quick.azimuthDeg)));
	return {
		id: segmentId,
		parentId: null,
		attachMm: 0,
		rootClass: quick.rootClass,
		condition: quick.condition,
		deadFromMm: quick.condition === 'dead' ? (quick.deadFromMm ?? 0) : null,
		doubtfulFromMm: quick.condition === 'sound' ? null : quick.doubtfulFromMm,
		seenToMm: quick.seenToMm,
		diameterStartMm: quick.diameterMm,
		diameterEndMm: Math.max(0.2, Math.round(quick.diameterMm * 4) / 10),
		fineScore: usualFineScore[quick.rootClass],
		flaws: quick.flaws,
		guessed: quick.guessed,
		seenOtherwise: [],
		sourceKnown: quick.sourceKnown,
		keep: quick.keep,
		measuredIn: null,
		depthIn: null,
		course: sketchCourse({ ...quick, lengthMm, trunk: map, ballRadiusMm: map.ballRadiusMm }),
		note: quick.note
	};
}

/** Anchors and the like by thickness against the trunk, when no class was said [our own]. */
export function usualClass(diameterMm: number, trunkDiameterMm: number, values: Values): RootClass {
	const ratio = diameterMm / trunkDiameterMm;
	if (ratio >= values['class.anchor']) return 'anchor';
	if (ratio >= values['class.scaffold']) return 'scaffold';
	return ratio >= values['class.secondary'] ? 'secondary' : 'feeder';
}

/** How deep a root lies where nobody said, mm: about as deep as it is thick [our own]. */
export const usualDepthMm = (diameterMm: number): number => Math.min(40, Math.max(8, Math.round(diameterMm)));
