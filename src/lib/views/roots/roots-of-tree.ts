import type { LiftEnd } from '$core/replant/lifting/ends';
import type { Place } from '$core/vocabulary/place';
import type { Kind } from '$core/vocabulary/kind';
import type { Observation } from '$core/examine/looks/observation';
import type { Plan } from '$core/roots/plan/plan';
import type { RootMap } from '$core/roots/map/root-map';
import type { PotMate } from '$core/roots/map/mates';
import type { OpenFlag } from '$core/aftercare/tasks/flags';
import type { Permission } from '$core/vocabulary/words';
import type { Picture } from '$core/take-in/picture';
import type { Tree } from '$core/take-in/tree';
import type { Values } from '$core/values/values';

/** What the views of the roots of a tree are made from. */
export interface RootsOfTree {
	tree: Tree;
	kind: Kind;
	place: Place;
	values: Values;
	today: string;
	rootMap: RootMap | null;
	plan: Plan | null;
	/** Looks at the tree, and the best shoots of its reference: what a later stage waits for. */
	observations: readonly Observation[];
	referenceShootMm: number | null;
	/** What a qualified person has still to see: until then no structural root is planned to be cut. */
	flags: readonly OpenFlag[];
	/** Share of its roots that a lift left it, of what its crown had grown with; 1 where it was not lifted. */
	liftLeft: number;
	/** Its ball as it was last measured, mm; null where nobody did. */
	ball: { widthMm: number | null; depthMm: number | null };
	/** Ends that lifts left, where the log says. */
	ends: readonly LiftEnd[];
	/** How far it was really tilted when it was last set; null where nobody looked. */
	tiltDone: { deg: number; on: string } | null;
	/** Permission as it was last said: whose word is asked before a structural root is cut. */
	permission: Permission;
	/** Its buds as they were last seen, and on what day. */
	buds: { value: string | null; on: string | null };
	/** Coldest night ahead of freshly cut roots, °C; null for roots that stay in the ground. */
	nightC: number | null;
	/** Its pictures, in order of their days. */
	pictures: readonly Picture[];
	/** Other trees in the same pot. */
	mates: readonly PotMate[];
}
