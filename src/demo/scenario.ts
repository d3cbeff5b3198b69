import { roundPot } from '$core/replant/pots/volume';
import type { Schools } from '$core/vocabulary/task';
import type { placeInput } from '$core/vocabulary/place';
import type { MixId } from '$core/replant/mixes/mixes';
import type { SizeRule } from '$core/replant/pots/replant-plan';
import type { Pot } from '$core/replant/pots/volume';
import type { Temper } from '$core/roots/plan/plan';
import type { RootMapInput } from '$core/roots/map/root-map';
import type { Setting } from '$core/roots/plan/plan';
import type { closingInput, TreeInput } from '$core/take-in/tree';
import type { z } from 'zod';

/** The invented rescue yard "Tarn Hollow". People, places and measurements are made up. */

/** The day on which the demo stands still unless another is given. */
export const DEMO_DAY = '2026-04-18';

export const demoPlaces = {
	bench: {
		name: 'East bench',
		kind: 'open',
		latitudeDeg: 52.4,
		longitudeDeg: -1.6,
		elevationM: 90,
		heldMinimumC: null,
		light: 'sun',
		wind: 'some',
		waterM: 12,
		note: 'Gravel, wind from the south-west.'
	},
	frame: {
		name: 'Cold frame',
		kind: 'cold-frame',
		latitudeDeg: 52.4,
		longitudeDeg: -1.6,
		elevationM: 90,
		heldMinimumC: null,
		light: 'part',
		wind: 'sheltered',
		waterM: 18,
		note: 'Lights off by ten on sunny days.'
	},
	bay: {
		name: 'Heated bay',
		kind: 'heated',
		latitudeDeg: 52.4,
		longitudeDeg: -1.6,
		elevationM: 90,
		heldMinimumC: 16,
		light: 'sun',
		wind: 'sheltered',
		waterM: 6,
		note: 'Thermostat at 16 °C; one heater only.'
	},
	shade: {
		name: 'Under the alders',
		kind: 'shade',
		latitudeDeg: 52.4,
		longitudeDeg: -1.6,
		elevationM: 88,
		heldMinimumC: null,
		light: 'shade',
		wind: 'sheltered',
		waterM: 25,
		note: 'Dappled until September.'
	},
	pellow: {
		name: 'Garden at Pellow Street',
		kind: 'garden',
		latitudeDeg: 52.5,
		longitudeDeg: -1.7,
		elevationM: 110,
		heldMinimumC: null,
		light: 'sun',
		wind: 'some',
		waterM: 15,
		note: 'Client: Ms Amadi. Side gate, key with the neighbour.'
	},
	quarry: {
		name: 'Garden at Quarry End',
		kind: 'garden',
		latitudeDeg: 52.6,
		longitudeDeg: -1.5,
		elevationM: 140,
		heldMinimumC: null,
		light: 'part',
		wind: 'exposed',
		waterM: 45,
		note: 'Client: the Venn household. Clay over marl.'
	}
} satisfies Record<string, z.input<typeof placeInput>>;
export type DemoPlace = keyof typeof demoPlaces;

type Required = 'tag' | 'name' | 'kindId' | 'situation' | 'trunkDiameterMm' | 'takenInOn';

