<script lang="ts">
	import { midSentence } from '$core/text/mid-sentence';
	import { enhance } from '$app/forms';
	import { resolve } from '$app/paths';
	import ReplantParts from './ReplantParts.svelte';
	import {
		collarToolNames,
		collarTools,
		looseningMethods,
		looseningNames,
		groundHoldingNames,
		groundHoldings,
		type GroundPlan
	} from '$core/replant/ground/ground-plan';
	import { carbonateTests, sulphurSoils } from '$core/replant/ground/sulphur';
	import { markOf, type ValueKey } from '$core/values/values';
	import Button from '$ui/Button.svelte';
	import DateField from '$ui/DateField.svelte';
	import Caution from '$ui/Caution.svelte';
	import Choice from '$ui/Choice.svelte';
	import Consequences from '$ui/Consequences.svelte';
	import MeasureField from '$ui/MeasureField.svelte';
	import Problem from '$ui/Problem.svelte';
	import SelectField from '$ui/SelectField.svelte';
	import TextField from '$ui/TextField.svelte';
	import Workings from '$ui/Workings.svelte';
	import { act } from '$ui/act';
	import { keepTyped } from '$ui/keep-typed';
	import { problemOf, type Refused } from '$ui/field';
	import { useFormat } from '$ui/format';
	import { untrack } from 'svelte';
	import GroundDrawing from './GroundDrawing.svelte';
	import SiteAnswers from './SiteAnswers.svelte';
	import { GroundState, type GroundOf } from './ground-state.svelte';

	/** Works in the ground: planting hole, collar, loosening, mulch, acidifying; and the place against its limits. */
	interface Props {
		of: GroundOf;
		refused?: Refused | null;
	}
	let { of, refused }: Props = $props();
	const format = useFormat();
	const works = new GroundState(untrack(() => of));
	$effect.pre(() => {
		works.of = of;
	});
	const { values } = works.of;
	const plan = $derived(works.plan);
	const amounts = $derived(works.amounts);
	const L = (litres: number): string => format().measure(litres, 'L', 0);
	const mm = (value: number): string => format().measure(value, 'mm');
	const m = (value: number): string => format().measure(value, 'm', 1);
	const hours = (value: number): string =>
		value < 1
			? `${format().number(Math.max(5, Math.round(value * 60)))} min`
			: `${format().number(value, 1)} h`;
	const line = (key: ValueKey, label: string, unit: string) => ({
		label,
		value: `${format().number(values[key], 2)} ${unit}`,
		mark: markOf(key)
	});
	const parts = [
		{ key: 'hole', label: 'Plant it in the ground' },
		{ key: 'holding', label: 'Stake or guy it' },
		{ key: 'collar', label: 'Open the collar' },
		{ key: 'loosening', label: 'Loosen the soil' },
		{ key: 'mulch', label: 'Mulch ring' },
		{ key: 'sulphur', label: 'Acidify' }
	] as const;
	const done = $derived(of.records.groundPlans.filter((entry) => entry.doneOn !== null));
	let finishing = $state(false);
	/** Sent without any piece of work. */
	const nothingNamed = $derived(
		parts.every(({ key }) => plan[key] === null) ? problemOf(refused, 'works') : null
	);
	const draft = $derived(JSON.stringify({ ...plan, doneOn: finishing ? plan.doneOn : null }));
	const words = (entry: GroundPlan): string =>
		parts
			.filter(({ key }) => entry[key] !== null)
			.map(({ label }) => midSentence(label))
			.join(', ');
	const nearStructure = $derived(
		plan.loosening !== null && plan.loosening.innerM < Math.max(works.zones.noCutM, works.zones.srzM) - 1e-9
	);
</script>

{#snippet number(
	name: string,
	label: string,
	unit: 'mm' | 'm' | 'm²' | '',
	value: number,
	set: (value: number) => void,
	hint?: string
)}
	<MeasureField
		{name}
		{label}
		{unit}
		{value}
		{hint}
		oninput={(next) => {
			if (next !== null) set(next);
		}}
		{refused}
	/>
{/snippet}

