import { sql } from 'drizzle-orm';
import { index, integer, primaryKey, real, sqliteTable, text, uniqueIndex } from 'drizzle-orm/sqlite-core';
import type { BookDetails, BookKind } from '../../core/aftercare/book/book';
import type { Backup } from '../../core/recovery/backup';
import type { KeptRehearsal } from '../../core/recovery/rehearsal/kept';
import type { SaidForecast } from '../../core/recovery/said';
import type { Judged } from '../../core/practice/judged';
import type { PracticeAct, PracticeWish } from '../../core/practice/round';
import type { Role, SharedPage } from '../../core/vocabulary/people';
import type { Release } from '../../core/vocabulary/task';
import type { Factor } from '../../core/tree/changes';
import type { RecentEvent } from '../../core/vocabulary/season-and-events';
import type { Finding } from '../../core/examine/diagnosis/finding';
import type { RawReading } from '../../core/examine/measuring/measurement';
import type { LiftLog } from '../../core/replant/lifting/lift';
import type { Route } from '../../core/replant/lifting/route';
import type { GroundPlan } from '../../core/replant/ground/ground-plan';
import type { MeasuredMix, MixReuse, PottingMix } from '../../core/replant/mixes/bench-test';
import type { MixPart } from '../../core/replant/mixes/retention';
import type { Guessable, ReplantPlan } from '../../core/replant/pots/replant-plan';
import type { FunctionLow, WaterState } from '../../core/tree/water-state';
import type { Seat } from '../../core/replant/pots/seat';
import type { Pot } from '../../core/replant/pots/volume';
import type { PolarPoint, Stem } from '../../core/roots/map/outline';
import type { Consent, Cut } from '../../core/roots/plan/plan';
import type { CoursePoint } from '../../core/roots/map/geometry';
import type { GuessedOfRoot, Obstacle, RootFlaw, RootMap, Segment } from '../../core/roots/map/root-map';
import type { StandingKept } from '../../core/tree/kept';
import type { Setting } from '../../core/roots/plan/plan';

/**
 * Column names are the field names of the schemas in core; units are in the names. Instants are ISO texts in UTC, dates
 * of work are calendar dates. Every row a person writes carries a version.
 */

const identity = () => text().primaryKey();
const rowVersion = () => integer().notNull().default(1);

export const place = sqliteTable('place', {
	id: identity(),
	name: text().notNull(),
	kind: text().notNull(),
	latitudeDeg: real().notNull(),
	longitudeDeg: real(),
	elevationM: real().notNull(),
	heldMinimumC: real(),
	coldestMonthC: real(),
	warmestMonthC: real(),
	light: text(),
	wind: text(),
	waterM: real(),
	note: text().notNull(),
	version: rowVersion()
});

export const kind = sqliteTable('kind', {
	id: identity(),
	genus: text().notNull(),
	commonName: text().notNull(),
	group: text('group_name').notNull(),
	coldestC: real().notNull(),
	wetnessTrigger: real().notNull(),
	liftingWindow: text().notNull(),
	sap: text().notNull(),
	caution: text().notNull(),
	origin: text().notNull(),
	version: rowVersion()
});

export const tree = sqliteTable(
	'tree',
	{
		id: identity(),
		tag: text().notNull(),
		name: text().notNull(),
		kindId: text()
			.notNull()
			.references(() => kind.id),
		placeId: text()
			.notNull()
			.references(() => place.id),
		situation: text().notNull(),
		trunkDiameterMm: real().notNull(),
		heightM: real(),
		plantCount: integer().notNull(),
		origin: text().notNull(),
		permission: text().notNull(),
		vigour: text().notNull(),
		reserves: text().notNull(),
		batch: text().notNull(),
		watering: text().notNull().default(''),
		sharedPot: text().notNull().default(''),
		takenInOn: text().notNull(),
		/** Soft link: the reference may be a tree of another yard. */
		referenceTreeId: text(),
		/** Soft link: the tree it was struck from may be gone. */
		parentTreeId: text(),
		note: text().notNull(),
		state: text().notNull(),
		closedOn: text(),
		closingNote: text().notNull(),
		lossCause: text(),
		lossConditions: text().notNull().default(''),
		shownEarlier: text().notNull().default(''),
		version: rowVersion()
	},
	(table) => [
		uniqueIndex('tree_tag').on(sql`lower(${table.tag})`),
		index('tree_place').on(table.placeId),
		index('tree_kind').on(table.kindId, table.takenInOn, table.state),
		index('tree_state').on(table.state)
	]
);

