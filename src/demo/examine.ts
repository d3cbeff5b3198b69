import type { ChangeInput } from '$core/tree/changes';
import type { ExaminationInput } from '$core/examine/diagnosis/examination';
import { isSignId } from '$core/vocabulary/signs';
import type { z } from 'zod';
import type { measurementInput } from '$core/examine/measuring/measurement';
import type { triageInput } from '$core/examine/triage/triage';

/** What was looked at, measured, decided and changed at Tarn Hollow, by tag. All of it is invented. */

interface DemoLook extends Pick<ExaminationInput, 'examinedOn' | 'findings'> {
	note?: string;
	events?: ExaminationInput['events'];
	failingFast?: boolean;
	/** Signs that are taken from the measurements of the last days instead of by eye. */
	withMeasured?: boolean;
}
export interface DemoExamine {
	looks: DemoLook[];
	measurements?: z.input<typeof measurementInput>[];
	decisions?: z.input<typeof triageInput>[];
	changes?: ChangeInput[];
}

/** Findings in short: `sign` seen, `-sign` looked and not there, `sign:2` at a grade. */
const seen = (...words: string[]): ExaminationInput['findings'] =>
	words.map((word) => {
		const [sign = '', grade] = word.replace(/^-/, '').split(':');
		if (!isSignId(sign)) throw new Error(`There is no sign ${sign}`);
		return { signId: sign, grade: word.startsWith('-') ? 0 : Number(grade ?? 1), measuredBy: null };
	});

/** Probe readings every 50 mm from 50 mm down, in MPa, one list a position. */
const probed = (...positions: number[][]) =>
	positions.flatMap((list, position) =>
		list.map((resistanceMpa, i) => ({ position: position + 1, depthMm: 50 * (i + 1), resistanceMpa }))
	);

