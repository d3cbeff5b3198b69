import { readFileSync } from 'node:fs';
import { shippedKinds } from '$core/vocabulary/shipped';

/** Drawn pictures with the printed card. @see scripts/draw-demo-pictures.js */
const drawn = (name: string): string =>
	readFileSync(new URL(`../src/demo/pictures/${name}.jpg`, import.meta.url)).toString('base64');
const wallTouches = {
	white: [{ x: 703, y: 418 }],
	brown: [
		{ x: 1028, y: 490 },
		{ x: 787, y: 753 }
	],
	none: [
		{ x: 901, y: 703 },
		{ x: 1245, y: 777 },
		{ x: 369, y: 333 },
		{ x: 416, y: 674 }
	]
};
const crownLoop = [
	{ x: 530, y: 330 },
	{ x: 925, y: 330 },
	{ x: 925, y: 690 },
	{ x: 530, y: 690 }
];

const place = { kind: 'open', latitudeDeg: 52 };
const kind = { group: 'conifer', coldestC: -20, liftingWindow: 'spring-or-autumn' };
const pot = {
	shape: 'round',
	topLengthMm: 300,
	topWidthMm: 300,
	bottomLengthMm: 240,
	bottomWidthMm: 240,
	heightMm: 250
};
const segment = {
	id: 'a',
	parentId: null,
	rootClass: 'secondary',
	condition: 'sound',
	diameterStartMm: 10,
	diameterEndMm: 4,
	fineScore: 2,
	course: [
		{ azimuthDeg: 0, radiusMm: 30, depthMm: 5 },
		{ azimuthDeg: 0, radiusMm: 90, depthMm: 5 }
	]
};
const map = {
	mappedOn: '2026-04-18',
	frame: 'container',
	trunkDiameterMm: 60,
	ballRadiusMm: 150,
	segments: [segment]
};
const yardPlace = { ...place, id: 'p', version: 1, name: 'Bench', note: '' };
const potStores = { rootedMostL: 3, unrootedMostL: 3, surfaceM2: 0.09, crownM2: 0.4 };
const trial = {
	ballDiameterMm: 240,
	ballDepthMm: 120,
	mix: { name: 'perlite', parts: [{ componentId: 'perlite', parts: 1 }] },
	wetnessTrigger: 0.5,
	et0Mm: 3,
	crownWidthMm: 400,
	heightM: 0.8,
	largerWidthMm: 290,
	sameWidthMm: 270
};
/** A potted tree seven weeks after root work, to be played through four months. */
const rehearsalExample = {
	recovery: {
		sinceOn: '2026-03-01',
		today: '2026-04-18',
		odds: 1,
		begin: 0.6,
		place: { kind: 'open', latitudeDeg: 52 },
		looks: []
	},
	group: 'deciduous',
	liftingWindow: 'leafless',
	coldestC: -8,
	wetnessTrigger: 0.5,
	rotChance: 0.2,
	pots: [
		{
			id: 'now',
			label: 'the pot it stands in',
			rootedMostL: 2,
			unrootedMostL: 3,
			surfaceM2: 0.09,
			crownM2: 0.3,
			airSpace: 0.15,
			held: 0.35,
			replants: false
		}
	],
	places: [{ id: 'here', label: 'Bench', kind: 'open', latitudeDeg: 52 }],
	stages: [{ on: '2026-04-25', share: 0.2, rot: 1, girdles: 0 }],
	days: 120
};

