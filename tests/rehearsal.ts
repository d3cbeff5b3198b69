import { rehearsedPlan, type RehearsedPlan } from '$core/recovery/rehearsal/plan';
import { rehearsalScene, type RehearsalScene } from '$core/rehearse/scene';

/** An open bench at 52° north. */
export const bench = { kind: 'open' as const, latitudeDeg: 52, elevationM: 30, heldMinimumC: null };
/** A 5-litre pot whose mix drains well. */
export const airyPot = {
	id: 'now',
	label: 'the pot it stands in',
	rootedMostL: 2,
	unrootedMostL: 3,
	surfaceM2: 0.09,
	crownM2: 0.3,
	airSpace: 0.2,
	held: 0.35,
	replants: false
};
/** The same with a mix that hardly lets air in. */
export const closePot = { ...airyPot, airSpace: 0.05, held: 0.4 };

/** A deciduous tree seven weeks after root work, nothing wrong with its roots. */
export const sceneOf = (
	change: Partial<Record<keyof RehearsalScene, unknown>> = {},
	recovery: Record<string, unknown> = {}
): RehearsalScene =>
	rehearsalScene.parse({
		recovery: {
			sinceOn: '2026-03-01',
			today: '2026-04-18',
			odds: 1.2,
			oddsSpread: 0.6,
			begin: 0.6,
			losses: [],
			place: bench,
			...recovery
		},
		group: 'deciduous',
		liftingWindow: 'leafless',
		coldestC: -8,
		wetnessTrigger: 0.5,
		rotChance: 0,
		airlessChance: 0,
		pots: [airyPot],
		places: [{ id: 'here', label: 'Bench', ...bench }],
		...change
	});

/** A plan by what it changes of leaving all as it is. */
export const planOf = (change: Partial<RehearsedPlan> = {}): RehearsedPlan =>
	rehearsedPlan.parse({ name: 'As planned', ...change });
