/** The work of a lift in its order [common practice, no source; easily forgotten things among it]. */
export const liftingSteps: readonly { title: string; items: readonly string[] }[] = [
	{
		title: 'Before the day',
		items: [
			'Permission in writing; protected trees and protected sites asked about',
			'Gas, power, water and telecoms located; trench sides thought of',
			'A second-choice tree agreed',
			'Irrigation and weeds out of the way',
			'Pot or box, mix, wrap and water ready; its place chosen for light, wind and reach',
			'Spare hands, sling or barrow, and the way to the vehicle walked'
		]
	},
	{
		title: 'On the day, before a spade goes in',
		items: [
			'Health looked at again; pests above and below the leaves',
			'Root aphids at the base (wool, galls): do not lift',
			'Tools and boots clean; sharp saw and loppers for the thickest root expected',
			'Several views photographed, the front marked, north marked',
			'No hard frost and no heat wave due'
		]
	},
	{
		title: 'Digging',
		items: [
			'First ring at the edge of the ball, second ring outward for room to cut under',
			'Thick roots sawn or lopped, never chopped with the spade',
			'Cut under, then lift by the ball, never by the trunk',
			'Roots wet, shaded and out of the wind from now on; time out of the ground noted'
		]
	},
	{
		title: 'Before leaving',
		items: [
			'Hole filled and made safe',
			'Arisings removed as local rules say; diseased soil stays where it is',
			'Label written',
			'Cuttings taken from what came off, labelled'
		]
	}
];
