import { roundPot } from '$core/replant/pots/volume';
import type { GroundPlanInput } from '$core/replant/ground/ground-plan';
import type { LiftInput } from '$core/replant/lifting/lift';
import type { z } from 'zod';
import type { replantPlanInput } from '$core/replant/pots/replant-plan';
import type { ownMixInput, stockItemInput, stockPotInput } from '$core/replant/kit/stock';
import type { Pot } from '$core/replant/pots/volume';

/** What the invented yard has at hand, and the lifts, plantings and ground works that are planned or done. */

const straight = (shape: 'box' | 'tray', length: number, width: number, heightMm: number): Pot => ({
	shape,
	topLengthMm: length,
	topWidthMm: width,
	bottomLengthMm: length,
	bottomWidthMm: width,
	heightMm
});

export const demoPots: z.input<typeof stockPotInput>[] = [
	{
		name: 'Ash box, large',
		pot: straight('box', 520, 420, 260),
		holes: 6,
		holeMm: 20,
		massKg: 7.5,
		material: 'wood',
		count: 2,
		price: 18
	},
	{
		name: 'Ash box, middle',
		pot: straight('box', 420, 360, 220),
		holes: 5,
		holeMm: 20,
		massKg: 5,
		material: 'wood',
		count: 3,
		price: 14
	},
	{
		name: 'Clay bowl 38',
		pot: roundPot(380, 280, 170),
		holes: 1,
		holeMm: 28,
		massKg: 6.2,
		material: 'clay',
		count: 2,
		price: 26
	},
	{
		name: 'Deep clay 30',
		pot: roundPot(300, 220, 290),
		holes: 1,
		holeMm: 30,
		massKg: 7,
		material: 'clay',
		count: 1,
		price: 24
	},
	{
		name: 'Nursery pot 10 L',
		pot: roundPot(280, 220, 220),
		holes: 8,
		holeMm: 10,
		massKg: 0.3,
		count: 14,
		price: 1.4
	},
	{
		name: 'Nursery pot 3 L',
		pot: roundPot(190, 145, 150),
		holes: 6,
		holeMm: 8,
		massKg: 0.1,
		count: 31,
		price: 0.5
	},
	{
		name: 'Grow bag 35 L',
		pot: { ...roundPot(380, 380, 310), shape: 'bag' },
		holes: 0,
		holeMm: 0,
		massKg: 0.4,
		material: 'fabric',
		count: 4,
		price: 6
	},
	{
		name: 'Mixing tray',
		pot: straight('tray', 600, 400, 120),
		holes: 0,
		holeMm: 0,
		massKg: 1.1,
		count: 2,
		price: 9
	},
	{
		name: 'Glazed oval 42',
		pot: {
			shape: 'oval',
			topLengthMm: 420,
			topWidthMm: 320,
			bottomLengthMm: 360,
			bottomWidthMm: 260,
			heightMm: 130
		},
		holes: 2,
		holeMm: 26,
		massKg: 5.8,
		material: 'glazed',
		count: 1,
		price: 48
	}
];

export const demoItems: z.input<typeof stockItemInput>[] = [
	{ item: 'pumice-medium', packSize: 25, packs: 3, opened: 9, price: 16 },
	{ item: 'pumice-coarse', packSize: 25, packs: 1, opened: 0, price: 16 },
	{ item: 'bark-fine', packSize: 50, packs: 1, opened: 20, price: 9.5 },
	{ item: 'perlite', packSize: 100, packs: 0, opened: 35, price: 21 },
	{ item: 'grit-coarse', packSize: 20, packs: 2, opened: 6, price: 5.5 },
	{ item: 'coir', packSize: 70, packs: 1, opened: 0, price: 13 },
	{ item: 'compost', packSize: 50, packs: 2, opened: 15, price: 7 },
	{ item: 'lava-fine', packSize: 20, packs: 2, opened: 0, price: 12 },
	{ item: 'loam', packSize: 25, packs: 1, opened: 4, price: 6 },
	{ item: 'wire', packSize: 20, packs: 1, opened: 3.5, price: 8 },
	{ item: 'mesh', packSize: 1, packs: 1, opened: 0.2, price: 4 },
	{ item: 'label', packSize: 50, packs: 0, opened: 22, price: 3 },
	{ item: 'mulch', packSize: 60, packs: 8, opened: 0, price: 6.5 }
];

