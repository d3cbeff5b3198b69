<script lang="ts">
	import type { TreeName } from '$core/take-in/tree';
	import ComboField from '$ui/ComboField.svelte';
	import type { Refused } from '$ui/field';

	/** Another tree of the yard, found by typing its tag or name. */
	interface Props {
		name: string;
		label: string;
		value?: string;
		/** Those that are offered before anything is typed. */
		offered: readonly TreeName[];
		/** The tree that it stands beside. */
		except?: string;
		inCare?: boolean;
		optional?: boolean;
		refused?: Refused | null;
		fieldClass?: string;
	}
	let {
		name,
		label,
		value = '',
		offered,
		except,
		inCare = false,
		optional = false,
		refused,
		fieldClass
	}: Props = $props();
	/** After a save what was kept stands here. */
	let chosen = $derived(value);
	let found = $state.raw<readonly TreeName[] | null>(null);
	let seen = $state.raw<readonly TreeName[]>([]);
	let asked = 0;
	const labelOf = ({ tag, name: called }: TreeName): string => `${tag} ${called}`;
	const shown = $derived.by(() => {
		const list = (found ?? offered).filter((one) => one.id !== except);
		const other = [...offered, ...seen].find((one) => one.id === chosen);
		return other && !list.some((one) => one.id === chosen) ? [...list, other] : list;
	});

	async function search(typed: string): Promise<void> {
		const turn = ++asked;
		if (typed.trim() === '') {
			found = null;
			return;
		}
		const query = new URLSearchParams({ find: typed, ...(inCare && { state: 'in-care' }) });
		const response = await fetch(`/api/v1/trees?${query}`).catch(() => null);
		// An answer that was overtaken says nothing, and one that did not come leaves what is offered.
		if (turn !== asked || !response?.ok) return;
		const { trees } = (await response.json()) as { trees: TreeName[] };
		found = trees;
		seen = [...seen, ...trees.filter((one) => !seen.some((old) => old.id === one.id))];
		const whole = trees.find((one) => labelOf(one) === typed.trim());
		if (whole && whole.id !== except) chosen = whole.id;
	}
</script>

<ComboField
	{name}
	{label}
	{optional}
	{refused}
	{fieldClass}
	strict
	placeholder="Begin to type a tag or a name"
	bind:value={chosen}
	options={shown.map((one) => ({ value: one.id, label: labelOf(one) }))}
	onsearch={(typed) => void search(typed)}
/>
