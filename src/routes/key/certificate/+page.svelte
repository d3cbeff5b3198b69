<script lang="ts">
	import CertificateView from '$views/people/CertificateView.svelte';

	let { data } = $props();
</script>

<CertificateView {...data} />
