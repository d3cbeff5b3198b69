<script lang="ts">
	import { leafSeenAbout } from '$core/recovery/leaves-since';
	import type { Picture } from '$core/take-in/picture';
	import PictureSinceView from '$views/recovery/PictureSinceView.svelte';

	let { data, form } = $props();
	const seenAbout = (picture: Picture, other: Picture) =>
		leafSeenAbout(data.records.observations, picture.takenOn, other.takenOn, data.values);
</script>

{#key `${data.before.id} ${data.picture.id}`}
	<PictureSinceView
		tree={data.records.tree}
		before={data.before}
		after={data.picture}
		rimMm={data.rimMm}
		seenThen={seenAbout(data.before, data.picture)}
		seenNow={seenAbout(data.picture, data.before)}
		values={data.values}
		refused={form?.refusal}
	/>
{/key}
