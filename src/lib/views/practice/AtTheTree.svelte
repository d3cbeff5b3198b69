<script lang="ts" module>
	/** Done on pages of their own, where it is said how much. */
	const onPages: readonly Remedy[] = ['cut-rot', 'free-roots', 'new-mix', 'smaller-pot', 'larger-pot'];
</script>

<script lang="ts">
	import type { PracticeNow } from '$core/practice/moves';
	import {
		careNames,
		cares,
		readingKinds,
		readingNames,
		remedies,
		remedyNames,
		type Care,
		type Remedy
	} from '$core/practice/round';
	import { atStart } from '$core/text/mid-sentence';
	import { conditionIds, conditionOf, type ConditionId } from '$core/vocabulary/conditions';
	import Button from '$ui/Button.svelte';
	import Choice from '$ui/Choice.svelte';
	import SelectField from '$ui/SelectField.svelte';
	import Sheet from '$ui/Sheet.svelte';
	import Slider from '$ui/Slider.svelte';
	import { useFormat } from '$ui/format';
	import { untrack } from 'svelte';
	import { makeMove } from './move';

	/** What is done at a practice tree that has no page of its own: reading it, saying what ails it, treating it, and the care between. */
	interface Props {
		open: boolean;
		practice: PracticeNow;
	}
	let { open = $bindable(), practice }: Props = $props();
	const format = useFormat();

	const readings = $derived(
		readingKinds.filter(
			(one) => (one !== 'weight' || practice.potted) && (one !== 'roots' || !practice.mapped)
		)
	);
	let said = $state<{ conditionId: ConditionId; chance: number }[]>(
		untrack(() => practice.said?.map((one) => ({ ...one })) ?? [])
	);
	const named = $derived(said.map((one) => one.conditionId));
	function name(field: HTMLSelectElement): void {
		const id = conditionIds.find((one) => one === field.value);
		if (id && !named.includes(id)) said.push({ conditionId: id, chance: 0.5 });
		field.value = '';
	}
	let remedy = $state('');
	let forDays = $state<'7' | '21' | '42' | 'on'>('21');
	const lasts = $derived(remedy === 'shade' || remedy === 'shelter');
	let water = $state<Care>(untrack(() => practice.care.water));
	let everyDays = $state(untrack(() => practice.care.everyDays));
	let covers = $state<'yes' | 'no'>(untrack(() => (practice.care.covers ? 'yes' : 'no')));

	async function treat(): Promise<void> {
		const chosen = remedies.find((one) => one === remedy);
		if (!chosen) return;
		await makeMove(practice.id, {
			move: 'treat',
			remedy: chosen as Remedy,
			forDays: lasts && forDays !== 'on' ? Number(forDays) : null
		});
		remedy = '';
	}
	let ending = $state(false);
	async function end(): Promise<void> {
		ending = true;
		await makeMove(practice.id, { move: 'end' });
		ending = false;
	}
	const care = () =>
		makeMove(practice.id, { move: 'care', rule: { water, everyDays, covers: covers === 'yes' } });
</script>

<Sheet
	bind:open
	title="At the tree"
	description="Signs are looked for under Examine, cuts and pots are made under Roots and Replant, as on a real tree. What has no page is here."
	wide
>
	<div class="grid gap-6">
		<section aria-labelledby="read-title">
			<h3 id="read-title" class="text-lg">Read it</h3>
			<p class="mb-2 text-sm text-slate">
				It answers as it is today; what you read is written down in its records. Laying roots bare costs it
				something.
			</p>
			<div class="flex flex-wrap gap-2">
				{#each readings as reading (reading)}
					<Button size="small" onclick={() => void makeMove(practice.id, { move: 'read', reading })}
						>{atStart(readingNames[reading])}</Button
					>
				{/each}
			</div>
		</section>

		<section aria-labelledby="say-title">
			<h3 id="say-title" class="text-lg">What ails it, do you think?</h3>
			<p class="mb-2 text-sm text-slate">
				Held against what was true when the round is over. A cause you do not name counts as none.
			</p>
			{#each said as one, i (one.conditionId)}
				<div class="flex items-center gap-2">
					<div class="min-w-0 flex-1">
						<Slider
							label={conditionOf(one.conditionId).label}
							value={one.chance}
							min={0}
							max={1}
							step={0.05}
							shown={format().percent(one.chance)}
							oninput={(value) => (one.chance = value)}
						/>
					</div>
					<Button size="small" tone="quiet" onclick={() => said.splice(i, 1)}
						>Drop<span class="sr-only"> {conditionOf(one.conditionId).label}</span></Button
					>
				</div>
			{/each}
			<div class="flex flex-wrap items-end gap-2">
				<SelectField
					name="cause"
					label="A cause"
					options={[
						{ value: '', label: 'choose one' },
						...conditionIds
							.filter((id) => !named.includes(id))
							.map((id) => ({ value: id, label: conditionOf(id).label }))
					]}
					onchange={(event) => name(event.currentTarget)}
				/>
				<Button onclick={() => void makeMove(practice.id, { move: 'say', chances: said })}
					>{said.length === 0 ? 'Say that nothing ails it' : 'Say so'}</Button
				>
			</div>
		</section>

		<section aria-labelledby="treat-title">
			<h3 id="treat-title" class="text-lg">Treat it</h3>
			<div class="flex flex-wrap items-end gap-2">
				<SelectField
					name="remedy"
					label="What is done today"
					bind:value={remedy}
					options={[
						{ value: '', label: 'choose one' },
						...remedies
							.filter((one) => !onPages.includes(one))
							.map((one) => ({ value: one, label: atStart(remedyNames[one]) }))
					]}
				/>
				{#if lasts}<Choice
						label="For"
						bind:value={forDays}
						size="small"
						options={[
							{ value: '7', label: 'a week' },
							{ value: '21', label: 'three weeks' },
							{ value: '42', label: 'six weeks' },
							{ value: 'on', label: 'for good' }
						]}
					/>{/if}
				<Button disabled={remedy === ''} onclick={() => void treat()}>Do it</Button>
			</div>
		</section>

		<section aria-labelledby="care-title">
			<h3 id="care-title" class="text-lg">While days go by</h3>
			<div class="grid gap-3">
				<Choice
					label="It is watered"
					bind:value={water}
					size="small"
					options={cares.map((one) => ({ value: one, label: careNames[one] }))}
				/>
				{#if water === 'every-days'}<Slider
						label="Every"
						value={everyDays}
						min={1}
						max={21}
						shown={everyDays === 1 ? 'day' : `${everyDays} days`}
						oninput={(value) => (everyDays = value)}
					/>{/if}
				{#if practice.potted}<Choice
						label="On a night too cold for it, it is carried in"
						bind:value={covers}
						size="small"
						options={[
							{ value: 'yes', label: 'yes' },
							{ value: 'no', label: 'no' }
						]}
					/>{/if}
				<div><Button onclick={() => void care()}>Care for it so</Button></div>
			</div>
		</section>

		<section aria-labelledby="end-title">
			<h3 id="end-title" class="text-lg">To the end</h3>
			<p class="mb-2 text-sm text-slate">
				The days that are left go by with the care above, and the round is judged.
			</p>
			<Button disabled={ending} onclick={() => void end()}
				>{ending ? 'The days go by …' : 'Let the year run out'}</Button
			>
		</section>
	</div>
</Sheet>
