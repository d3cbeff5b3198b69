<script lang="ts">
	import { enhance } from '$app/forms';
	import { lookParts, type LookPart, type LookQuestion } from '$core/recovery/look';
	import { shootsMean, type Observation } from '$core/examine/looks/observation';
	import {
		budStates,
		firmnesses,
		firmnessSaid,
		leafStates,
		pestAmounts,
		smells
	} from '$core/examine/looks/seen-words';
	import type { Tree } from '$core/take-in/tree';
	import Button from '$ui/Button.svelte';
	import DateField from '$ui/DateField.svelte';
	import Choice from '$ui/Choice.svelte';
	import MeasuresField from '$ui/MeasuresField.svelte';
	import MeasureField from '$ui/MeasureField.svelte';
	import Problem from '$ui/Problem.svelte';
	import TextField from '$ui/TextField.svelte';
	import { act } from '$ui/act';
	import { keepTyped } from '$ui/keep-typed';
	import type { Refused } from '$ui/field';
	import { useFormat } from '$ui/format';
	import { untrack } from 'svelte';

	/** A look in the order of a walk round the tree: what matters on it now, and the rest when it is wanted. */
	interface Props {
		tree: Tree;
		questions: LookQuestion[];
		today: string;
		/** A look that is corrected in its place; null for a new one. */
		corrects?: Observation | null;
		/** It is done with. */
		done?: () => void;
		refused?: Refused | null;
	}
	let { tree, questions, today, corrects = null, done, refused }: Props = $props();
	const format = useFormat();

	const was = untrack(() => corrects);
	let all = $state(was !== null);
	const why = $derived(new Map(questions.map((question) => [question.part, question.why])));
	const possible = (part: LookPart): boolean =>
		part === 'lot'
			? tree.plantCount > 1
			: part === 'healthyShoot'
				? // With a tree of the yard to compare with, that one is measured; what was written stays.
					tree.referenceTreeId === null || was?.healthyShootMm != null
				: !(tree.situation === 'in-ground' && (part === 'weight' || part === 'rootsAtEdge'));
	const shown = $derived(lookParts.filter((part) => possible(part) && (all || why.has(part))));
	const left = $derived(lookParts.filter((part) => possible(part)).length - shown.length);

	let buds = $state<(typeof budStates)[number] | ''>(was?.buds ?? '');
	let leafState = $state<(typeof leafStates)[number] | ''>(was?.leafState ?? '');
	let firmness = $state<(typeof firmnesses)[number] | ''>(was?.firmness ?? '');
	let smell = $state<(typeof smells)[number] | ''>(was?.smell ?? '');
	let pests = $state<(typeof pestAmounts)[number] | ''>(was?.pests ?? '');
	const truth = (value: boolean | null | undefined): 'true' | 'false' | '' =>
		value === true ? 'true' : value === false ? 'false' : '';
	let whiteTips = $state<'true' | 'false' | ''>(truth(was?.whiteTips));
	let rootsAtEdge = $state<'true' | 'false' | ''>(truth(was?.rootsAtEdge));
	let leafCover = $state<string>(was?.leafCover === null || was === null ? '' : String(was.leafCover));
	let shootsMm = $state<number[]>([]);
	const coverSteps = [
		...new Set([0, 0.1, 0.25, 0.5, 0.75, 0.9, 1, ...(was?.leafCover != null ? [was.leafCover] : [])])
	].sort((a, b) => a - b);
	const shoots = $derived(shootsMean(shootsMm));
	function clear(): void {
		buds = leafState = firmness = whiteTips = rootsAtEdge = smell = pests = '';
		leafCover = '';
		shootsMm = [];
		all = false;
	}
	const words = <T extends string>(list: readonly T[]) =>
		list.map((value) => ({ value, label: value as string }));
	const yesNo = [
		{ value: 'true', label: 'yes' },
		{ value: 'false', label: 'no' }
	] as const;
</script>

<form
	id="look"
	method="POST"
	action="?/look"
	use:enhance={act({
		done: () => {
			clear();
			done?.();
		}
	})}
	{@attach keepTyped(`look.${tree.id}.${was?.id ?? 'new'}`)}
	class="mt-6 scroll-mt-2 border-t pt-4"
	novalidate
