<script lang="ts">
	import Journal from '$views/take-in/Journal.svelte';
	import TreeForm from '$views/take-in/TreeForm.svelte';

	let { data, form } = $props();
</script>

<div class="page grid gap-10 pt-6 lg:grid-cols-[1fr_24rem]">
	<section aria-label="What was taken in">
		{#key data.records.tree.version}
			<TreeForm
				{...data}
				places={data.yardPlaces}
				tree={data.records.tree}
				refused={form?.refusal}
				action="?/change"
			/>
		{/key}
	</section>
	<Journal
		tree={data.records.tree}
		journal={data.records.journal}
		picturesLeft={data.picturesLeft}
		today={data.today}
	/>
</div>
