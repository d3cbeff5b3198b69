<script lang="ts">
	import { enhance } from '$app/forms';
	import { resolve } from '$app/paths';
	import type { Place } from '$core/vocabulary/place';
	import { nightTemperature, outdoorMeanC } from '$core/climate/normals';
	import { leafCalendar } from '$core/tree/tree-demand';
	import { coldLimit } from '$core/climate/cold-limit';
	import { nextWindowDay, rootWorkWindows, seasonFit } from '$core/climate/windows';
	import type { Kind } from '$core/vocabulary/kind';
	import { ballMass } from '$core/examine/measuring/ball-mass';
	import {
		ballReadings,
		ballSchoolNames,
		ballSchools,
		ballSize,
		type BallReading,
		type BallSchool
	} from '$core/replant/lifting/ball-size';
	import { liftingSteps, type StepId } from '$core/replant/lifting/checklist';
	import { liftStops, stepsTold, type Lift, type LiftInput, type LiftLog } from '$core/replant/lifting/lift';
	import { liftKept } from '$core/replant/lifting/lift-cost';
	import type { RootMap } from '$core/roots/map/root-map';
	import { usualCrownWidthMm } from '$core/replant/pots/demand';
	import { emptyRoute, judgeRoute, type Route } from '$core/replant/lifting/route';
	import type { Standing } from '$core/tree/standing';
	import {
		couplings,
		handling,
		liftLimit,
		reachWithBallCm,
		type Coupling
	} from '$core/replant/lifting/niosh';
	import type { Tree } from '$core/take-in/tree';
	import { markOf, type Values } from '$core/values/values';
	import Button from '$ui/Button.svelte';
	import DateField from '$ui/DateField.svelte';
	import Caution from '$ui/Caution.svelte';
	import Choice from '$ui/Choice.svelte';
	import MeasureField from '$ui/MeasureField.svelte';
	import Problem from '$ui/Problem.svelte';
	import Slider from '$ui/Slider.svelte';
	import { act } from '$ui/act';
	import { keepTyped } from '$ui/keep-typed';
	import type { Refused } from '$ui/field';
	import Workings from '$ui/Workings.svelte';
	import { useFormat } from '$ui/format';
	import { untrack } from 'svelte';
	import BallDrawing from './BallDrawing.svelte';
	import LiftDone from './LiftDone.svelte';
	import LiftLogFields from './LiftLogFields.svelte';
	import RouteFields from './RouteFields.svelte';

	/** Beside the hole: the ball to scale, what it weighs, who lifts it, and whether today is the day. */
	interface Props {
		tree: Tree;
		kind: Kind;
		place: Place;
		values: Values;
		today: string;
		/** Thickest root mapped; 0 where none was. */
		thickestMm: number;
		/** Its roots as mapped in the ground, before any lift; null where they were not. */
		mapBefore: RootMap | null;
		lifts: Lift[];
		/** What is known of permission, protection, services and pests. */
		known: Pick<Standing, 'permission' | 'protectedSpecies' | 'servicesLocated' | 'pests' | 'buds'>;
		/** Days ahead stand against root work: it is said above why. */
		stopped: boolean;
		refused?: Refused | null;
	}
	let { tree, kind, place, values, today, thickestMm, mapBefore, lifts, known, stopped, refused }: Props =
		$props();
	const format = useFormat();

	/** The lift that is planned and not yet done. */
	const open = $derived(lifts.find((lift) => lift.log === null) ?? null);
	const done = $derived(lifts.filter((lift) => lift.log !== null));
	const begun = untrack(() => open);
	let school = $state<BallSchool>(begun?.school ?? 'field');
	let reading = $state<BallReading>(begun?.reading ?? 'across');
	const size = $derived(ballSize(tree.trunkDiameterMm, school, reading, values));
	let chosenMm = $state<number | null>(begun?.ballDiameterMm ?? null);
	const diameterMm = $derived(chosenMm ?? Math.round((size.leastDiameterMm + size.mostDiameterMm) / 2));
	let depth = $state<number | null>(begun?.ballDepthMm ?? null);
	const depthMm = $derived(depth ?? Math.round(size.depthMm));
	const mass = $derived(ballMass(diameterMm, depthMm, values));

	let startCm = $state(20);
	let coupling = $state<Coupling>('fair');
	let twistDeg = $state(0);
	const reachCm = $derived(Math.round(reachWithBallCm(diameterMm, values)));
	const travelCm = $derived(values['lifting.travel-cm']);
	const limit = $derived(liftLimit({ reachCm, startCm, travelCm, twistDeg, coupling }, values));
	const usual = $derived(handling(mass.usualKg, limit.kg));
	const most = $derived(handling(mass.mostKg, limit.kg));

	const fit = $derived(seasonFit(kind, place, today, values));
	const next = $derived(nextWindowDay(kind, place, today, values));
	const windows = $derived(
		rootWorkWindows(kind, place, Number(today.slice(0, 4)), values)
			.filter((span) => span.to >= today)
			.slice(0, 2)
	);
	const night = $derived(nightTemperature(place, today, values));
	/** Out of the ground it stands what freshly cut roots stand. */
	const cold = $derived(
		coldLimit(
			{ kind, lastCutOn: today, inGround: false, newShoots: known.buds.value === 'open' },
			today,
			values
		)
	);
	const dayC = $derived(outdoorMeanC(place, today, values) + values['climate.nightBelowMeanC']);
	const leafy = $derived(leafCalendar(kind, place, values)(today));
	const reasons = $derived([
		kind.group === 'deciduous'
			? leafy
				? 'it is in leaf and loses water from the first minute'
				: 'it is leafless now'
			: 'it keeps its leaves: they lose water all the while',
		dayC > values['lifting.hot-C']
			? `a usual day is about ${format().measure(dayC, '°C')}: too hot, lift at dawn or wait`
			: `days are about ${format().measure(dayC, '°C')}`,
		fit === 'in-window'
			? `${format().date(today)} lies in the window of ${kind.commonName} here`
			: fit === 'shoulder'
				? `${format().date(today)} lies at the edge of the window of ${kind.commonName} here`
				: `${format().date(today)} lies outside the window of ${kind.commonName} here`,
		night.coldC < cold.limitC
			? `a cold night of the season is about ${format().measure(night.coldC, '°C')}, and it stands ${format().measure(cold.limitC, '°C')} ${cold.why ? `with ${cold.why}` : 'once it is dug'}: keep it from that`
			: `nights are about ${format().measure(night.usualC, '°C')}`
	]);
	const mm = (value: number): string => format().measure(Math.round(value), 'mm');
	const kg = (value: number): string => format().measure(value, 'kg', 0);

	const stops = $derived(
		liftStops(known.permission.value ?? tree.permission, {
			protectedSpecies: known.protectedSpecies.value,
			servicesLocated: known.servicesLocated.value,
			pests: known.pests.value ?? 'unknown'
		})
	);
	let plannedOn = $state(begun?.plannedOn ?? untrack(() => next ?? today));
	let people = $state(begun?.people ?? 2);
	let route = $state<Route>(begun?.route ?? { ...emptyRoute });
	/** Told before the work: ticked, with its day, until somebody takes the tick off. */
	const told = untrack(() =>
		stepsTold({
			permission: known.permission.value,
			protectedSpecies: known.protectedSpecies.value,
			servicesLocated: known.servicesLocated.value
		})
	);
	const toldOn = (id: StepId): string | null =>
		told.includes(id) ? (id === 'services' ? known.servicesLocated.on : known.permission.on) : null;
	let ticks = $state<StepId[]>(begun?.ticks ?? told);
	const answers = $derived(
		judgeRoute(
			route,
			{
				diameterMm,
				depthMm,
				mostKg: mass.mostKg,
				heightM: tree.heightM,
				way: usual.way,
				plantCount: tree.plantCount
			},
			values
		)
	);
	let log = $state<LiftLog | null>(null);
	const draft = $derived({
		plannedOn,
		school,
		reading,
		ballDiameterMm: diameterMm,
		ballDepthMm: depthMm,
		people,
		route,
		ticks,
		log
	} satisfies LiftInput);
	/** What the log so far says came along of its roots. */
	const kept = $derived(
		log &&
			liftKept(
				log,
				{ trunkDiameterMm: tree.trunkDiameterMm, crownWidthMm: usualCrownWidthMm(tree, values) },
				mapBefore,
				values
			)
	);
	function beginLog(): void {
		log = {
			liftedOn: today,
			ballDiameterMm: diameterMm,
			ballDepthMm: depthMm,
			massKg: null,
			cutRoots: [],
			outMinutes: null,
			soak: null,
			soakMinutes: 0,
			rooting: null,
			after: 'out',
			backfilled: ticks.includes('hole'),
			assumed: ['ballDiameterMm', 'ballDepthMm'],
			note: ''
		};
	}