export interface DemoTree {
	input: Pick<TreeInput, Required> & Partial<Omit<TreeInput, Required | 'placeId'>>;
	place: DemoPlace;
	/** Tag of the tree it is compared with; that tree comes earlier in the list. */
	reference?: string;
	roots?: {
		on: string;
		frame: 'container' | 'ground';
		ballRadiusMm: number;
		temper: Temper;
		stages: number;
		/** Quick-entry lines, as typed at the bench. */
		lines: string[];
		/** Outlines, lean and obstacles, where they were taken. */
		more?: Partial<Pick<RootMapInput, 'stems' | 'ballDepthMm' | 'lean' | 'inPot' | 'obstacles'>>;
		/** The front and angle that were tried. */
		setting?: Setting;
		/** Stages that were really cut, with the day; others stay planned. */
		cutOn: string[];
	};
	planting?: {
		on: string;
		pot: Pot;
		sizeRule: SizeRule;
		ballDiameterMm: number;
		ballDepthMm: number;
		mixId: MixId;
		coarseLayerMm: number;
		note: string;
	};
	/** Day on which it was rehearsed and went on as planned. */
	rehearsedOn?: string;
	aftercare?: Schools;
	/** Tasks that stay open although their time has come, by rule. */
	forgotten?: string[];
	looks?: {
		from: string;
		seed: number;
		fitness: number;
		heightMm: number;
		fullWeightKg: number | null;
		healthyShootMm: number;
		everyDays: number;
		diesOn?: string;
	};
	/** Losses of a lot, by day. */
	lost?: { on: string; count: number; note: string }[];
	closing?: z.input<typeof closingInput>;
	tasks?: {
		title: string;
		reason: string;
		fromOn: string;
		toOn: string;
		kind: 'look' | 'water' | 'other' | 'collar' | 'shelter';
		minutes: number;
	}[];
}

