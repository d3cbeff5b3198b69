/** Where work can hurt someone or something: shown in its place and together under Reference. */
export interface CautionText {
	title: string;
	text: string;
	where: string;
}

export const cautions: readonly CautionText[] = [
	{
		title: 'Big trees',
		text: 'A tree with cut, rotten or girdled anchors can fall. Whether it stands is judged by a qualified arborist. Cutting over a height or near lines is licensed work. Local tree protection rules and permits come first.',
		where: 'Examine, Roots'
	},
	{
		title: 'Digging',
		text: 'Buried gas, power, water and telecoms are located first, by those who may. Trench sides fall in.',
		where: 'Take in'
	},
	{
		title: 'Tools',
		text: 'Saws, axes, powered saws, pressure washers and air tools: eyes, ears, gloves, dust mask.',
		where: 'Roots'
	},
	{
		title: 'Lifting',
		text: 'A wet ball weighs more than it looks. Above what one person may carry: more people, a sling, a barrow or a machine. Lift by the ball, never by the trunk.',
		where: 'Replant'
	},
	{
		title: 'Dust',
		text: 'Dust of pumice, perlite and grit harms the lungs: wet it, and wear a mask.',
		where: 'Replant'
	},
	{
		title: 'Compost',
		text: 'Potting mixes and compost can carry Legionella: open bags away from the face, wash hands.',
		where: 'Replant'
	},
	{
		title: 'Sap and poison',
		text: 'Sap of figs and spurges irritates; some collected plants are poisonous. Each kind carries its own note.',
		where: 'Take in, Kinds'
	},
	{
		title: 'Peroxide, fungicides, sulphur',
		text: 'The label and the local rules rule. Bruntle never tells a dose. Aspirin-type baths, cinnamon and the like: weak evidence.',
		where: 'Aftercare'
	},
	{
		title: 'Diseased roots and soil',
		text: 'Bag or burn as local rules say, clean tools and boots, do not compost or move them.',
		where: 'Roots, Replant'
	},
	{
		title: 'Wild collecting',
		text: 'Landowner’s permission in writing, protected species and sites, export rules.',
		where: 'Take in'
	}
];