const ofTree = () =>
	text()
		.notNull()
		.references(() => tree.id, { onDelete: 'cascade' });

export const examination = sqliteTable(
	'examination',
	{
		id: identity(),
		treeId: ofTree(),
		examinedOn: text().notNull(),
		note: text().notNull(),
		events: text({ mode: 'json' }).$type<RecentEvent[]>().notNull().default([]),
		failingFast: integer({ mode: 'boolean' }).notNull().default(false),
		version: rowVersion()
	},
	(table) => [index('examination_tree').on(table.treeId, table.examinedOn)]
);

export const finding = sqliteTable(
	'finding',
	{
		ownerId: text()
			.notNull()
			.references(() => examination.id, { onDelete: 'cascade' }),
		position: integer().notNull(),
		signId: text().$type<Finding['signId']>().notNull(),
		grade: integer().notNull().default(0),
		/** Soft link: a measurement that was taken back leaves its finding. */
		measuredBy: text()
	},
	(table) => [primaryKey({ columns: [table.ownerId, table.position] })]
);

export const measurement = sqliteTable(
	'measurement',
	{
		id: identity(),
		treeId: ofTree(),
		measuredOn: text().notNull(),
		note: text().notNull(),
		raw: text({ mode: 'json' }).$type<RawReading>().notNull(),
		version: rowVersion()
	},
	(table) => [index('measurement_tree').on(table.treeId, table.measuredOn)]
);

export const triage = sqliteTable(
	'triage',
	{
		id: identity(),
		treeId: ofTree(),
		decidedOn: text().notNull(),
		purpose: text().notNull(),
		vitality: text().notNull(),
		scratchAlive: integer({ mode: 'boolean' }),
		permission: text().notNull(),
		protectedSpecies: integer({ mode: 'boolean' }),
		servicesLocated: integer({ mode: 'boolean' }),
		pests: text().notNull(),
		rootsKept: real(),
		ballDiameterMm: real(),
		ballDepthMm: real(),
		helpers: integer().notNull(),
		machine: integer({ mode: 'boolean' }).notNull(),
		dyingInPlace: integer({ mode: 'boolean' }).notNull(),
		decision: text().notNull(),
		/** Soft link: the second choice may be a tree of another yard. */
		secondTreeId: text(),
		backups: integer().notNull(),
		note: text().notNull(),
		version: rowVersion()
	},
	(table) => [index('triage_tree').on(table.treeId, table.decidedOn)]
);

export const factorChange = sqliteTable(
	'factor_change',
	{
		id: identity(),
		treeId: ofTree(),
		changedOn: text().notNull(),
		factors: text({ mode: 'json' }).$type<Factor[]>().notNull(),
		note: text().notNull(),
		version: rowVersion()
	},
	(table) => [index('factor_change_tree').on(table.treeId, table.changedOn)]
);

export const rootMap = sqliteTable(
	'root_map',
	{
		id: identity(),
		treeId: ofTree(),
		mappedOn: text().notNull(),
		frame: text().notNull(),
		trunkDiameterMm: real().notNull(),
		stems: text({ mode: 'json' }).$type<Stem[]>().notNull().default([]),
		ballRadiusMm: real().notNull(),
		ballDepthMm: real(),
		lean: text({ mode: 'json' }).$type<{ towardDeg: number; deg: number }>(),
		inPot: text({ mode: 'json' }).$type<PolarPoint>(),
		picture: text({ mode: 'json' }).$type<RootMap['picture']>(),
		obstacles: text({ mode: 'json' }).$type<Obstacle[]>().notNull().default([]),
		version: rowVersion()
	},
	(table) => [uniqueIndex('root_map_tree').on(table.treeId)]
);

