<script lang="ts">
	import { leafSeenAbout } from '$core/recovery/leaves-since';
	import PictureSinceView from '$views/recovery/PictureSinceView.svelte';

	let { data, form } = $props();
</script>

{#key `${data.before.id} ${data.picture.id}`}
	<PictureSinceView
		tree={data.records.tree}
		before={data.before}
		after={data.picture}
		rimMm={data.rimMm}
		seenThen={leafSeenAbout(data.records.observations, data.before.takenOn, data.values)}
		seenNow={leafSeenAbout(data.records.observations, data.picture.takenOn, data.values)}
		values={data.values}
		refused={form?.refusal}
	/>
{/key}
