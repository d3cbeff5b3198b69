import type { Holding } from '$core/replant/pots/seat';
import { roundPot } from '$core/replant/pots/volume';
import type { WorkDone } from '$core/aftercare/tasks/rules';
import { defaultValues } from '$core/values/values';
import type { TreeRecords } from '$core/tree/case';
import { placeSchema } from '$core/vocabulary/place';
import { examinationSchema } from '$core/examine/diagnosis/examination';
import { pottingMixOf } from '$core/replant/mixes/mixes';
import { plantingSchema } from '$core/replant/pots/replant-plan';
import { shippedKinds } from '$core/vocabulary/shipped';
import { parseQuickRoot } from '$core/roots/io/quick-entry';
import { planSchema, type Cut } from '$core/roots/plan/plan';
import { rootMapSchema, segmentFromQuick } from '$core/roots/map/root-map';
import { ownMixSchema } from '$core/replant/kit/stock';
import { treeSchema } from '$core/take-in/tree';
import type { LookSeen } from '$core/recovery/evidence';
import type { ReplantOf } from '$views/replant/replant-state.svelte';

const kind = shippedKinds.find((candidate) => candidate.id === 'carpinus');
if (!kind) throw new Error('no hornbeam');

const segments = [
	'6 30 anchor',
	'9 30 anchor',
	'12 30 anchor',
	'3 30 anchor',
	'4 30 scaffold',
	'8 20 dead'
].map((line, i) => {
	const entry = parseQuickRoot(line, 'container', 80, defaultValues);
	if (!entry.ok) throw new Error(entry.problem);
	return {
		...segmentFromQuick(entry.root, { trunkDiameterMm: 80, ballRadiusMm: 180 }, `r${i}`),
		fineScore: 2
	};
});
/** A cut of one root, planned or done. */
export const cut = (
	segmentId: string,
	stage: number,
	doneOn: string | null = null,
	state?: Cut['state']
): Cut => ({
	id: `c-${segmentId}`,
	segmentId,
	atMm: 0,
	stage,
	reason: '',
	state: state ?? (doneOn ? 'done' : 'planned'),
	doneOn,
	note: '',
	byOwner: false,
	whyThen: '',
	plannedAtMm: null,
	treatments: [],
	ofPlanned: null,
	because: ''
});

/** A look of which the forecast hears nothing, on a day of the season. */
export const silentLook: LookSeen = {
	observedOn: '2026-07-15',
	progress: 0.45,
	buds: null,
	leafCover: null,
	leafState: null,
	shootExtensionMm: null,
	diebackLimitMm: null,
	firmness: null,
	whiteTips: null,
	smell: null
};

/** What a browser keeps for a page, in memory. */
export const memory = () => {
	const kept = new Map<string, string>();
	return {
		kept,
		getItem: (key: string) => kept.get(key) ?? null,
		setItem: (key: string, value: string) => void kept.set(key, value),
		removeItem: (key: string) => void kept.delete(key)
	};
};

/** An open bench at 52° north. */
export const bench = placeSchema.parse({
	id: 'p',
	version: 1,
	name: 'Bench',
	kind: 'open',
	latitudeDeg: 52,
	note: ''
});

/** A third of the roots of a potted hornbeam cut in February. */
export const worked: WorkDone = {
	workOn: '2026-02-10',
	group: 'deciduous',
	tender: false,
	coldestC: -15,
	inGround: false,
	livingLoss: 0.35,
	lifted: false,
	rotWasCut: false,
	structuralCut: false,
	collarWork: false,
	tooHeavy: false,
	seasonFit: 'in-window',
	crownSchool: 'keep-leaves',
	waterSchool: 'at-once',
	crownExcess: 0.25,
	nextStageOn: '2027-02-01',
	suckers: false,
	crownTaken: 0,
	plantCount: 1,
	inLeaf: true,
	leafOutOn: null,
	feedSeasonOn: null,
	budsOn: null,
	coldLimitC: 0,
	coldFromOn: '2026-02-10'
};