export const rootSegment = sqliteTable(
	'root_segment',
	{
		ownerId: text()
			.notNull()
			.references(() => rootMap.id, { onDelete: 'cascade' }),
		position: integer().notNull(),
		id: text().notNull(),
		parentId: text(),
		attachMm: real().notNull(),
		rootClass: text().notNull(),
		condition: text('tissue_condition').notNull(),
		deadFromMm: real(),
		doubtfulFromMm: real(),
		seenToMm: real(),
		diameterStartMm: real().notNull(),
		diameterEndMm: real().notNull(),
		fineScore: integer().notNull(),
		flaws: text({ mode: 'json' }).$type<RootFlaw[]>().notNull(),
		seenOtherwise: text({ mode: 'json' }).$type<string[]>().notNull().default([]),
		guessed: text({ mode: 'json' }).$type<GuessedOfRoot[]>().notNull().default([]),
		sourceKnown: integer({ mode: 'boolean' }).notNull(),
		keep: integer('keep_root', { mode: 'boolean' }).notNull(),
		measuredIn: text({ mode: 'json' }).$type<Segment['measuredIn']>(),
		depthIn: text({ mode: 'json' }).$type<Segment['depthIn']>(),
		course: text({ mode: 'json' }).$type<CoursePoint[]>().notNull(),
		note: text().notNull()
	},
	(table) => [primaryKey({ columns: [table.ownerId, table.id] })]
);

export const reductionPlan = sqliteTable(
	'reduction_plan',
	{
		id: identity(),
		treeId: ofTree(),
		temper: text().notNull(),
		vigour: text().notNull(),
		reserves: text().notNull(),
		stageDates: text({ mode: 'json' }).$type<string[]>().notNull(),
		notBefore: text({ mode: 'json' }).$type<{ segmentId: string; stage: number }[]>().notNull().default([]),
		consents: text({ mode: 'json' }).$type<Consent[]>().notNull().default([]),
		setting: text({ mode: 'json' }).$type<Setting>(),
		version: rowVersion()
	},
	(table) => [uniqueIndex('reduction_plan_tree').on(table.treeId)]
);

export const cut = sqliteTable(
	'cut',
	{
		ownerId: text()
			.notNull()
			.references(() => reductionPlan.id, { onDelete: 'cascade' }),
		position: integer().notNull(),
		id: text().notNull(),
		segmentId: text().notNull(),
		atMm: real().notNull(),
		plannedAtMm: real(),
		stage: integer().notNull(),
		reason: text().notNull(),
		state: text().notNull(),
		doneOn: text(),
		note: text().notNull(),
		byOwner: integer({ mode: 'boolean' }).notNull().default(false),
		whyThen: text().notNull().default(''),
		treatments: text({ mode: 'json' }).$type<string[]>().notNull().default([]),
		ofPlanned: text({ mode: 'json' }).$type<Cut['ofPlanned']>(),
		because: text().notNull().default('')
	},
	(table) => [primaryKey({ columns: [table.ownerId, table.id] })]
);

export const planting = sqliteTable(
	'planting',
	{
		id: identity(),
		treeId: ofTree(),
		plantedOn: text().notNull(),
		pot: text({ mode: 'json' }).$type<Pot>().notNull(),
		sizeRule: text().notNull(),
		ballDiameterMm: real().notNull(),
		ballDepthMm: real().notNull(),
		mix: text({ mode: 'json' })
			.$type<PottingMix>()
			.notNull()
			.default({ name: '', parts: [], measured: null }),
		reuse: text({ mode: 'json' }).$type<MixReuse>().notNull().default({ history: 'new', because: '' }),
		seat: text({ mode: 'json' }).$type<Seat>(),
		crownWidthMm: real(),
		coarseLayerMm: real().notNull(),
		coarseId: text().notNull().default('grit-coarse'),
		topLayerMm: real().notNull(),
		topId: text(),
		headspaceMm: real().notNull(),
		plantCount: integer().notNull(),
		placeId: text().references(() => place.id),
		assumed: text({ mode: 'json' }).$type<Guessable[]>(),
		note: text().notNull(),
		version: rowVersion()
	},
	(table) => [index('planting_tree').on(table.treeId, table.plantedOn)]
);

