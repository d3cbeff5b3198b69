import { describe, expect, it } from 'vitest';
import { z } from 'zod';
import { calculations } from '$core/compute/calculations';
import { decoded } from '../decoded';
import { defaultValues } from '$core/values/values';
import { calculationExamples } from '../examples';
import { parseQuickRoot } from '$core/roots/io/quick-entry';
import { segmentFromQuick } from '$core/roots/map/root-map';
import { drawer, printOf } from '../kept';
import { cut } from '../records';

/** Questions to each calculation; fewer where each takes long. */
const QUESTIONS = 50;
const LONGEST = 20_000;
const WITH_PICTURE = ['picture-card', 'picture-root', 'leaf-cover', 'picture-line-up', 'root-wall'];
const FEWER: Record<string, number> = {
	'recovery-forecast': 30,
	'next-checks': 40,
	rehearsal: 5,
	'strongest-other-plan': 3,
	// A picture cannot be drawn from its schema: the example alone.
	...Object.fromEntries(WITH_PICTURE.map((name) => [name, 2])),
	...Object.fromEntries(
		[
			'reduction-plan',
			'propose-pots',
			'advice',
			'planting-angle',
			'shared-pot',
			'diagnosis',
			'root-courses',
			'fronts',
			'judge-pot',
			'root-ledger',
			'root-shares',
			'referral',
			'simulated-weather',
			'weather-series'
		].map((name) => [name, 30])
	)
};

/** Roots of most kinds and states, as one has them at hand; a map of one root asks little. */
const roots = [
	'6 30 anchor l140',
	'9 28 anchor d2 l120',
	'12 29 anchor up',
	'3 27 anchor d5',
	'4 10 circling',
	'8 9 rotten',
	'2 12 girdling',
	'10 18 dead20',
	'7 5 keep',
	'11 4 trace',
	'1 14 cut'
].flatMap((line, i) => {
	const entry = parseQuickRoot(line, 'container', 60, defaultValues);
	return entry.ok ? [segmentFromQuick(entry.root, { trunkDiameterMm: 60, ballRadiusMm: 150 }, `r${i}`)] : [];
});
const toCut = roots.slice(2, 7).map(({ id }, i) => ({ segmentId: id, stage: i % 2 }));
/** The first stage is done, the second planned. */
const cutRecords = toCut.map(({ segmentId, stage }, i) => ({
	...cut(segmentId, stage, stage === 0 ? '2025-03-01' : null),
	id: `c${i}`
}));
const WITH_RECORDS = ['cut-sessions', 'stage-gate'];
const seen = [
	{ observedOn: '2025-05-02', buds: 'swelling', leafCover: 0.2, shootExtensionMm: 8, firmness: 'moves' },
	{
		observedOn: '2025-07-20',
		buds: 'open',
		leafCover: 0.9,
		leafState: 'turgid',
		shootExtensionMm: 160,
		diebackLimitMm: 900,
		whiteTips: true
	},
	{ observedOn: '2026-04-10', buds: 'open', leafCover: 0.7, smell: 'none', diebackLimitMm: 880, weightKg: 12 }
];
const observations = seen.map((look, i) => ({ ...look, id: `o${i}`, version: 1 }));
/** Of what these ask, the example says nothing: a question that does. */
const fuller: Record<string, object> = {
	verdict: { observations },
	'stage-gate': { observations },
	'recovery-decisions': { observations },
	'cut-sessions': {
		plan: {
			temper: 'usual',
			vigour: 'fair',
			reserves: 'field-grown',
			stageDates: ['2025-03-01', '2026-04-18'],
			cuts: []
		}
	},
	release: { looks: seen.map(({ observedOn, buds, leafCover }) => ({ observedOn, buds, leafCover })) },
	referral: {
		findings: [
			{ signId: 'brackets', grade: 1 },
			{ signId: 'leans-rocks', grade: 1 },
			{ signId: 'stem-bleeds', grade: 1 },
			{ signId: 'gas-smell', grade: 1 }
		]
	},
	'penetrometer-csv': {
		text: 'depth_mm,resistance_kpa\n100,1500\n150,2100\n200,2900\n250,"3,1"\nx,4\n'
	},
	'texture-by-feel': { ribbonMm: 60, feel: 'gritty' },
	'drain-time': { minutes: 0.5 }
};
/** The example, a fuller one, and the same asked of many roots where it asks of roots. */
const begun = (name: string, example: unknown): unknown[] => {
	const full = { ...(example as object), ...fuller[name] };
	const text = JSON.stringify(full, (field, value: unknown) =>
		field === 'segments'
			? roots
			: field === 'cuts' && Array.isArray(value)
				? WITH_RECORDS.includes(name)
					? cutRecords
					: toCut
				: value
	);
	return [example, JSON.parse(text)];
};

describe('answers to drawn questions are what they were', () => {
	// Those that take a picture draw nothing: the seeds of the others go by their place without them.
	const drawnFor = calculations.filter(({ name }) => !WITH_PICTURE.includes(name));
	it.each(
		calculations.map((calculation) => ({
			name: calculation.name,
			calculation,
			i: drawnFor.indexOf(calculation)
		}))
	)('$name', async ({ name, calculation, i }) => {
		const draw = drawer(
			z.toJSONSchema(calculation.input, { io: 'input', unrepresentable: 'any' }) as object,
			i + 1
		);
		const taken = (question: unknown): boolean => calculation.input.safeParse(question).success;
		const asked = begun(name, calculationExamples[name]);
		expect(asked.map(taken)).toEqual([true, true]);
		const wanted = FEWER[name] ?? QUESTIONS;
		for (let tries = 0; asked.length < wanted && tries < wanted * 20; tries++) {
			// Each goes on from one before, so that the last lie far from the example.
			const question = draw(asked[1 + ((tries * 7) % (asked.length - 1))]);
			if (taken(question) && JSON.stringify(question).length < LONGEST) asked.push(question);
		}
		const lines: string[] = [];
		for (const question of asked)
			lines.push(
				`${lines.length} ${printOf(name, { question, answer: calculation.output.parse(await calculation.run(question, defaultValues, decoded)) })}`
			);
		await expect(`${lines.join('\n')}\n`).toMatchFileSnapshot(`../kept/${name}.txt`);
	});
});
