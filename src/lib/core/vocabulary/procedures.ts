/**
 * What is done to a tree in order to look. Signs seen by the same procedure share its harm: once the pot is off,
 * looking at three things costs no more than looking at one.
 */
export interface Procedure {
	label: string;
	/** What to do, as the beginning of a sentence. */
	doing: string;
	/** Harm to a fair tree in its window, as a share of its chance to live, as shipped. */
	harm: number;
}

export const procedures = {
	look: { label: 'looking and touching', doing: 'Look', harm: 0 },
	weigh: { label: 'lifting or weighing', doing: 'Weigh or lift it', harm: 0 },
	pour: { label: 'pouring water', doing: 'Pour water and watch', harm: 0.001 },
	probe: { label: 'a stick or rod in the soil', doing: 'Push a stick or rod in', harm: 0.001 },
	scratch: { label: 'scratching bark', doing: 'Scratch the bark', harm: 0.001 },
	core: { label: 'taking a soil core', doing: 'Take a core of the soil', harm: 0.002 },
	'open-collar': { label: 'opening the collar', doing: 'Open the collar', harm: 0.003 },
	'open-edge': { label: 'opening the edge of the ball', doing: 'Open the edge of the ball', harm: 0.005 },
	sample: { label: 'drawing a sample of roots', doing: 'Draw a sample of roots', harm: 0.008 },
	unpot: { label: 'taking it out of the pot', doing: 'Slide it out of the pot', harm: 0.015 }
} as const satisfies Record<string, Procedure>;

export type ProcedureId = keyof typeof procedures;
export const procedureIds = Object.keys(procedures) as ProcedureId[];