</script>

<div class="page grid gap-x-10 pt-5 pb-20 lg:grid-cols-2 lg:grid-rows-[auto_1fr]">
	<div>
		<div class="flex flex-wrap items-baseline justify-between gap-3">
			<h2 class="text-xl">Lift</h2>
			<a class="chalk" href={resolve('/trees/[id]/replant', { id: tree.id })}>Back to Replant</a>
		</div>
		{#if stops.length > 0}
			<div class="mt-3 border-l-4 border-oxide py-1 pl-3" role="note">
				<p class="font-semibold text-oxide">Do not dig yet.</p>
				<ul class="text-sm">
					{#each stops as stop (stop)}<li>{stop}</li>{/each}
				</ul>
				<p class="text-sm">
					<a class="chalk" href={resolve('/trees/[id]/examine/before', { id: tree.id })}>Before the work</a> is
					where this is looked at.
				</p>
			</div>
		{/if}
		<section
			aria-label="Today"
			class={['mt-3 border-l-4 pl-3', fit === 'in-window' && !stopped ? 'border-lichen' : 'border-ochre']}
		>
			<p>
				<strong
					>{stopped
						? fit === 'in-window'
							? 'In its window, but not today'
							: 'Not today'
						: fit === 'in-window'
							? 'Today will do'
							: fit === 'shoulder'
								? 'Today, if it must be'
								: 'Not today, unless it cannot wait'}:</strong
				>
				{reasons.join('; ')}. Not in a heat wave, and not with hard frost due.
			</p>
			<p class="mt-1 text-sm text-slate">
				Its windows: {windows
					.map((span) =>
						span.from <= today
							? `now, until ${format().date(span.to)}`
							: `${format().date(span.from)} to ${format().date(span.to)}`
					)
					.join('; ') || `none: ${kind.commonName} has no season for it at this place`}{next &&
				fit !== 'in-window'
					? `. Next good day: ${format().date(next)}`
					: ''}. From a stand-in climate, no forecast.
			</p>
		</section>

		<div class="mt-4 flex flex-col gap-2">
			<Choice
				label="Ball by"
				bind:value={school}
				options={ballSchools.map((value) => ({ value, label: ballSchoolNames[value] }))}
				onchange={() => ((chosenMm = null), (depth = null))}
			/>
			{#if school === 'field'}
				<Choice
					label="Five to six trunks are"
					size="small"
					bind:value={reading}
					options={ballReadings.map((value) => ({
						value,
						label: value === 'across' ? 'across the ball' : 'clear of the trunk on each side'
					}))}
					onchange={() => ((chosenMm = null), (depth = null))}
				/>
			{/if}
			<p>
				<Workings
					label="Ball to dig"
					formula={school === 'field'
						? reading === 'across'
							? `${values['lifting.trunks-least']} to ${values['lifting.trunks-most']} × ${mm(tree.trunkDiameterMm)}`
							: `trunk + 2 × ${values['lifting.trunks-least']} to ${values['lifting.trunks-most']} trunks`
						: 'caliper 1, 2, 3, 4 in → ball 16, 24, 32, 42 in'}
					lines={school === 'field'
						? [
								{
									label: 'at least',
									value: `${values['lifting.trunks-least']} ×`,
									mark: markOf('lifting.trunks-least')
								},
								{
									label: 'up to',
									value: `${values['lifting.trunks-most']} ×`,
									mark: markOf('lifting.trunks-most')
								}
							]
						: [
								{
									label: 'table',
									value: 'ANSI Z60.1',
									mark: 'recalled from memory, not checked against the source'
								}
							]}
					changes="The trunk at its base in the field, the caliper for the table."
					><strong
						>{mm(size.leastDiameterMm)}{Math.round(size.mostDiameterMm) > Math.round(size.leastDiameterMm)
							? ` to ${mm(size.mostDiameterMm)}`
							: ''}</strong
					></Workings
				>
				across, at least {mm(size.depthMm)} deep{size.inTable
					? ''
					: '; the table ends before this trunk, its line was drawn on'}.
			</p>
			<Slider
				label="Dig it"
				value={diameterMm}
				min={Math.round(tree.trunkDiameterMm * 1.5)}
				max={Math.round(size.mostDiameterMm * 1.5)}
				step={5}
				shown={mm(diameterMm)}
				oninput={(value) => (chosenMm = value)}
				onchange={(value) => (chosenMm = value)}
			/>
			<Slider
				label="this deep"
				value={depthMm}
				min={Math.round(size.depthMm * 0.4)}
				max={Math.round(size.depthMm * 1.6)}
				step={5}
				shown={mm(depthMm)}
				oninput={(value) => (depth = value)}
				onchange={(value) => (depth = value)}
			/>
		</div>

		<section aria-label="Weight and hands" class="mt-4 border-t pt-3">
			<p class="font-display text-3xl font-bold">
				<Workings
					label="Mass of the ball"
					formula="volume × moist density"
					lines={[
						{
							label: 'half-ellipsoid, light soil',
							value: kg(mass.leastKg),
							mark: markOf('lifting.density-least')
						},
						{ label: 'between, usual soil', value: kg(mass.usualKg), mark: markOf('lifting.density') },
						{ label: 'cylinder, wet clay', value: kg(mass.mostKg), mark: markOf('lifting.density-most') }
					]}
					changes="Drier soil, a smaller or shallower ball. The tree itself comes on top."
					>{kg(mass.usualKg)}</Workings
				>
			</p>
			<p class="text-sm text-slate">{kg(mass.leastKg)} to {kg(mass.mostKg)}, without the tree</p>
			<p class="mt-2">
				Lifted like this one person takes
				<Workings
					label="What one person may lift"
					formula="23 kg × reach × height × travel × twist × hold"
					lines={[
						{
							label: `reach, ${reachCm} cm`,
							value: `× ${format().number(limit.factors.reach, 2)}`,
							mark: markOf('lifting.body-gap-cm')
						},
						{ label: `hands start at ${startCm} cm`, value: `× ${format().number(limit.factors.height, 2)}` },
						{
							label: `up ${travelCm} cm`,
							value: `× ${format().number(limit.factors.travel, 2)}`,
							mark: markOf('lifting.travel-cm')
						},
						{ label: `twisted ${twistDeg}°`, value: `× ${format().number(limit.factors.twist, 2)}` },
						{ label: `hold ${coupling}`, value: `× ${format().number(limit.factors.hold, 2)}` },
						{ label: 'at best', value: kg(values['triage.person-kg']), mark: markOf('triage.person-kg') }
					]}
					changes="A smaller ball is nearer to the body; straps give a good hold; a start at knuckle height."
					><strong>{limit.kg < 1 ? 'nothing: it is too wide to hold' : kg(limit.kg)}</strong></Workings
				>: {usual.way === 'barrow or machine'
					? ''
					: `${usual.people} ${usual.people === 1 ? 'person' : 'people'}, `}<strong>{usual.way}</strong
				>{most.way === usual.way ? '' : `; in wet clay ${most.way}`}.
			</p>
			<div class="mt-2 flex flex-col gap-2">
				<Slider
					label="Hands start at"
					value={startCm}
					min={0}
					max={120}
					step={5}
					shown={format().measure(startCm * 10, 'mm')}
					oninput={(value) => (startCm = value)}
					onchange={(value) => (startCm = value)}
				/>
				<Slider
					label="Twisted by"
					value={twistDeg}
					min={0}
					max={90}
					step={5}
					shown="{twistDeg}°"
					oninput={(value) => (twistDeg = value)}
					onchange={(value) => (twistDeg = value)}
				/>
				<Choice
					label="Hold"
					size="small"
					bind:value={coupling}
					options={couplings.map((value) => ({
						value,
						label:
							value === 'good'
								? 'straps or handles'
								: value === 'fair'
									? 'wrapped and tied'
									: 'loose, slippery'
					}))}
				/>
			</div>
			{#if usual.way !== 'by hand'}
				<div class="mt-3">
					<Caution title="Not by hand alone"
						>Sling, poles, barrow or a machine. Lift by the ball, never by the trunk.</Caution
					>
				</div>
			{/if}
		</section>
	</div>

	<div class="mt-6 lg:row-span-2 lg:mt-0">
		<BallDrawing
			{diameterMm}
			{depthMm}
			secondRingMm={diameterMm + 2 * values['lifting.second-ring-mm']}
			trunkDiameterMm={tree.trunkDiameterMm}
		/>
		<section aria-labelledby="steps-title" class="mt-4">
			<h3 id="steps-title" class="text-lg">In working order</h3>
			{#each liftingSteps as step (step.title)}
				<h4 class="mt-3 text-base">{step.title}</h4>
				<ul class="mt-1 divide-y border-y">
					{#each step.items as item (item.id)}
						<li>
							<label class="flex min-h-11 items-center gap-3 py-1"
								><input
									type="checkbox"
									class="size-5 shrink-0"
									checked={ticks.includes(item.id)}
									onchange={(event) => {
										ticks = event.currentTarget.checked
											? [...ticks, item.id]
											: ticks.filter((id) => id !== item.id);
									}}
								/><span
									>{format().inWords(item.text)}{#if ticks.includes(item.id) && toldOn(item.id) !== null}<span
											class="block text-sm text-slate">told on {format().date(toldOn(item.id) ?? '')}</span
										>{/if}</span
								></label
							>
						</li>
					{/each}
				</ul>
			{/each}
			<p class="mt-2 text-sm text-slate">
				{thickestMm > 0
					? `The thickest root mapped is ${mm(thickestMm)}: ${thickestMm > values['cut.loppersMm'] ? 'bring a saw' : 'loppers will do'}.`
					: 'No roots are mapped yet: bring a saw and loppers.'}
			</p>
		</section>
	</div>

	<div class="mt-6 border-t pt-4 lg:col-start-1 lg:row-start-2">
		<form
			method="POST"
			action="?/keep"
			use:enhance={act({ keep: true, done: () => (log = null) })}
			{@attach keepTyped(`lift.${tree.id}`)}
			novalidate
		>
			<Problem {refused} />
			<div class="flex flex-col gap-6">
				<RouteFields bind:route {answers} {refused} />
				<section aria-labelledby="log-title" class="flex flex-col gap-3">
					<h3 id="log-title" class="text-lg">{log ? 'What really happened' : 'The plan of the lift'}</h3>
					<div class="grid gap-3 sm:grid-cols-2">
						<DateField
							name="plannedOn"
							label="Planned for"
							value={plannedOn}
							oninput={(day) => (plannedOn = day)}
							{refused}
						/>
						<MeasureField
							name="people"
							label="People there"
							unit=""
							value={people}
							oninput={(value) => (people = Math.round(value ?? 1))}
							{refused}
						/>
					</div>
					{#if usual.way !== 'barrow or machine' && people < usual.people}
						<Caution title="Too few hands"
							>{usual.people} are wanted for {kg(mass.usualKg)} lifted like this; {people}
							{people === 1 ? 'is' : 'are'} there.</Caution
						>
					{/if}
					{#if log}
						<LiftLogFields bind:log {kept} {refused} />
					{:else}
						<div><Button onclick={beginLog}>It is out of the ground: write the log</Button></div>
					{/if}
					<input type="hidden" name="lift" value={JSON.stringify(draft)} />
					<input type="hidden" name="id" value={open?.id ?? ''} />
					<input type="hidden" name="version" value={open?.version ?? ''} />
					<div class="flex flex-wrap gap-3">
						<Button type="submit" tone="solid" size="large"
							>{log ? 'Keep the log' : 'Keep plan and ticks'}</Button
						>
						{#if log}<Button size="large" tone="quiet" onclick={() => (log = null)}>Not yet</Button>{/if}
					</div>
				</section>
			</div>
		</form>
		<LiftDone lifts={done} />
	</div>
</div>