/** One valid question to every calculation, by its name. */
export const calculationExamples: Record<string, unknown> = {
	diagnosis: { situation: 'potted', findings: [{ signId: 'sour-smell', grade: 1 }] },
	'next-checks': {
		situation: 'potted',
		findings: [{ signId: 'sour-smell', grade: 1 }],
		standing: { seasonFit: 'in-window', vigour: 'fair' }
	},
	advice: {
		situation: 'potted',
		findings: [{ signId: 'sour-smell', grade: 1 }],
		standing: { seasonFit: 'in-window', vigour: 'fair' }
	},
	'act-now': { seasonFit: 'in-window', vigour: 'fair', conditionId: 'root-rot', chance: 0.4 },
	'compare-looks': { before: [{ signId: 'sour-smell', grade: 1 }], after: [] },
	referral: {
		situation: 'in-ground',
		trunkDiameterMm: 400,
		findings: [{ signId: 'brackets', grade: 1 }]
	},
	'neighbour-check': { conditionId: 'root-rot', situation: 'potted' },
	'measured-findings': {
		measuredOn: '2026-04-18',
		raw: { tool: 'squeeze-test', result: 'lump' }
	},
	'root-sample': { alive: 9, dead: 4 },
	'picture-length': {
		corners: [
			{ x: 400, y: 300 },
			{ x: 900, y: 320 },
			{ x: 880, y: 640 },
			{ x: 390, y: 610 }
		],
		rectangle: { widthMm: 85.6, heightMm: 53.98 },
		picture: { widthPx: 2000, heightPx: 1500 },
		points: [
			{ x: 500, y: 800 },
			{ x: 900, y: 1100 }
		],
		touchPx: 3
	},
	'root-depth': {
		corners: [
			{ x: 900, y: 300 },
			{ x: 1400, y: 320 },
			{ x: 1380, y: 640 },
			{ x: 890, y: 610 }
		],
		rectangle: { widthMm: 85.6, heightMm: 53.98 },
		picture: { widthPx: 2000, heightPx: 1500 },
		touchPx: 3,
		edges: [
			{ x: 300, y: 640 },
			{ x: 760, y: 650 }
		],
		bases: [
			{ x: 420, y: 720 },
			{ x: 640, y: 820 }
		],
		trunkDiameterMm: 80,
		fromDeg: 180,
		inFrontMm: 0
	},
	'root-wall': {
		picture: drawn('wall'),
		...wallTouches
	},
	'picture-card': { picture: drawn('roots') },
	'picture-root': {
		picture: drawn('roots'),
		middle: { x: 800, y: 600 },
		front: { x: 1061, y: 708 },
		base: { x: -27.5, y: -18.8 },
		end: { x: -288, y: -177.5 },
		trunkDiameterMm: 66.7
	},
	'leaf-cover': { picture: drawn('crown-now'), loop: crownLoop },
	'picture-line-up': { before: drawn('crown-then'), after: drawn('crown-now'), loop: crownLoop },
	'dieback-limit': { heightMm: 900, points: [{ heightMm: 300, sideDeg: 0, reading: 'alive' }] },
	'pot-weighing': { wateredOn: '2026-04-16', fullKg: 8, nowKg: 7, on: '2026-04-18' },
	outflow: { pouredL: 2, ranOutL: 0.3 },
	'drain-time': { minutes: 4 },
	collar: { flare: 'none', trunkDiameterMm: 90 },
	'penetrometer-csv': { text: 'depth_mm,resistance_kpa\n100,1500\n' },
	'penetrometer-profile': { readings: [{ position: 1, depthMm: 100, resistanceMpa: 2.4 }] },
	'simulated-penetrometer': { soil: 'a hard pan' },
	'soil-cores': {
		texture: 'clay',
		cores: [{ fromMm: 50, toMm: 100, ringMl: 100, freshG: 170, dryG: 140 }]
	},
	infiltration: {
		ringDiameterMm: 300,
		readings: [
			{ minutes: 0, sunkMm: 0 },
			{ minutes: 10, sunkMm: 6 }
		]
	},
	'texture-by-feel': { ball: true, ribbonMm: 30, feel: 'smooth' },
	'soil-water': { sandPercent: 40, clayPercent: 20 },
	'ball-size': { trunkDiameterMm: 60, school: 'nursery' },
	'lift-kept': { trunkDiameterMm: 50, crownWidthMm: 1600, ballDiameterMm: 610, ballDepthMm: 400 },
	'lift-limit': { massKg: 40, reachCm: 40, startCm: 20, travelCm: 60 },
	'ball-mass': { diameterMm: 600, depthMm: 400 },
	triage: {
		look: {
			decidedOn: '2026-04-18',
			purpose: 'lift',
			vitality: 'fair',
			permission: 'own',
			pests: 'none'
		},
		subject: {
			group: 'deciduous',
			reserves: 'field-grown',
			trunkDiameterMm: 60,
			seasonFit: 'in-window'
		}
	},
	'changed-together': { days: [{ on: '2026-04-18', factors: ['pot', 'mix'] }] },
	'one-by-one': { factors: ['pot', 'mix'], startOn: '2026-04-18' },
	'wilson-interval': { successes: 3, trials: 10 },
	'circular-statistics': { directions: [{ azimuthDeg: 10 }, { azimuthDeg: 100, weight: 2 }] },
	girdling: { course: segment.course, diameterMm: 10, trunkDiameterMm: 60 },
	allowance: {
		group: 'conifer',
		temper: 'usual',
		vigour: 'fair',
		reserves: 'long-potted',
		seasonFit: 'in-window'
	},
	'root-ledger': { map, cuts: [{ segmentId: 'a', stage: 0 }], allowances: [0.3] },
	'root-shares': { map },
	'stage-dates': { kind, place, firstOn: '2026-04-18', count: 3 },
	'reduction-plan': { map, allowances: [0.3] },
	'root-courses': { map },
	'stem-diameter': {
		stems: [
			{
				id: 's',
				centre: { azimuthDeg: 0, radiusMm: 0 },
				outline: { shape: 'ellipse', longMm: 80, shortMm: 50, longAzimuthDeg: 30 }
			}
		]
	},
	'crown-supply': { remainingShare: 0.5 },
	'cut-sessions': {
		map,
		plan: {
			temper: 'usual',
			vigour: 'fair',
			reserves: 'field-grown',
			stageDates: ['2026-04-18'],
			cuts: []
		}
	},
	'shared-pot': { map, others: [{ tag: 'M-1', map }] },
	'crown-course': { losses: [0.3, 0.2], school: 'balance' },
	'crown-height': { crownShare: 0.1, shape: 'cone' },
	'stage-gate': { cuts: [], observations: [] },
	fronts: { map },
	'planting-angle': {
		map,
		setting: {
			frontDeg: 0,
			tiltDeg: 12,
			tiltTowardDeg: 0,
			planeDepthMm: 0,
			baseDepthMm: 90,
			thisTimeDeg: 12
		},
		heightM: 0.8,
		roomShare: 0.2
	},
	'root-protection-area': { stemDiameterM: 0.4 },
	'structural-root-zone': { diameterAboveFlareM: 0.4 },
	'season-window': { kind, place, on: '2026-04-18' },
	'night-temperature': { place, on: '2026-04-18' },
	'pot-volume': { pot },
	'pot-size': { ballDiameterMm: 200 },
	'layer-amounts': { pot, ballDiameterMm: 200, ballDepthMm: 120, headspaceMm: 20 },
	'pot-fit': { pot, ballDiameterMm: 240, ballDepthMm: 120, tiltDeg: 10 },
	'tipping-wind': { massKg: 40, baseWidthMm: 300, crownAreaM2: 0.5, crownMiddleM: 1 },
	'mix-components': { parts: [{ componentId: 'perlite', parts: 1 }], litres: 8 },
	'mix-water-air': { parts: [{ componentId: 'perlite', parts: 1 }], pot, fillMm: 200 },
	'reach-mix': {
		stock: ['perlite', 'compost'],
		pot,
		fillMm: 200,
		airFrom: 0.2,
		airTo: 0.35
	},
	'penman-monteith': {
		latitudeDeg: 52,
		elevationM: 80,
		on: '2026-07-01',
		minC: 12,
		maxC: 23,
		humidityPercent: 70,
		windMs: 2,
		sunMj: 20
	},
	'weather-series': { place: yardPlace, span: { from: '2026-07-01', to: '2026-07-10' } },
	'simulated-weather': { place: yardPlace, span: { from: '2026-07-01', to: '2026-07-10' }, seed: 4 },
	'pot-day': {
		before: { rootedL: 2, unrootedL: 2 },
		stores: potStores,
		on: '2026-07-01',
		et0Mm: 4,
		rootFunction: 0.7
	},
	'next-watering': {
		place: yardPlace,
		stores: potStores,
		since: { on: '2026-07-01', water: { rootedL: 3, unrootedL: 3 } },
		today: '2026-07-03',
		trigger: 0.5,
		root: { phi: 0.7, low: 0.5, high: 0.9 }
	},
	'root-function': {
		place: yardPlace,
		span: { from: '2026-06-01', to: '2026-06-30' },
		stores: potStores,
		waterings: [
			{ id: 'a', version: 1, wateredOn: '2026-06-10', afterKg: 14 },
			{ id: 'b', version: 1, wateredOn: '2026-06-14', beforeKg: 12 }
		]
	},
	'weather-guards': {
		place: yardPlace,
		days: [],
		span: { from: '2026-01-01', to: '2026-01-03' },
		trees: [{ id: 'a', tag: 'A-1', coldC: 10, hardy: false }]
	},
	release: { condition: 'buds-move', byOn: '2026-06-01', today: '2026-05-01', looks: [] },
	'recovery-forecast': {
		sinceOn: '2025-03-01',
		today: '2025-08-01',
		odds: 1,
		begin: 0.6,
		place: { kind: 'open', latitudeDeg: 52 },
		looks: [{ observedOn: '2025-06-20', progress: 0.4, leafCover: 0.8 }]
	},
	'practice-step': {
		wish: { seed: 5107, conditions: ['sour-root-zone'], situation: 'potted' },
		acts: [
			{ day: 0, what: 'check', signId: 'sour-smell' },
			{ day: 0, what: 'care', rule: { water: 'every-days', everyDays: 1, covers: true } }
		],
		day: 21,
		lookFor: ['sour-smell', 'wilts-wet']
	},
	rehearsal: {
		scene: rehearsalExample,
		plans: [{ name: 'As planned' }, { name: 'By the calendar', water: 'every-days', everyDays: 9 }],
		futures: 9
	},
	'strongest-other-plan': { scene: rehearsalExample, plan: { name: 'As planned' } },
	'recovery-decisions': { today: '2025-08-01', sinceOn: '2025-03-01', inSeason: true, observations: [] },
	'season-point': {
		place: { name: 'Bench', kind: 'open', latitudeDeg: 52 },
		sinceOn: '2025-03-01',
		on: '2025-06-20'
	},
	'growth-curve': {
		points: [30, 58, 87, 115, 120, 142, 145].map((size, i) => ({
			time: [118, 484, 664, 1004, 1231, 1372, 1582][i],
			size
		}))
	},
	'kaplan-meier': {
		follows: [
			{ days: 6, happened: true },
			{ days: 9, happened: false }
		]
	},
	'forecast-score': { said: [{ probability: 0.7, happened: true }] },
	'backups-worth-keeping': { kind: 'hardwood' },
	'days-of-hours': { readings: [{ at: '2026-04-01T06:00:00+02:00', temperatureC: 4 }], least: 1 },
	'pot-state': {
		stores: { rootedMostL: 2, unrootedMostL: 3, surfaceM2: 0.07, crownM2: 0.3 },
		begin: { rootedL: 2, unrootedL: 3, sd: 0.1 },
		days: [{ et0Mm: 3, rainMm: 0 }],
		seen: [{ day: 0, how: 'felt', dryness: 0.4, sd: 0.15 }],
		rootFunction: 0.7
	},
	'ground-balance': {
		ballMm: 60,
		areaM2: 0.3,
		crownRatio: 1.2,
		days: [{ et0Mm: 3, rainMm: 0 }],
		rootFunction: 0.7
	},
	'work-stops': { group: 'conifer', coldestC: -20, days: [{ minC: -4, maxC: 6 }] },
	evapotranspiration: { latitudeDeg: 52, on: '2026-07-01', minC: 11, maxC: 22 },
	'water-demand': {
		place,
		on: '2026-07-01',
		crownM2: 0.5,
		rootFunction: 0.7,
		surfaceM2: 0.1,
		waterL: 4,
		wetnessTrigger: 0.5
	},
	'judge-pot': { ...trial, pot },
	'propose-pots': trial,
	'bench-test': { fillL: 10, takenUpL: 7, drainedL: 2.5 },
	'mix-weighings': {
		fillL: 2,
		dryKg: 0.9,
		drainedKg: 1.8,
		parts: [{ componentId: 'perlite', parts: 1 }]
	},
	'measured-mix': { mix: trial.mix, depthMm: 80 },
	'tie-down': {
		pot,
		segments: map.segments,
		ballKg: 12,
		ballWidthMm: 240,
		ballDepthMm: 120,
		totalKg: 30,
		baseWidthMm: 240,
		crownAreaM2: 0.4,
		crownMiddleM: 0.9
	},
	'lift-route': {
		route: { narrowestMm: 800, carryM: 30 },
		diameterMm: 500,
		depthMm: 300,
		mostKg: 110
	},
	'site-check': {
		kind: { ...shippedKinds[0], origin: 'shipped', version: 1 },
		place: { ...place, id: 'p', version: 1, name: 'Bench', note: '' },
		inGround: true,
		on: '2026-04-18'
	},
	'ground-works': {
		plan: {
			plannedOn: '2026-04-18',
			loosening: { method: 'trenches', innerM: 1, outerM: 3, depthMm: 300, widthMm: 200 }
		},
		trunkDiameterMm: 300
	},
	'sulphur-dose': { phNow: 6, phAim: 4.5, soil: 'loam', areaM2: 10, startOn: '2026-04-18' },
	'kit-list': { pot, ballDiameterMm: 240, ballDepthMm: 120, mix: trial.mix },
	'aftercare-tasks': {
		workOn: '2026-04-18',
		group: 'conifer',
		tender: false,
		coldestC: -20,
		inGround: false,
		livingLoss: 0.2,
		rotWasCut: false,
		structuralCut: false,
		collarWork: false,
		seasonFit: 'in-window',
		crownSchool: 'balance',
		waterSchool: 'at-once',
		crownExcess: 0.1,
		nextStageOn: null,
		plantCount: 1
	},
	'expected-root-function': {
		losses: [{ on: '2026-01-01', share: 0.3 }],
		place,
		tender: false,
		from: '2026-01-01',
		to: '2026-12-31'
	},
	verdict: {
		today: '2026-04-18',
		situation: 'potted',
		trunkDiameterMm: 60,
		sinceOn: '2025-04-18',
		observations: [],
		referenceShootMm: null,
		openAlarms: 0,
		stagesLeft: 0
	}
};