export const lift = sqliteTable(
	'lift',
	{
		id: identity(),
		treeId: ofTree(),
		plannedOn: text().notNull(),
		school: text().notNull(),
		reading: text().notNull(),
		ballDiameterMm: real().notNull(),
		ballDepthMm: real().notNull(),
		people: integer().notNull(),
		route: text({ mode: 'json' }).$type<Route>().notNull(),
		ticks: text({ mode: 'json' }).$type<string[]>().notNull(),
		log: text('lift_log', { mode: 'json' }).$type<LiftLog>(),
		version: rowVersion()
	},
	(table) => [index('lift_tree').on(table.treeId, table.plannedOn)]
);

export const replantPlan = sqliteTable(
	'replant_plan',
	{
		id: identity(),
		treeId: ofTree(),
		planting: text({ mode: 'json' }).$type<ReplantPlan['planting']>().notNull(),
		/** Soft link: the pot may have gone out of the stock. */
		stockPotId: text(),
		waterSchool: text().notNull(),
		takeFromStock: integer({ mode: 'boolean' }).notNull(),
		version: rowVersion()
	},
	(table) => [uniqueIndex('replant_plan_tree').on(table.treeId)]
);

export const groundPlan = sqliteTable(
	'ground_plan',
	{
		id: identity(),
		treeId: ofTree(),
		plannedOn: text().notNull(),
		placeId: text().references(() => place.id),
		hole: text({ mode: 'json' }).$type<GroundPlan['hole']>(),
		holding: text({ mode: 'json' }).$type<GroundPlan['holding']>(),
		collar: text({ mode: 'json' }).$type<GroundPlan['collar']>(),
		loosening: text({ mode: 'json' }).$type<GroundPlan['loosening']>(),
		mulch: text({ mode: 'json' }).$type<GroundPlan['mulch']>(),
		sulphur: text({ mode: 'json' }).$type<GroundPlan['sulphur']>(),
		doneOn: text(),
		note: text().notNull(),
		version: rowVersion()
	},
	(table) => [index('ground_plan_tree').on(table.treeId, table.plannedOn)]
);

export const stockPot = sqliteTable('stock_pot', {
	id: identity(),
	name: text().notNull(),
	pot: text({ mode: 'json' }).$type<Pot>().notNull(),
	holes: integer().notNull(),
	holeMm: real().notNull(),
	massKg: real(),
	material: text().notNull(),
	count: integer('pot_count').notNull(),
	price: real(),
	note: text().notNull(),
	version: rowVersion()
});

export const stockItem = sqliteTable(
	'stock_item',
	{
		id: identity(),
		item: text().notNull(),
		packSize: real().notNull(),
		packs: integer().notNull(),
		opened: real().notNull(),
		price: real(),
		note: text().notNull(),
		version: rowVersion()
	},
	(table) => [uniqueIndex('stock_item_item').on(table.item)]
);

export const ownMix = sqliteTable('own_mix', {
	id: identity(),
	name: text().notNull(),
	parts: text({ mode: 'json' }).$type<MixPart[]>().notNull(),
	measured: text({ mode: 'json' }).$type<MeasuredMix>(),
	afterRot: integer({ mode: 'boolean' }).notNull(),
	note: text().notNull(),
	version: rowVersion()
});