/** A potted hornbeam of 80 mm with five sound roots and a dead one, examined and mapped, and nothing else. */
export function treeRecords(change: Partial<TreeRecords> = {}, cuts: Cut[] = []): TreeRecords {
	return {
		tree: treeSchema.parse({
			id: 't',
			version: 1,
			tag: 'T-1',
			name: 'Hornbeam',
			kindId: 'carpinus',
			placeId: 'p',
			situation: 'potted',
			trunkDiameterMm: 80,
			takenInOn: '2025-02-01',
			state: 'in-care',
			closedOn: null
		}),
		kind: kind as TreeRecords['kind'],
		places: [bench],
		examinations: [examinationSchema.parse({ id: 'e', version: 1, examinedOn: '2025-02-02', findings: [] })],
		measurements: [],
		triages: [],
		factorChanges: [],
		rootMap: rootMapSchema.parse({
			id: 'm',
			version: 1,
			mappedOn: '2025-02-03',
			frame: 'container',
			trunkDiameterMm: 80,
			ballRadiusMm: 180,
			segments
		}),
		plan: planSchema.parse({
			id: 'q',
			version: 1,
			temper: 'usual',
			vigour: 'fair',
			reserves: 'field-grown',
			stageDates: ['2025-02-10', '2026-11-10'],
			cuts
		}),
		lifts: [],
		replantPlan: null,
		plantings: [],
		groundPlans: [],
		waterings: [],
		tasks: [],
		observations: [],
		pictures: [],
		backups: [],
		decisions: [],
		book: [],
		mates: [],
		forecasts: [],
		rehearsals: [],
		journal: [],
		...change
	};
}

/** A hornbeam of 80 mm, just lifted, whose roots are not mapped yet, as a map that is worked on takes it. */
export const freshRoots = {
	tree: treeSchema.parse({
		id: 't',
		version: 1,
		tag: 'T-1',
		name: 'Hornbeam',
		kindId: 'carpinus',
		placeId: 'p',
		situation: 'just-lifted',
		trunkDiameterMm: 80,
		takenInOn: '2026-02-01',
		state: 'in-care',
		closedOn: null
	}),
	kind,
	place: bench,
	values: defaultValues,
	today: '2026-02-10',
	observations: [],
	referenceShootMm: null,
	flags: [],
	liftLeft: 1,
	permission: 'own' as const,
	ball: { widthMm: null, depthMm: null },
	ends: [],
	tiltDone: null,
	nightC: 8,
	buds: { value: null, on: null },
	pictures: [],
	mates: [],
	rootMap: null,
	plan: null
};

/** A planting of the hornbeam in a round pot of 300 mm, as of a day. */
export const plantingOn = (plantedOn: string, change: object = {}, id = 'planting') =>
	plantingSchema.parse({
		id,
		version: 1,
		plantedOn,
		pot: roundPot(300, 240, 200),
		sizeRule: 'normal',
		ballDiameterMm: 220,
		ballDepthMm: 140,
		mix: pottingMixOf('pumice-bark'),
		headspaceMm: 20,
		...change
	});

/** A mix of one's own: two parts of pumice to one of bark. */
export const yardMix = ownMixSchema.parse({
	id: 'm1',
	version: 1,
	name: 'Yard mix',
	parts: [
		{ componentId: 'pumice-medium', parts: 2 },
		{ componentId: 'bark-fine', parts: 1 }
	],
	afterRot: true,
	note: ''
});

/** What the planting of the potted hornbeam is planned from, with nothing in stock but a mix of one's own. */
export const replantOf = (change: Partial<ReplantOf> = {}): ReplantOf => {
	const records = treeRecords();
	return {
		records,
		kind: { ...records.kind, origin: 'shipped', version: 1 },
		places: records.places,
		values: defaultValues,
		today: '2026-04-18',
		lastWork: null,
		goneRoots: [],
		stock: { pots: [], items: [], mixes: [yardMix] },
		near: {},
		weighedFunction: null,
		urgent: null,
		...change
	};
};

/** How it is set in a pot, held by one thing or another. */
export const seatHeldBy = (holding: Holding) => ({
	height: 'mound' as const,
	flareOverRimMm: 10,
	moundMm: 20,
	screens: 1,
	extraHoles: 0,
	holeMm: 0,
	pockets: 'stick' as const,
	firming: 'press' as const,
	holding,
	wires: [],
	pads: 0,
	stones: 0,
	stoneKg: 0,
	tiltDeg: null,
	tiltTowardDeg: null,
	offOn: holding === 'own-stance' ? null : '2027-04-20'
});