<div class="page grid gap-x-10 lg:grid-cols-[minmax(0,1fr)_25rem]">
	<form
		method="POST"
		action="?/keep"
		use:enhance={act({ keep: true, done: () => (finishing = false) })}
		{@attach keepTyped(`ground.${of.records.tree.id}`)}
		class="flex flex-col gap-6 pt-5 pb-20"
		novalidate
	>
		<ReplantParts
			treeId={of.records.tree.id}
			inGround={of.records.tree.situation === 'in-ground'}
			at="ground"
		/>
		<h2 class="text-xl">In the ground</h2>
		<Problem {refused} />
		<fieldset data-field="works" data-label="What is to be done">
			<legend class="text-sm font-semibold">What is to be done</legend>
			<div class="mt-1 flex flex-wrap gap-x-5 gap-y-1">
				{#each parts as part (part.key)}
					<label class="flex min-h-11 items-center gap-2"
						><input
							type="checkbox"
							class="size-5"
							name="works"
							aria-invalid={nothingNamed ? 'true' : undefined}
							aria-describedby={nothingNamed ? 'works-problem' : undefined}
							value={part.key}
							checked={plan[part.key] !== null}
							onchange={() => works.toggle(part.key)}
						/>{part.label}</label
					>
				{/each}
			</div>
			{#if nothingNamed}
				<p id="works-problem" class="text-sm text-oxide">What is to be done {nothingNamed}.</p>
			{/if}
		</fieldset>
		{#if plan.hole || of.records.tree.situation !== 'in-ground'}
			<section aria-labelledby="site-title" class="flex flex-col gap-2">
				<h3 id="site-title" class="text-lg">The place against its limits</h3>
				<div class="grid gap-3 sm:grid-cols-2">
					<SelectField
						name="placeId"
						label="It is to stand at"
						value={plan.placeId ?? of.records.tree.placeId}
						onchange={(event) => (plan.placeId = event.currentTarget.value)}
						options={of.places.map(({ id, name }) => ({ value: id, label: name }))}
						{refused}
					/>
					<MeasureField
						name="drain~minutes"
						label="A test hole empties in, minutes"
						unit=""
						optional
						value={works.drainMin}
						oninput={(value) => works.setDrain(value)}
						hint="Fill it twice, time the second"
					/>
				</div>
				<SiteAnswers answers={works.site} />
			</section>
		{/if}
		{#if plan.hole}
			{@const hole = plan.hole}
			<fieldset class="grid gap-3 sm:grid-cols-2">
				<legend class="mb-1 font-display text-lg font-semibold">Planting hole</legend>
				{@render number('hole.widthMm', 'Width of the hole', 'mm', hole.widthMm, (v) => (hole.widthMm = v))}
				{@render number('hole.depthMm', 'Depth of the hole', 'mm', hole.depthMm, (v) => (hole.depthMm = v))}
				{@render number(
					'hole.ballDiameterMm',
					'Width of the ball',
					'mm',
					hole.ballDiameterMm,
					(v) => (hole.ballDiameterMm = v)
				)}
				{@render number(
					'hole.ballDepthMm',
					'Depth of the ball',
					'mm',
					hole.ballDepthMm,
					(v) => (hole.ballDepthMm = v)
				)}
				<p class="text-sm text-slate sm:col-span-2">
					Two to three times as wide as the ball, no deeper than it: the flare stays above the soil. Backfill
					in layers, settled with a stick or water; a tile under a young plant makes its roots run flat.
				</p>
			</fieldset>
		{/if}
		{#if plan.collar}
			{@const collar = plan.collar}
			<fieldset class="flex flex-col gap-3">
				<legend class="mb-1 font-display text-lg font-semibold">Collar</legend>
				<div class="grid gap-3 sm:grid-cols-2">
					{@render number(
						'collar.openMm',
						'Open so far from the bark',
						'mm',
						collar.openMm,
						(v) => (collar.openMm = v)
					)}
					{@render number(
						'collar.depthMm',
						'Depth to take off',
						'mm',
						collar.depthMm,
						(v) => (collar.depthMm = v)
					)}
				</div>
				<Choice
					label="Tool"
					value={collar.tool}
					onchange={(tool) => (collar.tool = tool)}
					options={collarTools.map((value) => ({ value, label: collarToolNames[value] }))}
				/>
				<ul class="list-disc pl-5 text-sm">
					<li>From the trunk outward, until the flare and the first roots show all round.</li>
					<li>Stones that hold heat or wet against the bark come out; those grown in stay.</li>
					<li>
						Girdlers that bite into an anchor are cut, on the page of the roots; others wait and are watched.
					</li>
					<li>
						Watch for soft bark, dark wood, brackets and insects: referral. The bark dries and the extent
						shows; decay is walled off by the tree, not mended by air.
					</li>
				</ul>
			</fieldset>
		{/if}
		{#if plan.loosening}
			{@const loosening = plan.loosening}
			<fieldset class="flex flex-col gap-3">
				<legend class="mb-1 font-display text-lg font-semibold">Loosening</legend>
				<Choice
					label="Method"
					value={loosening.method}
					onchange={(method) => {
						loosening.method = method;
						loosening.widthMm = values[method === 'trenches' ? 'loosen.trenchWidthMm' : 'loosen.holeMm'];
					}}
					options={looseningMethods.map((value) => ({ value, label: looseningNames[value] }))}
				/>
				<div class="grid gap-3 sm:grid-cols-3">
					{@render number(
						'loosening.innerM',
						'Begins, from the middle',
						'm',
						loosening.innerM,
						(v) => (loosening.innerM = v)
					)}
					{@render number('loosening.outerM', 'Ends', 'm', loosening.outerM, (v) => (loosening.outerM = v))}
					{@render number(
						'loosening.depthMm',
						'Depth',
						'mm',
						loosening.depthMm,
						(v) => (loosening.depthMm = v)
					)}
					{@render number(
						'loosening.widthMm',
						loosening.method === 'trenches' ? 'Width of a trench' : 'Width of a hole',
						'mm',
						loosening.widthMm,
						(v) => (loosening.widthMm = v)
					)}
					{#if loosening.method === 'trenches'}
						{@render number('loosening.trenches', 'Trenches', '', loosening.trenches, (v) => {
							loosening.trenches = Math.max(2, Math.min(36, Math.round(v)));
						})}
					{:else}
						{@render number('loosening.spacingMm', 'Holes apart', 'mm', loosening.spacingMm, (v) => {
							loosening.spacingMm = Math.max(200, v);
						})}
					{/if}
				</div>
				{#if works.aims.aims.length > 0}
					<div>
						<h4 class="text-base">Aim by depth, from the soil as measured</h4>
						<ul class="divide-y border-y text-sm">
							{#each works.aims.aims as aim (`${aim.fromMm}-${aim.found}`)}
								<li class="py-1">
									{format().unitOf('mm').unit === 'mm' ? Math.round(aim.fromMm) : mm(aim.fromMm)}–{mm(
										aim.toMm
									)}: {format().inWords(aim.found)}; aim {format().inWords(aim.aim)}
								</li>
							{/each}
						</ul>
					</div>
				{:else}
					<p class="text-sm text-slate">
						{#if works.soilSaid.how === 'felt-hard'}
							Hard soil was met on {format().day(works.soilSaid.on ?? of.today, of.today)}; to what depth,
							nobody measured. {@render measureIt('Measure it by depth')}: it is opened as deep as it is hard.
						{:else if works.soilSaid.how === 'not-hard'}
							Measured on {format().day(works.soilSaid.on ?? of.today, of.today)}, it was nowhere hard:
							loosening that is not needed costs roots. {@render measureIt('Measure it again')}
						{:else}
							No soil was measured. {@render measureIt('Measure it first')}: loosening that is not needed
							costs roots.
						{/if}
					</p>
				{/if}
				{#if works.segments.length === 0}
					<Caution title="No roots are mapped"
						>Where structural roots run is not known. Open by air or hand, from the trunk outward along them,
						and stop at each root thicker than a thumb.</Caution
					>
				{/if}
				{#if works.segments.length > 0}
					<p class="text-sm text-slate">
						Structural roots are kept clear of as mapped, and drawn on straight (dotted) beyond where they
						were laid open.
					</p>
				{/if}
				{#if nearStructure}
					<Caution title="Near the trunk"
						>It begins within {m(works.zones.noCutM)}, three trunk diameters: no structural root is cut there
						without a qualified arborist.</Caution
					>
				{/if}
				{#if amounts.loosening && amounts.loosening.leftOut > 0}
					<p class="text-sm">
						{amounts.loosening.leftOut}
						{amounts.loosening.method === 'trenches'
							? amounts.loosening.leftOut === 1
								? 'trench is left out: a structural root lies in it wherever it is turned'
								: 'trenches are left out: structural roots lie in them wherever they are turned'
							: amounts.loosening.leftOut === 1
								? 'hole is left out, too near to a structural root'
								: 'holes are left out, too near to structural roots'}.
					</p>
				{/if}
			</fieldset>
		{/if}
		{#if plan.holding}
			{@const holding = plan.holding}
			<fieldset>
				<legend class="mb-1 font-display text-lg font-semibold">Staked or guyed</legend>
				<Choice
					label="Held by"
					size="small"
					value={holding.by}
					onchange={(by) => (holding.by = by)}
					options={groundHoldings.map((value) => ({ value, label: groundHoldingNames[value] }))}
				/>
				<p class="mt-1 text-sm text-slate">
					As low as holds it, with a tie that gives, so that the stem moves and the ball does not. Its ties
					are looked at, and come off when it stands by itself.
				</p>
			</fieldset>
		{/if}
		{#if plan.mulch}
			{@const mulch = plan.mulch}
			<fieldset class="grid gap-3 sm:grid-cols-3">
				<legend class="mb-1 font-display text-lg font-semibold">Mulch ring</legend>
				{@render number('mulch.innerM', 'Held off: begins at', 'm', mulch.innerM, (v) => (mulch.innerM = v))}
				{@render number('mulch.outerM', 'Ends at', 'm', mulch.outerM, (v) => (mulch.outerM = v))}
				{@render number('mulch.depthMm', 'Depth', 'mm', mulch.depthMm, (v) => (mulch.depthMm = v))}
			</fieldset>
		{/if}
		{#if plan.sulphur}
			{@const sulphur = plan.sulphur}
			<fieldset class="flex flex-col gap-3">
				<legend class="mb-1 font-display text-lg font-semibold">Acidifying</legend>
				<div class="grid gap-3 sm:grid-cols-3">
					<MeasureField
						name="sulphur.phNow"
						label="pH found"
						unit=""
						value={sulphur.phNow}
						hint={sulphur.phNow === null ? 'Found where the sulphur goes, anew before each dose.' : undefined}
						oninput={(found) => (sulphur.phNow = found)}
						{refused}
					/>
					{@render number('sulphur.phAim', 'pH wanted', '', sulphur.phAim, (v) => (sulphur.phAim = v))}
					{@render number('sulphur.areaM2', 'Area', 'm²', sulphur.areaM2, (v) => (sulphur.areaM2 = v))}
				</div>
				<Choice
					label="Soil"
					size="small"
					value={sulphur.soil}
					onchange={(soil) => (sulphur.soil = soil)}
					options={sulphurSoils.map((value) => ({ value, label: value }))}
				/>
				{#if (sulphur.phNow ?? 0) > 7}
					<Choice
						label="Vinegar on a dry pinch of soil"
						size="small"
						value={sulphur.carbonate ?? 'untried'}
						onchange={(found) => (sulphur.carbonate = carbonateTests.find((one) => one === found) ?? null)}
						options={[
							{ value: 'untried', label: 'not tried' },
							{ value: 'fizzes', label: 'fizzes' },
							{ value: 'quiet', label: 'stays quiet' }
						]}
					/>
				{/if}
				<p class="text-sm text-slate">
					Elemental sulphur works over months, by living soil. Coffee grounds and needles act briefly, if at
					all. What a test finds before each dose rules, and the label.
				</p>
			</fieldset>
		{/if}
		<fieldset class="grid gap-3 sm:grid-cols-2">
			<legend class="mb-1 font-display text-lg font-semibold">When</legend>
			<DateField
				name="plannedOn"
				label="Planned for"
				value={plan.plannedOn}
				oninput={(day) => (plan.plannedOn = day)}
				{refused}
			/>
			{#if finishing}
				<DateField
					name="doneOn"
					label="Done on"
					max={of.today}
					value={plan.doneOn ?? of.today}
					oninput={(day) => (plan.doneOn = day)}
					{refused}
				/>
			{/if}
			<TextField
				name="note"
				label="Note"
				optional
				value={plan.note}
				oninput={(event) => (plan.note = event.currentTarget.value)}
				{refused}
				fieldClass="sm:col-span-2"
			/>
		</fieldset>
		<input type="hidden" name="plan" value={draft} />
		<input type="hidden" name="id" value={works.open?.id ?? ''} />
		<input type="hidden" name="version" value={works.open?.version ?? ''} />
		<div class="flex flex-wrap gap-3">
			<Button type="submit" tone="solid" size="large"
				>{finishing
					? 'Write it down as done'
					: works.open
						? 'Keep the changed plan'
						: 'Keep the plan'}</Button
			>
			{#if finishing}
				<Button size="large" tone="quiet" onclick={() => (finishing = false)}>Not yet</Button>
			{:else}
				<Button
					size="large"
					onclick={() => {
						finishing = true;
						plan.doneOn = of.today;
					}}>It is done</Button
				>
			{/if}
		</div>
		{#if done.length > 0}
			<section aria-labelledby="ground-done">
				<h3 id="ground-done" class="text-lg">Done before</h3>
				<ul class="divide-y border-y text-sm">
					{#each done as entry (entry.id)}
						<li class="py-1.5">
							{format().date(entry.doneOn ?? entry.plannedOn)}: {words(entry)}{entry.note
								? `. ${entry.note}`
								: ''}
						</li>
					{/each}
				</ul>
			</section>
		{/if}
	</form>

	<Consequences title="The works, to scale">
		{#snippet summary()}
			<strong class="font-display text-2xl">{hours(amounts.hours)}</strong>
			<span class="truncate">of work</span>
		{/snippet}
		<GroundDrawing
			{plan}
			{amounts}
			segments={works.segments}
			obstacles={of.records.rootMap?.frame === 'ground' ? of.records.rootMap.obstacles : []}
			trunkDiameterMm={of.records.tree.trunkDiameterMm}
			zones={works.zones}
		/>
		<p class="mt-2 font-display text-3xl font-bold">
			<Workings
				label="Hours of work"
				formula="soil moved ÷ rate"
				lines={[
					line('hole.digLPerH', 'dug by hand', 'L/h'),
					line('collar.handLPerH', 'collar by hand', 'L/h'),
					line('collar.airLPerH', 'collar with an air tool', 'L/h'),
					line('loosen.trenchLPerH', 'trench with an air tool', 'L/h'),
					line('loosen.holeMin', 'a hole', 'min'),
					line('hole.holdMin', 'stakes or guys', 'min')
				]}
				changes="Stones, roots and wet clay; rates are our own guesses and can be changed under Values."
				>{hours(amounts.hours)}</Workings
			>
		</p>
		<p class="text-sm text-slate">of work, one person</p>
		<dl class="mt-3 grid grid-cols-[1fr_auto] gap-x-4 gap-y-1 text-sm">
			{#if amounts.hole}
				<dt>Dug out</dt>
				<dd class="text-right font-semibold">{L(amounts.hole.dugL)}</dd>
				<dt>Goes back round the ball</dt>
				<dd class="text-right">{L(amounts.hole.backfillL)}</dd>
			{/if}
			{#if amounts.collar}
				<dt>Soil off the collar</dt>
				<dd class="text-right font-semibold">{L(amounts.collar.soilL)}</dd>
			{/if}
			{#if amounts.loosening}
				<dt>{looseningNames[amounts.loosening.method]}</dt>
				<dd class="text-right font-semibold">{format().number(amounts.loosening.count)}</dd>
				<dt>Soil opened</dt>
				<dd class="text-right">{L(amounts.loosening.soilL)}</dd>
				<dt>Compost to mix in</dt>
				<dd class="text-right">{L(amounts.loosening.compostL)}</dd>
			{/if}
			{#if amounts.mulch}
				<dt>
					<Workings
						label="Mulch"
						formula="π (R² − r²) × depth"
						lines={[
							{ label: 'from', value: m(plan.mulch?.innerM ?? 0) },
							{ label: 'to', value: m(plan.mulch?.outerM ?? 0) },
							{ label: 'depth', value: mm(plan.mulch?.depthMm ?? 0), mark: markOf('mulch.depthMm') }
						]}
						changes="It settles by a third in a year.">Mulch</Workings
					>
				</dt>
				<dd class="text-right font-semibold">{L(amounts.mulch.litres)}</dd>
			{/if}
			{#if amounts.sulphur}
				<dt>
					<Workings
						label="Elemental sulphur"
						formula="table to pH 4.5, from pH found less from pH wanted"
						lines={[
							{
								label: 'table',
								value: 'lb per 100 ft²',
								mark: 'Oregon State University Extension; recalled from memory'
							},
							{ label: 'a square metre', value: `${format().number(amounts.sulphur.gPerM2)} g` },
							line('sulphur.mostAtOnce', 'most at once', 'g/m²')
						]}
						changes="Lime in the soil or in the water eats it up; test before each dose."
						>Sulphur in all</Workings
					>
				</dt>
				<dd class="text-right font-semibold">{format().measure(amounts.sulphur.totalKg, 'kg')}</dd>
			{/if}
		</dl>
		{#if amounts.sulphur && amounts.sulphur.doses.length > 0}
			<h3 class="mt-3 text-sm">Split over time</h3>
			<ol class="divide-y border-y text-sm">
				{#each amounts.sulphur.doses as dose, i (dose.on)}
					<li class="py-1">
						{format().date(dose.on)}: {format().measure(dose.kg, 'kg')}{i > 0 && dose.retestOn
							? `, after a test from ${format().day(dose.retestOn, of.today)}`
							: ''}
					</li>
				{/each}
			</ol>
		{/if}
		{#if amounts.sulphur && amounts.sulphur.note !== ''}
			<div class="mt-3"><Caution title="Above pH 7">{amounts.sulphur.note}</Caution></div>
		{/if}
		{#if amounts.hole && amounts.hole.tooDeepMm > 0}
			<div class="mt-3">
				<Caution title="Too deep"
					>The hole is {mm(amounts.hole.tooDeepMm)} deeper than the ball: the flare would sink. Fill and firm it
					first.</Caution
				>
			</div>
		{/if}
		<div class="mt-3">
			<Caution title="Digging"
				>Buried gas, power, water and telecoms are located first, by those who may. Air tools: eyes, ears,
				gloves, dust mask. Whether a big tree stands is judged by a qualified arborist.</Caution
			>
		</div>
	</Consequences>
</div>

{#snippet measureIt(words: string)}<a
		class="chalk"
		href={resolve('/trees/[id]/examine/soil', { id: of.records.tree.id })}>{words}</a
	>{/snippet}
