<script lang="ts">
	import { enhance } from '$app/forms';
	import { resolve } from '$app/paths';
	import { climateSaid } from '$core/climate/normals';
	import { ballReadings, ballSchoolNames, ballSchools } from '$core/replant/lifting/ball-size';
	import { liftingSteps } from '$core/replant/lifting/checklist';
	import { couplings, type Coupling } from '$core/replant/lifting/niosh';
	import { markOf } from '$core/values/values';
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
	import type { Lift } from '$core/replant/lifting/lift';
	import LiftCorrection from './LiftCorrection.svelte';
	import LiftDone from './LiftDone.svelte';
	import LiftLogFields from './LiftLogFields.svelte';
	import RouteFields from './RouteFields.svelte';
	import { LiftState, type LiftOf } from './lift-state.svelte';

	/** Beside the hole: the ball to scale, what it weighs, who lifts it, and whether today is the day. */
	interface Props {
		of: LiftOf;
		refused?: Refused | null;
	}
	let { of, refused }: Props = $props();
	const format = useFormat();
	const lift = new LiftState(untrack(() => of));
	$effect.pre(() => {
		lift.of = of;
	});
	const { tree, kind, values } = $derived(of);
	const { size, mass, limit, usual, most, day, stops } = $derived(lift);
	/** Once it is out of the ground the plan of another lift is asked for. */
	let again = $state(false);
	let correcting = $state.raw<Lift | null>(null);
	const planning = $derived(again || lift.done.length === 0 || lift.open !== null);
	const mm = (value: number): string => format().measure(value, 'mm');
	/** Steps that a tape shows: a quarter of an inch, or half a centimetre. */
	const gridMm = $derived(format().settings.units === 'imperial' ? 25.4 / 4 : 5);
	const onGrid = (value: number): number => Math.round(value / gridMm) * gridMm;
	const kg = (value: number): string => format().measure(value, 'kg', 0);
	const holds: Record<Coupling, string> = {
		good: 'straps or handles',
		fair: 'wrapped and tied',
		poor: 'loose, slippery'
	};
</script>