export const demoExamine: Record<string, DemoExamine> = {
	'H-03': {
		looks: [
			{
				examinedOn: '2024-11-16',
				note: 'Ball opened on the bench the same day.',
				events: ['dug'],
				findings: seen('girdler-seen', 'no-flare:2', '-sour-smell', '-roots-dark-soft', 'leans-rocks')
			},
			{
				examinedOn: '2025-09-06',
				findings: seen('-wilts-wet', '-sour-smell', '-dieback-hollow', '-sticky-leaves', 'girdler-seen')
			}
		],
		changes: [
			{
				changedOn: '2025-06-02',
				factors: ['feeding'],
				note: 'First feed since the work, half strength.'
			}
		]
	},
	'J-02': {
		looks: [
			{
				examinedOn: '2025-09-14',
				note: 'Old soil kept on the north half.',
				events: ['dug'],
				findings: seen('leans-rocks', 'one-side-thin', '-galls-wool', '-roots-dark-soft', '-sour-smell')
			}
		]
	},
	'L-01': {
		looks: [
			{
				examinedOn: '2025-05-10',
				note: 'Straight into the lawn like a post on three sides.',
				findings: seen(
					'no-flare:2',
					'small-early-colour',
					'one-side-thin',
					'probe-stops',
					'-brackets',
					'-leans-rocks'
				)
			},
			{
				examinedOn: '2025-06-21',
				note: 'Collar opened by hand to 240 mm.',
				findings: seen(
					'no-flare:2',
					'girdler-seen:2',
					'small-early-colour',
					'one-side-thin',
					'probe-stops',
					'-brackets',
					'-spongy-stem'
				)
			},
			{
				examinedOn: '2026-04-10',
				note: 'Cores and probe on the path side, ten days after rain.',
				withMeasured: true,
				findings: seen('one-side-thin', 'short-shoots', '-brackets', '-leans-rocks', '-soil-lifted')
			}
		],
		measurements: [
			{
				measuredOn: '2026-04-10',
				note: 'Between trunk and path.',
				raw: {
					tool: 'penetrometer',
					source: 'typed',
					moisture: 'field',
					readings: probed(
						[1.4, 2.6, 3.4, 3.7, 3.5, 3.1, 2.6, 2.1, 1.7, 1.5],
						[1.1, 2.2, 3.1, 3.6, 3.4, 2.8, 2.2, 1.9, 1.6, 1.4],
						[0.9, 1.9, 2.9, 3.3, 3.2, 2.9, 2.4, 1.9, 1.6, 1.6]
					)
				}
			},
			{
				measuredOn: '2026-04-10',
				raw: { tool: 'texture', ball: true, ribbonMm: 38, feel: 'neither', organicPercent: 2 }
			},
			{
				measuredOn: '2026-04-10',
				raw: {
					tool: 'soil-cores',
					texture: 'clay-loam',
					cores: [
						{ fromMm: 50, toMm: 100, ringMl: 100, freshG: 178, dryG: 147 },
						{ fromMm: 150, toMm: 200, ringMl: 100, freshG: 205, dryG: 178 },
						{ fromMm: 350, toMm: 400, ringMl: 100, freshG: 183, dryG: 149 }
					]
				}
			},
			{
				measuredOn: '2026-04-10',
				raw: {
					tool: 'infiltration',
					ringDiameterMm: 300,
					readings: [
						{ minutes: 0, sunkMm: 0 },
						{ minutes: 10, sunkMm: 4 },
						{ minutes: 20, sunkMm: 6 },
						{ minutes: 40, sunkMm: 9 },
						{ minutes: 60, sunkMm: 11 },
						{ minutes: 80, sunkMm: 13 }
					]
				}
			},
			{
				measuredOn: '2026-04-10',
				note: 'Before the second cut.',
				raw: {
					tool: 'collar',
					flare: 'one-side',
					buriedMm: 60,
					heaped: false,
					rootsAboveFlare: true,
					across: [
						{ fromDeg: 20, toDeg: 128, diameterMm: 46 },
						{ fromDeg: 118, toDeg: 150, diameterMm: 22 },
						{ fromDeg: 250, toDeg: 275, diameterMm: 18 }
					]
				}
			}
		],
		decisions: [
			{
				decidedOn: '2026-04-10',
				purpose: 'treat',
				vitality: 'fair',
				scratchAlive: true,
				permission: 'written',
				protectedSpecies: false,
				pests: 'none',
				decision: 'go',
				note: 'Air lance for the path side; the arborist looks at the girdler first.'
			}
		]
	},
	'C-07': {
		looks: [
			{
				examinedOn: '2026-03-07',
				note: 'Saucer full. Black roots below, white above.',
				events: ['bought'],
				failingFast: true,
				withMeasured: true,
				findings: seen(
					'wilts-wet',
					'sour-smell:2',
					'stays-wet:2',
					'roots-dark-soft',
					'-sticky-leaves',
					'-spongy-stem',
					'growth-stopped'
				)
			},
			{
				examinedOn: '2026-04-11',
				note: 'A month on; new white tips at the wall.',
				events: ['repotted'],
				findings: seen('-wilts-wet', '-sour-smell', 'stays-wet', 'growth-stopped', '-sticky-leaves')
			}
		],
		measurements: [
			{ measuredOn: '2026-03-07', raw: { tool: 'root-sample', alive: 19, dead: 26 } },
			{ measuredOn: '2026-03-07', raw: { tool: 'squeeze-test', result: 'drips' } },
			{
				measuredOn: '2026-03-07',
				raw: { tool: 'slide-test', result: 'crumbles', wallShare: 0.1, outOfHoles: false }
			}
		],
		changes: [
			{
				changedOn: '2026-03-07',
				factors: ['watering', 'place'],
				note: 'From the café floor to the frame; dry for ten days, then by weight.'
			}
		]
	},
	'B-05': {
		looks: [
			{
				examinedOn: '2025-06-28',
				events: ['moved'],
				findings: seen('decline-after-work', 'wilts-dry', '-sour-smell', '-sticky-leaves')
			}
		]
	},
	'A-01': {
		looks: [
			{
				examinedOn: '2026-02-21',
				note: 'Cut back till the section was pale.',
				failingFast: true,
				findings: seen('spongy-stem', 'roots-dark-soft', 'sour-smell:2', 'stays-wet:2', '-galls-wool')
			},
			{
				examinedOn: '2026-04-12',
				note: 'A soft place again, at the cut.',
				events: ['long-rain'],
				findings: seen('spongy-stem', 'sour-smell', '-galls-wool', '-insects-seen', 'growth-stopped')
			}
		]
	},
	'D-02': {
		looks: [
			{
				examinedOn: '2024-08-03',
				events: ['dug', 'hot-spell'],
				failingFast: true,
				findings: seen('wilts-wet', 'decline-after-work', 'dieback-hollow:2', '-sour-smell')
			}
		]
	},
	'X-40': {
		looks: [
			{
				examinedOn: '2025-09-20',
				note: 'Five slid out as a sample.',
				events: ['bought'],
				findings: seen(
					'roots-out-of-holes',
					'solid-mat:2',
					'channels-through',
					'-sticky-leaves',
					'-roots-dark-soft'
				)
			}
		],
		measurements: [
			{
				measuredOn: '2025-09-20',
				note: 'The worst of five.',
				raw: { tool: 'slide-test', result: 'tight', wallShare: 0.85, outOfHoles: true }
			},
			{ measuredOn: '2025-09-20', raw: { tool: 'outflow', pouredL: 1.5, ranOutL: 1.1, firstDripS: 8 } }
		]
	},
	'W-03': {
		looks: [
			{
				examinedOn: '2026-02-14',
				findings: seen(
					'roots-out-of-holes',
					'channels-through',
					'growth-stopped',
					'-sour-smell',
					'-sticky-leaves'
				)
			}
		],
		decisions: [
			{
				decidedOn: '2026-03-28',
				purpose: 'treat',
				vitality: 'fair',
				scratchAlive: true,
				permission: 'own',
				pests: 'leaf',
				decision: 'nurse',
				backups: 4,
				note: 'Wash the greenfly off, wait for the flush to harden, then the pot.'
			}
		]
	},
	'P-09': {
		looks: [
			{
				examinedOn: '2026-02-07',
				note: 'Weighed with two neighbours.',
				events: ['bought'],
				findings: seen('stays-wet:2', 'lump-squeezed:2', 'yellow-between-veins', '-sour-smell', '-galls-wool')
			},
			{
				examinedOn: '2026-04-14',
				note: 'Against the bench: it hardly drinks.',
				withMeasured: true,
				findings: seen('yellow-between-veins', 'sour-smell', '-galls-wool', '-wilts-wet')
			}
		],
		measurements: [
			{
				measuredOn: '2026-04-13',
				raw: {
					tool: 'weighing',
					wateredOn: '2026-04-08',
					fullKg: 8.4,
					nowKg: 8.05,
					dryKg: 6.1,
					neighbours: [
						{ name: 'H-00', fullKg: 31, nowKg: 27.4 },
						{ name: 'W-03', fullKg: 12.2, nowKg: 10.9 }
					]
				}
			},
			{ measuredOn: '2026-04-13', raw: { tool: 'drain-time', minutes: 6.5 } },
			{ measuredOn: '2026-04-13', raw: { tool: 'squeeze-test', result: 'lump' } }
		]
	},
	'Q-02': {
		looks: [
			{
				examinedOn: '2025-03-15',
				findings: seen('probe-stops:2', 'water-stands:2', 'small-early-colour', '-brackets', '-no-flare')
			},
			{
				examinedOn: '2026-04-02',
				note: 'The Venns saw the first bracket in March.',
				findings: seen(
					'probe-stops',
					'water-stands',
					'brackets',
					'one-side-thin',
					'-leans-rocks',
					'-soil-lifted'
				)
			}
		]
	},
	'G-11': {
		looks: [
			{
				examinedOn: '2026-01-05',
				note: 'Moved in the morning after.',
				events: ['cold-night'],
				findings: seen(
					'windward-burn',
					'after-cold',
					'dieback-hollow',
					'-wilts-wet',
					'-sour-smell',
					'-sticky-leaves'
				)
			}
		],
		measurements: [
			{
				measuredOn: '2026-04-12',
				note: 'Once the buds moved.',
				raw: {
					tool: 'scratch-tap',
					heightMm: 1350,
					points: [
						{ heightMm: 150, sideDeg: 0, reading: 'alive' },
						{ heightMm: 600, sideDeg: 90, reading: 'alive' },
						{ heightMm: 900, sideDeg: 180, reading: 'alive' },
						{ heightMm: 1250, sideDeg: 0, reading: 'dead' },
						{ heightMm: 1080, sideDeg: 270, reading: 'dead' },
						{ heightMm: 980, sideDeg: 90, reading: 'alive' },
						{ heightMm: 1030, sideDeg: 0, reading: 'hollow' }
					]
				}
			}
		],
		changes: [
			{
				changedOn: '2026-01-05',
				factors: ['place', 'light'],
				note: 'From the frame into the heated bay, under the lamp.'
			},
			{ changedOn: '2026-01-06', factors: ['watering', 'feeding'], note: 'On the drip line, with feed.' }
		]
	},
	'T-05': {
		looks: [
			{
				examinedOn: '2026-04-04',
				note: 'Ball held together.',
				events: ['dug'],
				findings: seen('-roots-dark-soft', '-galls-wool', '-dieback-hollow', 'girdler-seen')
			}
		],
		measurements: [
			{
				measuredOn: '2026-04-04',
				raw: {
					tool: 'collar',
					flare: 'all-round',
					buriedMm: 20,
					heaped: false,
					rootsAboveFlare: false,
					across: [{ fromDeg: 330, toDeg: 25, diameterMm: 13 }]
				}
			}
		],
		decisions: [
			{
				decidedOn: '2026-04-04',
				purpose: 'lift',
				vitality: 'strong',
				scratchAlive: true,
				permission: 'written',
				protectedSpecies: false,
				servicesLocated: true,
				pests: 'none',
				rootsKept: 0.45,
				ballDiameterMm: 380,
				ballDepthMm: 260,
				helpers: 1,
				machine: true,
				decision: 'go',
				backups: 6,
				note: 'The hedge goes on Monday whatever we do.'
			}
		]
	}
};