const box = (side: number, height: number): Pot => ({
	shape: 'box',
	topLengthMm: side,
	topWidthMm: side,
	bottomLengthMm: side,
	bottomWidthMm: side,
	heightMm: height
});
export const demoTrees: DemoTree[] = [
	{
		input: {
			tag: 'H-00',
			name: 'Hornbeam, never dug',
			kindId: 'carpinus',
			situation: 'potted',
			trunkDiameterMm: 58,
			heightM: 1.6,
			origin: 'Raised here from a whip; the healthy twin.',
			permission: 'own',
			vigour: 'strong',
			reserves: 'few-years-potted',
			takenInOn: '2024-03-02',
			watering: 'bench hose',
			batch: 'whips 2015'
		},
		place: 'bench',
		looks: {
			from: '2024-03-20',
			seed: 7,
			fitness: 1,
			heightMm: 1600,
			fullWeightKg: 31,
			healthyShootMm: 290,
			everyDays: 46
		}
	},
	{
		input: {
			tag: 'H-03',
			name: 'Hornbeam from the tram cutting',
			kindId: 'carpinus',
			situation: 'just-lifted',
			trunkDiameterMm: 104,
			heightM: 2.1,
			origin: 'Dug from the old tram cutting before the bank was regraded; A. Bruns dug it.',
			permission: 'written',
			vigour: 'fair',
			reserves: 'field-grown',
			takenInOn: '2024-11-16',
			watering: 'bench hose',
			batch: 'tram cutting'
		},
		place: 'bench',
		reference: 'H-00',
		roots: {
			on: '2024-11-17',
			frame: 'container',
			ballRadiusMm: 205,
			temper: 'gentle',
			stages: 3,
			lines: [
				'6:10 34 anchor keep d18',
				'8:15 31 anchor keep d22',
				'11:40 36 anchor keep d15',
				'2:20 29 scaffold d20',
				'4:30 33 anchor keep d20',
				'9:30 21 scaffold d26',
				'12:50 18 scaffold dead40 d28 # dark from a hand out',
				'3:15 16 secondary trace d34 # goes under the stone',
				'7:05 17 secondary girdling d6 # bites above the flare',
				'5:20 12 secondary circling d40',
				'10:35 13 secondary turned d30',
				'1:30 11 secondary rising d8',
				'9:05 9 secondary crossing d12',
				'6:50 14 secondary d32',
				'3:50 10 feeder d24',
				'7:45 8 feeder d20',
				'10:05 7 feeder d18',
				'12:10 12 secondary descending d30',
				'2:50 9 feeder torn d22',
				'8:50 6 feeder d14',
				'11:10 13 secondary circling d44'
			],
			more: {
				lean: { towardDeg: 345, deg: 9 },
				ballDepthMm: 120,
				obstacles: [
					{
						id: 'stone',
						kind: 'stone',
						toDepthMm: 90,
						note: 'embedded, stays',
						points: [
							{ azimuthDeg: 262.5, radiusMm: 112 },
							{ azimuthDeg: 277.5, radiusMm: 104 },
							{ azimuthDeg: 290, radiusMm: 126 },
							{ azimuthDeg: 287.5, radiusMm: 160 },
							{ azimuthDeg: 272.5, radiusMm: 172 },
							{ azimuthDeg: 260, radiusMm: 150 }
						]
					}
				]
			},
			cutOn: ['2024-11-17']
		},
		planting: {
			on: '2024-11-17',
			pot: box(420, 240),
			sizeRule: 'after-rot',
			ballDiameterMm: 380,
			ballDepthMm: 180,
			mixId: 'pumice-bark',
			coarseLayerMm: 20,
			note: 'Tied down over the two anchors at 6 and 8.'
		},
		aftercare: { workOn: '2024-11-17', crownSchool: 'keep-leaves', waterSchool: 'at-once' },
		looks: {
			from: '2024-12-10',
			seed: 31,
			fitness: 0.82,
			heightMm: 2100,
			fullWeightKg: 46,
			healthyShootMm: 290,
			everyDays: 25
		},
		tasks: [
			{
				kind: 'look',
				title: 'Measure shoots against its twin H-00',
				reason: 'Stage II was due this winter and waits for growth regained: 80 % of the twin.',
				fromOn: '2026-04-14',
				toOn: '2026-04-22',
				minutes: 15
			}
		]
	},
	{
		input: {
			tag: 'J-02',
			name: 'Juniper from Carrow ridge',
			kindId: 'juniperus',
			situation: 'just-lifted',
			trunkDiameterMm: 72,
			heightM: 0.7,
			origin: 'Slid off the ridge with the path; estate’s letter of June.',
			permission: 'written',
			vigour: 'fair',
			reserves: 'long-potted',
			takenInOn: '2025-09-14',
			watering: 'frame can',
			batch: 'ridge'
		},
		place: 'frame',
		roots: {
			on: '2025-09-15',
			frame: 'container',
			ballRadiusMm: 150,
			temper: 'gentle',
			stages: 3,
			lines: [
				'6:30 24 anchor keep',
				'9:45 22 anchor keep',
				'2:00 19 scaffold',
				'11:30 12 secondary',
				'4:10 10 secondary rising',
				'5:15 9 secondary dead',
				'7:40 11 secondary crossing',
				'8:30 6 feeder',
				'12:40 7 feeder',
				'3:10 5 feeder',
				'10:30 9 secondary turned',
				'1:15 8 secondary trace'
			],
			cutOn: ['2025-09-15']
		},
		planting: {
			on: '2025-09-15',
			pot: roundPot(330, 270, 190),
			sizeRule: 'after-rot',
			ballDiameterMm: 270,
			ballDepthMm: 150,
			mixId: 'pumice',
			coarseLayerMm: 15,
			note: 'Half bare-rooted; the other half next time.'
		},
		rehearsedOn: '2025-09-16',
		aftercare: { workOn: '2025-09-15', crownSchool: 'keep-leaves', waterSchool: 'at-once' },
		looks: {
			from: '2025-09-28',
			seed: 12,
			fitness: 0.7,
			heightMm: 700,
			fullWeightKg: 17,
			healthyShootMm: 80,
			everyDays: 27
		}
	},
	{
		input: {
			tag: 'L-01',
			name: 'Lime on the Pellow Street lawn',
			kindId: 'tilia',
			situation: 'in-ground',
			trunkDiameterMm: 620,
			heightM: 14,
			origin: 'Soil was raised round it in 2009. The owner asks whether it will fall on the house.',
			permission: 'written',
			vigour: 'weak',
			reserves: 'field-grown',
			takenInOn: '2025-05-10'
		},
		place: 'pellow',
		roots: {
			on: '2025-06-21',
			frame: 'ground',
			ballRadiusMm: 1900,
			temper: 'gentle',
			stages: 3,
			lines: [
				'12:10 140 anchor keep d260 seen900',
				'2:20 160 anchor keep d250',
				'4:40 120 anchor d240',
				'6:15 150 anchor keep d280',
				'8:30 130 anchor keep d260 seen700',
				'10:20 110 anchor d250 seen500',
				'1:15 45 secondary girdling d160',
				'3:30 60 scaffold d210',
				'5:30 38 secondary crossing d180',
				'7:20 70 scaffold d220',
				'9:20 52 scaffold trace d200',
				'11:15 28 secondary rising d120 doubtful180',
				'6:50 30 secondary girdling d150',
				'2:55 22 feeder d140'
			],
			more: {
				stems: [
					{
						id: 'trunk',
						centre: { azimuthDeg: 0, radiusMm: 0 },
						note: '',
						outline: {
							shape: 'polygon',
							points: [
								{ azimuthDeg: 0, radiusMm: 335 },
								{ azimuthDeg: 45, radiusMm: 324 },
								{ azimuthDeg: 90, radiusMm: 309 },
								{ azimuthDeg: 135, radiusMm: 319 },
								{ azimuthDeg: 180, radiusMm: 328 },
								{ azimuthDeg: 225, radiusMm: 309 },
								{ azimuthDeg: 270, radiusMm: 305 },
								{ azimuthDeg: 315, radiusMm: 317 }
							]
						}
					}
				],
				obstacles: [
					{
						id: 'kerb',
						kind: 'kerb',
						toDepthMm: 350,
						note: 'street side',
						points: [
							{ azimuthDeg: 232.5, radiusMm: 1880 },
							{ azimuthDeg: 255, radiusMm: 1620 },
							{ azimuthDeg: 285, radiusMm: 1620 },
							{ azimuthDeg: 307.5, radiusMm: 1880 }
						]
					},
					{
						id: 'wall',
						kind: 'wall',
						toDepthMm: 600,
						note: 'garden wall',
						points: [
							{ azimuthDeg: 80, radiusMm: 1800 },
							{ azimuthDeg: 100, radiusMm: 1780 },
							{ azimuthDeg: 125, radiusMm: 1850 }
						]
					}
				]
			},
			cutOn: ['2025-06-21']
		},
		aftercare: { workOn: '2025-06-21', crownSchool: 'keep-leaves', waterSchool: 'at-once' },
		looks: {
			from: '2025-07-10',
			seed: 44,
			fitness: 0.55,
			heightMm: 14_000,
			fullWeightKg: null,
			healthyShootMm: 260,
			everyDays: 48
		},
		tasks: [
			{
				kind: 'collar',
				title: 'Spring look at the opened collar; second girdler at 6:50',
				reason: 'The allowance of a landscape tree left it for a second stage.',
				fromOn: '2026-04-10',
				toOn: '2026-04-20',
				minutes: 60
			}
		]
	},
	{
		input: {
			tag: 'C-07',
			name: 'Camellia with the sour pot',
			kindId: 'camellia',
			situation: 'potted',
			trunkDiameterMm: 41,
			heightM: 1.2,
			origin: 'Left by a café that closed; stood in a saucer all winter.',
			permission: 'own',
			vigour: 'weak',
			reserves: 'long-potted',
			takenInOn: '2026-03-07',
			watering: 'frame can',
			batch: 'café'
		},
		place: 'frame',
		roots: {
			on: '2026-03-08',
			frame: 'container',
			ballRadiusMm: 130,
			temper: 'gentle',
			stages: 2,
			lines: [
				'6:00 13 anchor keep',
				'8:40 11 scaffold dead30',
				'10:15 9 secondary rotten',
				'11:50 12 scaffold',
				'1:30 8 secondary dead',
				'2:45 10 scaffold dead60',
				'4:00 7 secondary rotten',
				'5:10 5 feeder',
				'7:20 6 feeder',
				'9:30 5 feeder dead',
				'12:40 4 feeder',
				'3:20 6 secondary circling'
			],
			cutOn: ['2026-03-08']
		},
		planting: {
			on: '2026-03-08',
			pot: roundPot(240, 200, 200),
			sizeRule: 'after-rot',
			ballDiameterMm: 205,
			ballDepthMm: 150,
			mixId: 'pumice-bark',
			coarseLayerMm: 0,
			note: 'Smaller than before; old mix bagged.'
		},
		aftercare: { workOn: '2026-03-08', crownSchool: 'balance', waterSchool: 'dry-rest' },
		forgotten: ['neighbours', 'first-buds'],
		looks: {
			from: '2026-03-12',
			seed: 5,
			fitness: 0.6,
			heightMm: 1200,
			fullWeightKg: 8.6,
			healthyShootMm: 120,
			everyDays: 9
		}
	},
	{
		input: {
			tag: 'B-05',
			name: 'Bougainvillea from the arcade',
			kindId: 'bougainvillea',
			situation: 'potted',
			trunkDiameterMm: 66,
			heightM: 1.1,
			origin: 'Arcade refit; dug out of a planter with a spade.',
			permission: 'own',
			vigour: 'fair',
			reserves: 'field-grown',
			takenInOn: '2025-06-28',
			watering: 'bay drip line',
			sharedPot: 'arcade trough',
			batch: 'arcade'
		},
		place: 'bay',
		roots: {
			on: '2025-06-29',
			frame: 'container',
			ballRadiusMm: 140,
			temper: 'usual',
			stages: 2,
			lines: [
				'6:20 19 anchor keep',
				'9:00 17 scaffold',
				'12:15 21 anchor',
				'3:30 15 scaffold torn',
				'4:45 9 secondary',
				'7:30 8 secondary dead20',
				'10:30 7 feeder',
				'1:45 8 secondary circling',
				'5:30 6 feeder'
			],
			more: {
				inPot: { azimuthDeg: 270, radiusMm: 110 },
				stems: [
					{
						id: 'main',
						centre: { azimuthDeg: 0, radiusMm: 6 },
						note: '',
						outline: { shape: 'circle', diameterMm: 55 }
					},
					{
						id: 'second',
						centre: { azimuthDeg: 95, radiusMm: 47 },
						note: '',
						outline: { shape: 'circle', diameterMm: 36 }
					}
				]
			},
			cutOn: ['2025-06-29']
		},
		planting: {
			on: '2025-06-29',
			pot: {
				shape: 'rectangle',
				topLengthMm: 620,
				topWidthMm: 360,
				bottomLengthMm: 580,
				bottomWidthMm: 330,
				heightMm: 280
			},
			sizeRule: 'normal',
			ballDiameterMm: 240,
			ballDepthMm: 170,
			mixId: 'coir-grit',
			coarseLayerMm: 25,
			note: ''
		},
		aftercare: { workOn: '2025-06-29', crownSchool: 'balance', waterSchool: 'at-once' },
		looks: {
			from: '2025-07-10',
			seed: 23,
			fitness: 0.9,
			heightMm: 1100,
			fullWeightKg: 52,
			healthyShootMm: 420,
			everyDays: 21
		}
	},
	{
		input: {
			tag: 'A-01',
			name: 'Adenium stump',
			kindId: 'adenium',
			situation: 'potted',
			trunkDiameterMm: 92,
			heightM: 0.3,
			origin: 'Sent by post, soft at the base.',
			permission: 'own',
			vigour: 'weak',
			reserves: 'long-potted',
			takenInOn: '2026-02-21',
			watering: 'bay drip line'
		},
		place: 'bay',
		roots: {
			on: '2026-02-22',
			frame: 'container',
			ballRadiusMm: 90,
			temper: 'bold',
			stages: 1,
			lines: [
				'6:00 22 anchor keep',
				'9:30 14 scaffold rotten',
				'12:30 17 anchor dead',
				'3:00 11 scaffold',
				'5:00 6 feeder dead',
				'8:00 7 feeder'
			],
			cutOn: ['2026-02-22']
		},
		planting: {
			on: '2026-03-15',
			pot: roundPot(180, 150, 120),
			sizeRule: 'after-rot',
			ballDiameterMm: 130,
			ballDepthMm: 80,
			mixId: 'equal-mineral',
			coarseLayerMm: 10,
			note: 'Set after three dry weeks.'
		},
		aftercare: { workOn: '2026-02-22', crownSchool: 'keep-leaves', waterSchool: 'dry-rest' },
		looks: {
			from: '2026-03-01',
			seed: 8,
			fitness: 0.65,
			heightMm: 300,
			fullWeightKg: 2.4,
			healthyShootMm: 60,
			everyDays: 12
		}
	},
	{
		input: {
			tag: 'E-04',
			name: 'Elm from the bowling green',
			kindId: 'ulmus',
			situation: 'just-lifted',
			trunkDiameterMm: 88,
			heightM: 1.5,
			origin: 'Hedge taken out for the pavilion.',
			permission: 'written',
			vigour: 'strong',
			reserves: 'field-grown',
			takenInOn: '2024-03-09',
			batch: 'bowling green'
		},
		place: 'bench',
		reference: 'H-00',
		roots: {
			on: '2024-03-10',
			frame: 'container',
			ballRadiusMm: 180,
			temper: 'usual',
			stages: 1,
			lines: [
				'6:00 30 anchor keep',
				'8:00 26 anchor keep',
				'10:40 28 anchor',
				'1:00 24 scaffold',
				'3:20 27 anchor',
				'4:50 14 secondary circling',
				'7:10 11 secondary rising',
				'9:20 10 feeder',
				'11:45 9 feeder',
				'2:15 8 feeder'
			],
			cutOn: ['2024-03-10']
		},
		planting: {
			on: '2024-03-10',
			pot: box(360, 200),
			sizeRule: 'normal',
			ballDiameterMm: 310,
			ballDepthMm: 150,
			mixId: 'pumice-bark',
			coarseLayerMm: 20,
			note: ''
		},
		aftercare: { workOn: '2024-03-10', crownSchool: 'keep-leaves', waterSchool: 'at-once' },
		looks: {
			from: '2024-03-25',
			seed: 61,
			fitness: 1,
			heightMm: 1500,
			fullWeightKg: 34,
			healthyShootMm: 310,
			everyDays: 30
		},
		closing: {
			state: 're-established',
			closedOn: '2025-10-11',
			closingNote: 'Two strong seasons. The flat base made at lifting paid off: nothing to correct later.'
		}
	},
	{
		input: {
			tag: 'D-02',
			name: 'Birch lifted in leaf',
			kindId: 'betula',
			situation: 'just-lifted',
			trunkDiameterMm: 64,
			heightM: 3.2,
			origin: 'Had to be off the plot within a week.',
			permission: 'written',
			vigour: 'fair',
			reserves: 'field-grown',
			takenInOn: '2024-06-15'
		},
		place: 'shade',
		roots: {
			on: '2024-06-15',
			frame: 'container',
			ballRadiusMm: 160,
			temper: 'bold',
			stages: 1,
			lines: [
				'6:00 22 anchor',
				'9:10 18 scaffold torn',
				'12:00 20 anchor',
				'2:30 14 secondary torn',
				'4:20 12 secondary crowded',
				'7:30 9 feeder torn',
				'10:40 8 feeder'
			],
			cutOn: ['2024-06-15']
		},
		planting: {
			on: '2024-06-15',
			pot: roundPot(340, 280, 300),
			sizeRule: 'packed',
			ballDiameterMm: 250,
			ballDepthMm: 200,
			mixId: 'compost-grit',
			coarseLayerMm: 0,
			note: 'Largest pot to hand.'
		},
		looks: {
			from: '2024-06-22',
			seed: 70,
			fitness: 0.3,
			heightMm: 3200,
			fullWeightKg: 24,
			healthyShootMm: 350,
			everyDays: 18,
			diesOn: '2024-10-05'
		},
		closing: {
			state: 'dead',
			closedOn: '2024-11-02',
			closingNote:
				'Lifted in full leaf in June, ball too small for its height, pot far too large: it stood wet and could not drink. Next time: take cuttings, cut the top hard on the day, or refuse.',
			lossCause: 'wrong-season',
			lossConditions: 'Warm, dry June; stood in full sun for a week; watered every day.',
			shownEarlier: 'The weight: it lost next to nothing between waterings from the second week on.'
		}
	},
	{
		input: {
			tag: 'X-40',
			name: 'Forty box from the clearance',
			kindId: 'buxus',
			situation: 'potted',
			trunkDiameterMm: 16,
			heightM: 0.45,
			plantCount: 40,
			origin: 'Nursery clearance, three years in the same litre pots.',
			permission: 'own',
			vigour: 'fair',
			reserves: 'long-potted',
			takenInOn: '2025-09-20',
			watering: 'rain barrel',
			batch: 'clearance'
		},
		place: 'shade',
		planting: {
			on: '2025-09-27',
			pot: roundPot(170, 130, 150),
			sizeRule: 'packed',
			ballDiameterMm: 110,
			ballDepthMm: 95,
			mixId: 'pumice-bark',
			coarseLayerMm: 0,
			note: 'Sides scored in four places.'
		},
		aftercare: { workOn: '2025-09-27', crownSchool: 'balance', waterSchool: 'at-once' },
		lost: [
			{ on: '2025-11-02', count: 1, note: 'One dried out at the end of the row.' },
			{ on: '2026-01-10', count: 2, note: 'One blown over and frozen.' },
			{ on: '2026-03-28', count: 3, note: 'Third one never rooted; the others push.' }
		],
		tasks: [
			{
				kind: 'water',
				title: 'Weigh five of the lot; water those under half',
				reason: 'Litre pots dry within three days in April wind.',
				fromOn: '2026-04-17',
				toOn: '2026-04-18',
				minutes: 30
			}
		]
	},
	{
		input: {
			tag: 'W-03',
			name: 'Wisteria in a chimney pot',
			kindId: 'wisteria',
			situation: 'potted',
			trunkDiameterMm: 52,
			heightM: 1.8,
			origin: 'Given by Mr Oduya; not repotted in nine years.',
			permission: 'own',
			vigour: 'fair',
			reserves: 'long-potted',
			takenInOn: '2026-02-14',
			watering: 'bench hose'
		},
		place: 'bench',
		tasks: [
			{
				kind: 'look',
				title: 'Slide it out after flowering and look at the mat',
				reason: 'Pot-bound is likelier than all else; opening it now would cost the flowers.',
				fromOn: '2026-05-20',
				toOn: '2026-06-05',
				minutes: 30
			}
		]
	},
	{
		input: {
			tag: 'P-09',
			name: 'Pine that stays wet',
			kindId: 'pinus',
			situation: 'potted',
			trunkDiameterMm: 48,
			heightM: 0.9,
			origin: 'Bought in at the Hallow auction.',
			permission: 'own',
			vigour: 'fair',
			reserves: 'long-potted',
			takenInOn: '2026-02-07',
			watering: 'bench hose',
			batch: 'auction'
		},
		place: 'bench'
	},
	{
		input: {
			tag: 'Q-02',
			name: 'Apple at Quarry End',
			kindId: 'malus',
			situation: 'in-ground',
			trunkDiameterMm: 240,
			heightM: 4.5,
			origin: 'The trampoline stood on its roots for six years.',
			permission: 'written',
			vigour: 'fair',
			reserves: 'field-grown',
			takenInOn: '2025-03-15'
		},
		place: 'quarry',
		looks: {
			from: '2025-04-05',
			seed: 90,
			fitness: 0.75,
			heightMm: 4500,
			fullWeightKg: null,
			healthyShootMm: 300,
			everyDays: 55
		}
	},
	{
		input: {
			tag: 'G-11',
			name: 'Lemon after the cold night',
			kindId: 'citrus',
			situation: 'potted',
			trunkDiameterMm: 38,
			heightM: 1,
			origin: 'Stood on the East bench on 3 January by mistake.',
			permission: 'own',
			vigour: 'weak',
			reserves: 'few-years-potted',
			takenInOn: '2025-05-03',
			watering: 'bay drip line',
			sharedPot: 'arcade trough'
		},
		place: 'bay',
		roots: {
			on: '2025-06-30',
			frame: 'container',
			ballRadiusMm: 130,
			temper: 'gentle',
			stages: 1,
			lines: [
				'5:30 12 anchor',
				'7:40 10 anchor',
				'10:20 11 scaffold',
				'2:00 9 scaffold l150',
				'3:10 8 secondary l170 d40',
				'12:30 6 secondary'
			],
			more: { inPot: { azimuthDeg: 90, radiusMm: 110 } },
			cutOn: []
		},
		looks: {
			from: '2025-05-20',
			seed: 15,
			fitness: 0.7,
			heightMm: 1000,
			fullWeightKg: null,
			healthyShootMm: 180,
			everyDays: 33
		},
		tasks: [
			{
				kind: 'look',
				title: 'Second look at the limit of dieback; re-cut only if it is steady',
				reason: 'Measured once in March; one look is no limit.',
				fromOn: '2026-04-11',
				toOn: '2026-04-17',
				minutes: 10
			}
		]
	},
	{
		input: {
			tag: 'T-05',
			name: 'Yew out of the churchyard hedge',
			kindId: 'taxus',
			situation: 'just-lifted',
			trunkDiameterMm: 95,
			heightM: 1.3,
			origin: 'Hedge cut through for the new gate; parish letter.',
			permission: 'written',
			vigour: 'strong',
			reserves: 'field-grown',
			takenInOn: '2026-04-04',
			watering: 'rain barrel',
			batch: 'churchyard'
		},
		place: 'shade',
		roots: {
			on: '2026-04-04',
			frame: 'container',
			ballRadiusMm: 190,
			temper: 'gentle',
			stages: 3,
			lines: [
				'6:05 32 anchor keep',
				'8:50 27 anchor',
				'11:20 30 anchor keep',
				'1:10 18 scaffold',
				'2:40 29 anchor',
				'4:15 22 scaffold',
				'5:10 13 secondary girdling',
				'7:15 12 secondary crossing',
				'9:40 10 secondary',
				'10:10 8 feeder',
				'12:20 9 feeder',
				'3:30 11 secondary rising'
			],
			more: {
				stems: [
					{
						id: 'trunk',
						centre: { azimuthDeg: 0, radiusMm: 0 },
						note: '',
						outline: { shape: 'ellipse', longMm: 110, shortMm: 82, longAzimuthDeg: 70 }
					}
				],
				ballDepthMm: 130,
				lean: { towardDeg: 150, deg: 14 }
			},
			setting: {
				frontDeg: 0,
				tiltDeg: 18,
				tiltTowardDeg: 330,
				planeDepthMm: 8,
				baseDepthMm: 105,
				thisTimeDeg: 10
			},
			cutOn: []
		}
	}
];
