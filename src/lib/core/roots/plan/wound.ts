/**
 * What is put on cut roots beside a clean cut. Two schools: nothing at all, or one of these. The app records what was used
 * and how far it is known to help; it never tells a dose: the product's label and local rules do [evidence: memory].
 */
export const woundTreatments = [
	'dry-rest',
	'powder',
	'peroxide',
	'fungicide',
	'rooting-aid',
	'mycorrhiza'
] as const;
export type WoundTreatment = (typeof woundTreatments)[number];

export const woundTreatmentNames: Record<WoundTreatment, string> = {
	'dry-rest': 'dry rest',
	powder: 'sulphur or cinnamon powder',
	peroxide: 'dilute peroxide',
	fungicide: 'fungicide',
	'rooting-aid': 'rooting aid',
	mycorrhiza: 'mycorrhiza'
};

/** How far it is known to help. */
export const woundEvidence: Record<WoundTreatment, string> = {
	'dry-rest': 'moderate for fleshy roots, none for others',
	powder: 'weak',
	peroxide: 'weak',
	fungicide: 'moderate where rot was named, weak as a precaution; label and local rules first',
	'rooting-aid': 'weak to moderate, by kind',
	mycorrhiza: 'weak in mixes, moderate in poor ground'
};