export const task = sqliteTable(
	'task',
	{
		id: identity(),
		treeId: ofTree(),
		kind: text().notNull(),
		title: text().notNull(),
		reason: text().notNull(),
		mark: text().notNull(),
		stage: text().notNull(),
		fromOn: text().notNull(),
		toOn: text().notNull(),
		minutes: integer().notNull(),
		release: text({ mode: 'json' }).$type<Release>(),
		everyDays: integer(),
		state: text().notNull(),
		closedOn: text(),
		skipReason: text().notNull(),
		result: text().notNull().default(''),
		source: text().notNull(),
		version: rowVersion()
	},
	(table) => [
		index('task_next').on(table.treeId, table.state, table.toOn),
		index('task_open').on(table.state, table.fromOn)
	]
);

export const watering = sqliteTable(
	'watering',
	{
		id: identity(),
		treeId: ofTree(),
		wateredOn: text().notNull(),
		litres: real(),
		ranOutL: real(),
		beforeKg: real(),
		afterKg: real(),
		way: text().notNull(),
		note: text().notNull(),
		version: rowVersion()
	},
	(table) => [index('watering_tree').on(table.treeId, table.wateredOn)]
);

/** Water of each tree as last reckoned; made anew where its records, the weather or the day changed. */
export const treeWater = sqliteTable('tree_water', {
	treeId: text()
		.primaryKey()
		.references(() => tree.id, { onDelete: 'cascade' }),
	/** What it was reckoned from. */
	basis: text().notNull(),
	/** Water of a tree whose pot or ground is known; null for others. */
	state: text({ mode: 'json' }).$type<WaterState>(),
	/** How it stands, as Today needs it. */
	standing: text({ mode: 'json' }).$type<StandingKept>(),
	/** Long, and read only where work waits for the roots. */
	functionLow: text({ mode: 'json' }).$type<FunctionLow>().notNull().default([])
});

/**
 * How often what kept results are worked out from was written: one row for each tree ("tree:" and its id), kind and device, and one for
 * all places, for the weather and for the working values. Triggers of the database count it, so that no way of writing goes round it.
 */
export const revision = sqliteTable('revision', {
	scope: text().primaryKey(),
	count: integer().notNull()
});

export const weatherDay = sqliteTable(
	'weather_day',
	{
		id: identity(),
		placeId: text()
			.notNull()
			.references(() => place.id, { onDelete: 'cascade' }),
		on: text('on_day').notNull(),
		source: text().notNull(),
		from: text('from_what').notNull(),
		minC: real().notNull(),
		maxC: real().notNull(),
		humidityPercent: real(),
		windMs: real(),
		gustMs: real(),
		sunMj: real(),
		rainMm: real(),
		version: rowVersion()
	},
	(table) => [uniqueIndex('weather_day_of').on(table.placeId, table.on, table.source)]
);

export const device = sqliteTable(
	'device',
	{
		id: identity(),
		name: text().notNull(),
		kind: text().notNull(),
		onTreeId: text().references(() => tree.id, { onDelete: 'set null' }),
		placeId: text().references(() => place.id, { onDelete: 'set null' }),
		/** SHA-256 of the token; the token itself is shown once. */
		tokenHash: text().notNull(),
		simulated: integer({ mode: 'boolean' }).notNull(),
		version: rowVersion()
	},
	(table) => [uniqueIndex('device_token').on(table.tokenHash)]
);

export const reading = sqliteTable(
	'reading',
	{
		deviceId: text()
			.notNull()
			.references(() => device.id, { onDelete: 'cascade' }),
		at: text('at_instant').notNull(),
		weightKg: real(),
		moisture: real(),
		temperatureC: real(),
		humidityPercent: real(),
		battery: real()
	},
	(table) => [primaryKey({ columns: [table.deviceId, table.at] })]
);

/** Readings of a device by the hour, counted on by a trigger with each reading: what pages and calculations read of many. */
export const readingHour = sqliteTable(
	'reading_hour',
	{
		deviceId: text()
			.notNull()
			.references(() => device.id, { onDelete: 'cascade' }),
		/** By UTC, like `2026-04-17T10`. */
		hour: text().notNull(),
		firstAt: text().notNull(),
		lastAt: text().notNull(),
		count: integer().notNull(),
		/** Least weight of the hour. */
		lowestKg: real(),
		/** These as they were told last in the hour. */
		weightKg: real(),
		moisture: real(),
		temperatureC: real(),
		humidityPercent: real(),
		battery: real()
	},
	(table) => [primaryKey({ columns: [table.deviceId, table.hour] })]
);

