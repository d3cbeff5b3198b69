<script lang="ts">
	import { atStart } from '$core/text/mid-sentence';
	import { resolve } from '$app/paths';
	import { treeStateNames } from '$core/vocabulary/words';
	import { type Tree } from '$core/take-in/tree';
	import { useFormat } from '$ui/format';

	/** Said where care would go on, on a case that is closed. */
	interface Props {
		tree: Tree;
	}
	let { tree }: Props = $props();
	const format = useFormat();
</script>

<p role="note" class="border-l-4 border-oxide bg-duff px-4 py-3">
	<strong
		>{atStart(treeStateNames[tree.state])}{tree.closedOn ? ` since ${format().date(tree.closedOn)}` : ''}:
		this case is closed.</strong
	>
	Its records stay; nothing new is asked of it.
	<a class="chalk whitespace-nowrap" href={resolve('/trees/[id]/recovery', { id: tree.id })}
		>Open it again in Recovery</a
	> to go on with care.
</p>
