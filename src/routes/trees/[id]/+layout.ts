import { isValueKey, valuesInForce } from '$core/values/values';
import type { LayoutLoad } from './$types';

/** Only the owner's own numbers are sent with a page; the shipped ones are here already. */
export const load: LayoutLoad = ({ data }) => ({
	...data,
	values: valuesInForce(data.overrides),
	overridden: Object.keys(data.overrides).filter(isValueKey)
});