export const demoMixes: z.input<typeof ownMixInput>[] = [
	{
		name: 'Yard mix for evergreens',
		parts: [
			{ componentId: 'pumice-medium', parts: 5 },
			{ componentId: 'bark-fine', parts: 3 },
			{ componentId: 'lava-fine', parts: 2 }
		],
		measured: {
			measuredOn: '2026-03-07',
			how: 'volumes',
			depthMm: 160,
			porosity: 0.71,
			containerCapacity: 0.44
		},
		afterRot: true,
		note: 'Jug test in the ten-litre pot.'
	}
];

const level = {
	narrowestMm: null,
	carryM: null,
	steps: 0,
	slope: 'level' as const,
	payloadKg: null,
	loadLengthMm: null,
	note: ''
};

export const demoLifts: Record<string, LiftInput[]> = {
	'T-05': [
		{
			plannedOn: '2026-04-04',
			school: 'field',
			reading: 'across',
			ballDiameterMm: 520,
			ballDepthMm: 260,
			people: 3,
			route: {
				...level,
				narrowestMm: 1100,
				carryM: 40,
				payloadKg: 700,
				loadLengthMm: 2400,
				note: 'Lych gate, then the van on the verge.'
			},
			ticks: [
				'permission',
				'services',
				'second-choice',
				'pot-ready',
				'hands',
				'health',
				'clean-tools',
				'photographs',
				'rings',
				'thick-roots',
				'undercut',
				'roots-wet',
				'hole',
				'label'
			],
			log: {
				liftedOn: '2026-04-04',
				ballDiameterMm: 430,
				ballDepthMm: 210,
				massKg: 52,
				cutRoots: [
					{ azimuthDeg: 40, diameterMm: 31, how: 'saw' },
					{ azimuthDeg: 130, diameterMm: 26, how: 'saw' },
					{ azimuthDeg: 215, diameterMm: 18, how: 'loppers' },
					{ azimuthDeg: 300, diameterMm: 14, how: 'torn' }
				],
				outMinutes: 75,
				soak: 'wetted',
				soakMinutes: 0,
				rooting: 'pocket',
				after: 'heeled-in',
				backfilled: true,
				assumed: [],
				note: 'A brick path lay under the north side; the ball came out shallower there.'
			}
		}
	],
	'Q-02': [
		{
			plannedOn: '2026-11-21',
			school: 'field',
			reading: 'across',
			ballDiameterMm: 1200,
			ballDepthMm: 720,
			people: 3,
			route: {
				...level,
				narrowestMm: 900,
				carryM: 55,
				steps: 4,
				slope: 'gentle',
				payloadKg: 700,
				loadLengthMm: 2400,
				note: 'Through the side gate; steps down to the lane.'
			},
			ticks: ['permission', 'second-choice'],
			log: null
		}
	]
};

export const demoGround: Record<string, GroundPlanInput[]> = {
	'L-01': [
		{
			plannedOn: '2026-05-09',
			placeId: null,
			hole: null,
			holding: null,
			collar: { openMm: 500, depthMm: 290, tool: 'air' },
			loosening: {
				method: 'trenches',
				innerM: 2,
				outerM: 5,
				depthMm: 450,
				trenches: 9,
				widthMm: 200,
				spacingMm: 600
			},
			mulch: { innerM: 0.5, outerM: 3, depthMm: 75 },
			sulphur: null,
			doneOn: null,
			note: 'Air tool hired for the Saturday; the neighbour is told of the noise.'
		}
	]
};

type PlanSpec = Omit<z.input<typeof replantPlanInput>, 'stockPotId'> & { potName: string };

export const demoReplantPlans: Record<string, PlanSpec> = {
	'T-05': {
		potName: 'Ash box, large',
		waterSchool: 'at-once',
		takeFromStock: true,
		planting: {
			plantedOn: '2026-04-19',
			pot: straight('box', 520, 420, 260),
			sizeRule: 'after-rot',
			ballDiameterMm: 370,
			ballDepthMm: 190,
			mix: {
				name: 'Yard mix for evergreens',
				parts: demoMixes[0]?.parts ?? [],
				measured: demoMixes[0]?.measured ?? null
			},
			seat: {
				height: 'mound',
				flareOverRimMm: 5,
				moundMm: 25,
				screens: 6,
				extraHoles: 0,
				holeMm: 25,
				pockets: 'slurry',
				firming: 'loose',
				holding: 'wires',
				wires: [],
				pads: 0,
				stones: 0,
				stoneKg: 0,
				offOn: '2027-04-19'
			},
			coarseLayerMm: 20,
			headspaceMm: 20,
			crownWidthMm: 620
		}
	}
};