>
	<h2 class="text-lg">{was ? `The look of ${format().day(was.observedOn, today)}, corrected` : 'A look'}</h2>
	<input type="hidden" name="correctsId" value={was?.id ?? ''} />
	<input type="hidden" name="correctsVersion" value={was?.version ?? ''} />
	<p class="mb-3 text-sm text-slate">
		{questions.length === 0
			? 'Nothing presses; look at what you like.'
			: 'What matters on it now, in the order of a walk round it. Leave out what you did not see.'}
	</p>
	<Problem {refused} />
	<div class="grid gap-x-8 gap-y-4 sm:grid-cols-2">
		{#each shown as part (part)}
			<div>
				{#if part === 'buds'}
					<Choice label="Buds" name="buds" bind:value={buds} options={words(budStates)} />
				{:else if part === 'leafState'}
					<Choice label="Leaves" name="leafState" bind:value={leafState} options={words(leafStates)} />
				{:else if part === 'leafCover'}
					<Choice
						label="Crown in leaf"
						name="leafCover"
						bind:value={leafCover}
						options={coverSteps.map((share) => ({ value: String(share), label: format().percent(share) }))}
					/>
				{:else if part === 'shoots'}
					<MeasuresField
						name="shootsMm"
						label="This season’s shoots, several"
						unit="mm"
						hint={shoots
							? `${format().measure(shoots.meanMm, 'mm', 0)} on average${shoots.sdMm === null ? '' : `, ± ${format().measure(shoots.sdMm, 'mm', 0)}`}`
							: 'With a space between them'}
						onread={(read) => (shootsMm = read)}
						{refused}
					/>
				{:else if part === 'healthyShoot'}
					<MeasureField
						name="healthyShootMm"
						value={was?.healthyShootMm ?? null}
						label="Shoots of a healthy one near by"
						unit="mm"
						optional
						hint="One of its kind, of about its age: the mean of this season’s"
						{refused}
					/>
				{:else if part === 'dieback'}
					<MeasureField
						name="diebackLimitMm"
						value={was?.diebackLimitMm ?? null}
						label="Alive up to"
						unit="mm"
						optional
						hint="Scratch and tap from the base upward; height of the last green"
						{refused}
					/>
				{:else if part === 'firmness'}
					<Choice
						label="Stands"
						name="firmness"
						bind:value={firmness}
						options={firmnesses.map((value) => ({
							value,
							label: firmnessSaid[value].now.replace('stands ', '')
						}))}
					/>
				{:else if part === 'weight'}
					<MeasureField
						name="weightKg"
						label="Weight"
						unit="kg"
						value={was?.weightKg ?? null}
						optional
						{refused}
					/>
				{:else if part === 'smell'}
					<Choice
						label={tree.situation === 'in-ground' ? 'Smell of its soil' : 'Smell at the holes'}
						name="smell"
						bind:value={smell}
						options={words(smells)}
					/>
				{:else if part === 'whiteTips'}
					<Choice label="White root tips seen" name="whiteTips" bind:value={whiteTips} options={yesNo} />
				{:else if part === 'rootsAtEdge'}
					<Choice
						label="Roots at the edge of the ball"
						name="rootsAtEdge"
						bind:value={rootsAtEdge}
						options={yesNo}
					/>
				{:else if part === 'woundwood'}
					<MeasureField
						name="woundwoodMm"
						value={was?.woundwoodMm ?? null}
						label="Woundwood at the largest cut"
						unit="mm"
						optional
						hint="Its width since the cut"
						{refused}
					/>
				{:else if part === 'pests'}
					<Choice label="Pests" name="pests" bind:value={pests} options={words(pestAmounts)} />
				{:else if part === 'suckers'}
					<TextField
						name="suckers"
						label="Suckers"
						value={was?.suckers == null ? '' : String(was.suckers)}
						inputmode="numeric"
						optional
						{refused}
					/>
				{:else}
					<div class="grid grid-cols-3 gap-2">
						<TextField name="sample.looked" label="Looked at" inputmode="numeric" optional {refused} />
						<TextField name="sample.alive" label="of them alive" inputmode="numeric" optional {refused} />
						<TextField
							name="lostCount"
							label="Dead so far, of {tree.plantCount}"
							inputmode="numeric"
							optional
							{refused}
						/>
					</div>
				{/if}
				{#if why.has(part)}<p class="mt-1 text-xs text-slate">{why.get(part)}</p>{/if}
			</div>
		{/each}
		<DateField name="observedOn" label="Looked on" value={was?.observedOn ?? today} max={today} {refused} />
		<TextField name="note" label="What else" value={was?.note ?? ''} optional {refused} />
	</div>
	<div class="mt-4 flex flex-wrap items-center gap-3">
		<Button type="submit" tone="solid" size="large">{was ? 'Keep the correction' : 'Keep this look'}</Button>
		{#if was}<Button size="large" onclick={() => done?.()}>Leave it as it is</Button>{/if}
		{#if left > 0}<Button tone="quiet" onclick={() => (all = true)}>Look at more, {left} things</Button>{/if}
	</div>
</form>
