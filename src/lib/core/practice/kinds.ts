import type { Kind } from '../vocabulary/kind';
import { shippedKinds } from '../vocabulary/shipped';

/** Genera that practice trees are of, some of each group. */
const genera = [
	'Carpinus',
	'Fagus',
	'Tilia',
	'Malus',
	'Larix',
	'Pinus',
	'Juniperus',
	'Picea',
	'Taxus',
	'Buxus',
	'Ilex',
	'Camellia',
	'Citrus',
	'Schefflera',
	'Bougainvillea',
	'Adenium'
];

/** Kinds that practice trees are of. */
export const practiceKinds: readonly Kind[] = genera.flatMap((genus) => {
	const kind = shippedKinds.find((one) => one.genus === genus);
	return kind ? [kind] : [];
});