export const observation = sqliteTable(
	'observation',
	{
		id: identity(),
		treeId: ofTree(),
		observedOn: text().notNull(),
		buds: text(),
		leafCover: real(),
		leafState: text(),
		shootExtensionMm: real(),
		shootsMm: text({ mode: 'json' }).$type<number[]>().notNull().default([]),
		healthyShootMm: real(),
		diebackLimitMm: real(),
		weightKg: real(),
		firmness: text(),
		whiteTips: integer({ mode: 'boolean' }),
		rootsAtEdge: integer({ mode: 'boolean' }),
		smell: text(),
		pests: text(),
		suckers: integer(),
		woundwoodMm: real(),
		sample: text({ mode: 'json' }).$type<{ looked: number; alive: number }>(),
		lostCount: real(),
		note: text().notNull(),
		version: rowVersion()
	},
	(table) => [index('observation_tree').on(table.treeId, table.observedOn)]
);

/** Pictures of a tree; their files lie beside the database, named by their hash. */
export const picture = sqliteTable(
	'picture',
	{
		id: identity(),
		treeId: ofTree(),
		takenOn: text().notNull(),
		view: text().notNull(),
		hash: text().notNull(),
		widthPx: integer().notNull(),
		heightPx: integer().notNull(),
		greenness: real(),
		focalShare: real(),
		note: text().notNull(),
		version: rowVersion()
	},
	(table) => [index('picture_tree').on(table.treeId, table.takenOn)]
);

export const backup = sqliteTable(
	'backup',
	{
		id: identity(),
		treeId: ofTree(),
		takenOn: text().notNull(),
		kind: text().notNull(),
		source: text().notNull(),
		lengthMm: real(),
		treatment: text().notNull(),
		count: integer().notNull(),
		note: text().notNull(),
		events: text({ mode: 'json' }).$type<Backup['events']>().notNull(),
		version: rowVersion()
	},
	(table) => [index('backup_tree').on(table.treeId, table.takenOn)]
);

export const bookEntry = sqliteTable(
	'book_entry',
	{
		id: identity(),
		treeId: ofTree(),
		kind: text().$type<BookKind>().notNull(),
		on: text('on_day').notNull(),
		details: text({ mode: 'json' }).$type<BookDetails>().notNull(),
		note: text().notNull(),
		version: rowVersion()
	},
	(table) => [index('book_entry_tree').on(table.treeId, table.on)]
);

export const decision = sqliteTable(
	'decision',
	{
		id: identity(),
		treeId: ofTree(),
		decidedOn: text().notNull(),
		advised: text().notNull(),
		decided: text().notNull(),
		because: text().notNull(),
		probability: real(),
		note: text().notNull(),
		version: rowVersion()
	},
	(table) => [index('decision_tree').on(table.treeId, table.decidedOn)]
);

export const rehearsal = sqliteTable(
	'rehearsal',
	{
		id: identity(),
		treeId: ofTree(),
		rehearsedOn: text().notNull(),
		futures: integer().notNull(),
		seed: integer().notNull(),
		outcomes: text({ mode: 'json' }).$type<KeptRehearsal['outcomes']>().notNull(),
		taken: integer().notNull(),
		version: rowVersion()
	},
	(table) => [index('rehearsal_tree').on(table.treeId, table.rehearsedOn)]
);

export const saidForecast = sqliteTable(
	'said_forecast',
	{
		id: identity(),
		treeId: ofTree(),
		saidOn: text().notNull(),
		occasion: text().notNull(),
		probability: real().notNull(),
		horizonOn: text().notNull(),
		context: text({ mode: 'json' }).$type<SaidForecast['context']>(),
		version: rowVersion()
	},
	(table) => [index('said_forecast_tree').on(table.treeId, table.saidOn)]
);

