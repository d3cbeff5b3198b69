/** The work of a lift in its order [common practice, no source; easily forgotten things among it]. */
export const liftingSteps = [
	{
		title: 'Before the day',
		items: [
			{ id: 'permission', text: 'Permission in writing; protected trees and protected sites asked about' },
			{ id: 'services', text: 'Gas, power, water and telecoms located; trench sides thought of' },
			{ id: 'second-choice', text: 'A second-choice tree agreed' },
			{ id: 'irrigation', text: 'Irrigation and weeds out of the way' },
			{
				id: 'pot-ready',
				text: 'Pot or box, mix, wrap and water ready; its place chosen for light, wind and reach'
			},
			{ id: 'hands', text: 'Spare hands, sling or barrow, and the way to the vehicle walked' }
		]
	},
	{
		title: 'On the day, before a spade goes in',
		items: [
			{ id: 'health', text: 'Health looked at again; pests above and below the leaves' },
			{ id: 'aphids', text: 'Root aphids at the base (wool, galls): do not lift' },
			{
				id: 'clean-tools',
				text: 'Tools and boots clean; sharp saw and loppers for the thickest root expected'
			},
			{ id: 'photographs', text: 'Several views photographed, the front marked, north marked' },
			{ id: 'weather', text: 'No hard frost and no heat wave due' }
		]
	},
	{
		title: 'Digging',
		items: [
			{ id: 'rings', text: 'First ring at the edge of the ball, second ring outward for room to cut under' },
			{ id: 'thick-roots', text: 'Thick roots sawn or lopped, never chopped with the spade' },
			{ id: 'undercut', text: 'Cut under, then lift by the ball, never by the trunk' },
			{
				id: 'roots-wet',
				text: 'Roots wet, shaded and out of the wind from now on; time out of the ground noted'
			}
		]
	},
	{
		title: 'Before leaving',
		items: [
			{ id: 'hole', text: 'Hole filled and made safe' },
			{ id: 'arisings', text: 'Arisings removed as local rules say; diseased soil stays where it is' },
			{ id: 'label', text: 'Label written' },
			{ id: 'cuttings', text: 'Cuttings taken from what came off, labelled' }
		]
	}
] as const satisfies readonly { title: string; items: readonly { id: string; text: string }[] }[];

export type StepId = (typeof liftingSteps)[number]['items'][number]['id'];
export const stepIds = liftingSteps.flatMap((step) => step.items.map((item) => item.id)) as [
	StepId,
	...StepId[]
];