<div class="page pt-5">
	<div>
		<div class="flex flex-wrap items-baseline justify-between gap-3">
			<h2 class="text-xl">Lift</h2>
			<a class="chalk" href={resolve('/trees/[id]/replant', { id: tree.id })}>Back to Replant</a>
		</div>
		<LiftDone
			lifts={lift.done}
			tasks={of.tasks}
			correct={tree.state === 'in-care' ? (one) => (correcting = one) : null}
		/>
		{#if correcting}
			{#key correcting.id}
				<LiftCorrection of={correcting} {lift} done={() => (correcting = null)} {refused} />
			{/key}
		{:else if !planning}
			<div class="mt-4"><Button onclick={() => (again = true)}>Plan another lift</Button></div>
		{/if}
	</div>
</div>
{#if planning && !correcting}
	<div class="page grid gap-x-10 pt-5 pb-20 lg:grid-cols-2 lg:grid-rows-[auto_1fr]">
		<div>
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
				class={[
					'mt-3 border-l-4 pl-3',
					day.fit === 'in-window' && !of.stopped ? 'border-lichen' : 'border-ochre'
				]}
			>
				<p>
					<strong>{day.answer}:</strong>
					{format().inWords(day.reasons.join('; '), of.today)}. Not in a heat wave, and not with hard frost
					due.
				</p>
				<p class="mt-1 text-sm text-slate">
					Its windows: {day.windows
						.map((span) =>
							span.from <= of.today
								? `now, until ${format().date(span.to)}`
								: `${format().date(span.from)} to ${format().date(span.to)}`
						)
						.join('; ') || `none: ${kind.commonName} has no season for it at this place`}{day.nextOn &&
					day.fit !== 'in-window'
						? `. Next good day: ${format().date(day.nextOn)}`
						: ''}; all {climateSaid(of.place)}.
				</p>
			</section>

			<div class="mt-4 flex flex-col gap-2">
				<Choice
					label="Ball by"
					bind:value={() => lift.school, (school) => lift.reckonBy({ school })}
					options={ballSchools.map((value) => ({ value, label: ballSchoolNames[value] }))}
				/>
				{#if lift.school === 'field'}
					<Choice
						label="Five to six trunks are"
						size="small"
						bind:value={() => lift.reading, (reading) => lift.reckonBy({ reading })}
						options={ballReadings.map((value) => ({
							value,
							label: value === 'across' ? 'across the ball' : 'clear of the trunk on each side'
						}))}
					/>
				{/if}
				<p>
					<Workings
						label="Ball to dig"
						formula={lift.school === 'field'
							? lift.reading === 'across'
								? `${values['lifting.trunks-least']} to ${values['lifting.trunks-most']} × ${mm(tree.trunkDiameterMm)}`
								: `trunk + 2 × ${values['lifting.trunks-least']} to ${values['lifting.trunks-most']} trunks`
							: 'caliper 1, 2, 3, 4 in → ball 16, 24, 32, 42 in'}
						lines={lift.school === 'field'
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
							>{format().about(size.leastDiameterMm)}{Math.round(size.mostDiameterMm) >
							Math.round(size.leastDiameterMm)
								? ` to ${format().about(size.mostDiameterMm)}`
								: ''}</strong
						></Workings
					>
					across, at least {format().about(size.depthMm)} deep{size.inTable
						? ''
						: '; the table ends before this trunk, its line was drawn on'}.
					{#if lift.meant}
						Before the work, on {format().day(lift.meant.on, of.today)}, it was meant to be {[
							lift.meant.widthMm === null ? [] : `${mm(lift.meant.widthMm)} across`,
							lift.meant.depthMm === null ? [] : `${mm(lift.meant.depthMm)} deep`
						]
							.flat()
							.join(' and ')}: it begins with that.
					{/if}
				</p>
				<Slider
					label="Dig it"
					value={lift.diameterMm}
					min={onGrid(tree.trunkDiameterMm * 1.5)}
					max={Math.max(size.mostDiameterMm * 1.5, lift.begunMm.width)}
					step={gridMm}
					shown={mm(lift.diameterMm)}
					oninput={(value) => (lift.chosenMm = value)}
				/>
				<Slider
					label="this deep"
					value={lift.depthMm}
					min={onGrid(size.depthMm * 0.4)}
					max={Math.max(size.depthMm * 1.6, lift.begunMm.depth)}
					step={gridMm}
					shown={mm(lift.depthMm)}
					oninput={(value) => (lift.chosenDepthMm = value)}
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
								label: `reach, ${lift.reachCm} cm`,
								value: `× ${format().number(limit.factors.reach, 2)}`,
								mark: markOf('lifting.body-gap-cm')
							},
							{
								label: `hands start at ${lift.startCm} cm`,
								value: `× ${format().number(limit.factors.height, 2)}`
							},
							{
								label: `up ${values['lifting.travel-cm']} cm`,
								value: `× ${format().number(limit.factors.travel, 2)}`,
								mark: markOf('lifting.travel-cm')
							},
							{ label: `twisted ${lift.twistDeg}°`, value: `× ${format().number(limit.factors.twist, 2)}` },
							{ label: `hold ${lift.coupling}`, value: `× ${format().number(limit.factors.hold, 2)}` },
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
						value={lift.startCm}
						min={0}
						max={120}
						step={5}
						shown={format().measure(lift.startCm * 10, 'mm')}
						oninput={(value) => (lift.startCm = value)}
					/>
					<Slider
						label="Twisted by"
						value={lift.twistDeg}
						min={0}
						max={90}
						step={5}
						shown="{lift.twistDeg}°"
						oninput={(value) => (lift.twistDeg = value)}
					/>
					<Choice
						label="Hold"
						size="small"
						bind:value={lift.coupling}
						options={couplings.map((value) => ({
							value,
							label: holds[value]
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
				diameterMm={lift.diameterMm}
				depthMm={lift.depthMm}
				secondRingMm={lift.diameterMm + 2 * values['lifting.second-ring-mm']}
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
										checked={lift.ticks.includes(item.id)}
										onchange={(event) => lift.tick(item.id, event.currentTarget.checked)}
									/><span
										>{format().inWords(item.text)}{#if lift.toldOn(item.id) !== null}<span
												class="block text-sm text-slate"
												>told on {format().date(lift.toldOn(item.id) ?? '')}</span
											>{/if}</span
									></label
								>
							</li>
						{/each}
					</ul>
				{/each}
				<p class="mt-2 text-sm text-slate">
					{of.thickestMm > 0
						? `The thickest root mapped is ${mm(of.thickestMm)}: ${of.thickestMm > values['cut.loppersMm'] ? 'bring a saw' : 'loppers will do'}.`
						: 'No roots are mapped yet: bring a saw and loppers.'}
				</p>
			</section>
		</div>

		<div class="mt-6 border-t pt-4 lg:col-start-1 lg:row-start-2">
			<form
				method="POST"
				action="?/keep"
				use:enhance={act({ keep: true, done: () => ((lift.log = null), (again = false)) })}
				{@attach keepTyped(`lift.${tree.id}`)}
				novalidate
			>
				<Problem {refused} />
				<div class="flex flex-col gap-6">
					<RouteFields bind:route={lift.route} answers={lift.answers} {refused} />
					<section aria-labelledby="log-title" class="flex flex-col gap-3">
						<h3 id="log-title" class="text-lg">
							{lift.log ? 'What really happened' : 'The plan of the lift'}
						</h3>
						<div class="grid gap-3 sm:grid-cols-2">
							<DateField
								name="plannedOn"
								label="Planned for"
								value={lift.plannedOn}
								hint={lift.plannedDay}
								oninput={(day) => (lift.plannedOn = day)}
								{refused}
							/>
							<MeasureField
								name="people"
								label="People there"
								unit=""
								value={lift.people}
								oninput={(value) => (lift.people = Math.round(value ?? 1))}
								{refused}
							/>
						</div>
						{#if lift.tooFewHands}
							<Caution title="Too few hands"
								>{usual.people} are wanted for {kg(mass.usualKg)} lifted like this; {lift.people}
								{lift.people === 1 ? 'is' : 'are'} there.</Caution
							>
						{/if}
						{#if lift.log}
							<LiftLogFields bind:log={lift.log} kept={lift.kept} {refused} />
						{:else}
							<div>
								<Button onclick={() => lift.beginLog()}>It is out of the ground: write the log</Button>
							</div>
						{/if}
						<input type="hidden" name="lift" value={JSON.stringify(lift.draft)} />
						<input
							type="hidden"
							name="log"
							data-typed
							value={JSON.stringify(lift.log)}
							oninput={(event) => lift.takeBackLog(event.currentTarget.value)}
						/>
						<input type="hidden" name="id" value={lift.open?.id ?? ''} />
						<input type="hidden" name="version" value={lift.open?.version ?? ''} />
						<div class="flex flex-wrap gap-3">
							<Button type="submit" tone="solid" size="large"
								>{lift.log ? 'Keep the log' : 'Keep plan and ticks'}</Button
							>
							{#if lift.log}<Button size="large" tone="quiet" onclick={() => (lift.log = null)}
									>Not yet</Button
								>{/if}
						</div>
					</section>
				</div>
			</form>
		</div>
	</div>
{/if}