export interface Change {
	record: string;
	treeId: string | null;
	id: string;
	before: unknown;
	after: unknown;
}

export const journal = sqliteTable(
	'journal',
	{
		id: identity(),
		treeId: text().references(() => tree.id, { onDelete: 'cascade' }),
		at: text('at_instant').notNull(),
		on: text('on_day').notNull(),
		stage: text().notNull(),
		what: text().notNull(),
		/** Who did it; null at the computer itself, without a key. The name stays when the person is taken out. */
		byId: text(),
		by: text(),
		/** Records before and after, for undo; null where an entry is only told. */
		changes: text({ mode: 'json' }).$type<Change[] | null>()
	},
	(table) => [index('journal_tree').on(table.treeId, table.at), index('journal_at').on(table.at)]
);

/** People of the yard, with what their passphrase was hashed to. */
export const person = sqliteTable(
	'person',
	{
		id: identity(),
		name: text().notNull(),
		/** The name by which it is found: in small letters. */
		nameKey: text().notNull(),
		role: text().$type<Role>().notNull(),
		passHash: text().notNull(),
		madeAt: text().notNull()
	},
	(table) => [uniqueIndex('person_name').on(table.nameKey)]
);

/** Devices on which somebody is signed in; the key itself is kept only as a hash. */
export const session = sqliteTable(
	'session',
	{
		id: identity(),
		personId: text()
			.notNull()
			.references(() => person.id, { onDelete: 'cascade' }),
		keyHash: text().notNull(),
		device: text().notNull(),
		madeAt: text().notNull(),
		lastAt: text().notNull()
	},
	(table) => [uniqueIndex('session_key').on(table.keyHash), index('session_person').on(table.personId)]
);

/** Rounds of practice: the tree of each, and all that was done to it. Its own yard lies in a file beside. */
export const practiceRound = sqliteTable(
	'practice_round',
	{
		id: identity(),
		/** Who practises; null at the computer itself, without a key. */
		byId: text(),
		trainee: text().notNull(),
		wish: text({ mode: 'json' }).$type<PracticeWish>().notNull(),
		setCase: integer(),
		/** The tree in the yard of the round: none of this yard. */
		treeId: text('practice_tree').notNull(),
		startedAt: text().notNull(),
		endedAt: text(),
		day: integer().notNull().default(0),
		acts: text({ mode: 'json' }).$type<PracticeAct[]>().notNull(),
		judged: text({ mode: 'json' }).$type<Judged>()
	},
	(table) => [index('practice_round_by').on(table.byId, table.startedAt)]
);

/** Invitations that are not taken up yet. */
export const invitation = sqliteTable(
	'invitation',
	{
		id: identity(),
		keyHash: text().notNull(),
		role: text().$type<Role>().notNull(),
		untilAt: text().notNull()
	},
	(table) => [uniqueIndex('invitation_key').on(table.keyHash)]
);

/** Links by which somebody without a key reads one page of one tree. */
export const sharedLink = sqliteTable(
	'shared_link',
	{
		id: identity(),
		keyHash: text().notNull(),
		treeId: ofTree(),
		page: text().$type<SharedPage>().notNull(),
		untilOn: text().notNull()
	},
	(table) => [uniqueIndex('shared_link_key').on(table.keyHash)]
);

/** Work that was sent under a name of its own and is done: sent again, it is answered as the first time and not done again. */
export const sentAct = sqliteTable('sent_act', {
	id: text().primaryKey(),
	/** Instant at which it was kept here. */
	keptAt: text().notNull(),
	/** Who sent it; null at the computer itself. */
	byId: text(),
	status: integer(),
	/** What was answered, as JSON text; null until it was. */
	answer: text()
});

export const valueOverride = sqliteTable('value_override', {
	key: text().primaryKey(),
	value: real().notNull()
});

export const setting = sqliteTable('setting', {
	key: text().primaryKey(),
	value: text({ mode: 'json' }).$type<unknown>().notNull()
});
