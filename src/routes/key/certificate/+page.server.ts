import { shareState } from '$lib/server/people/share-state';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = ({ url }) => {
	const shared = shareState();
	return { fingerprint: shared?.fingerprint ?? null, addresses: shared?.addresses ?? [url.origin] };
};
