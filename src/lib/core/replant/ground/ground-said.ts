import { counted, listed } from '../../text/plural';
import { atStart } from '../../text/mid-sentence';
import { measured, measuredPair } from '../../text/measured';
import { groundHoldingNames, looseningNames, type GroundPlan, type GroundPlanInput } from './ground-plan';

/** What was done in the ground round a tree, in one sentence. @example "Collar opened 400 mm from the bark, 140 mm deep" */
export function groundWorkSaid({
	hole,
	holding,
	collar,
	loosening,
	mulch,
	sulphur
}: GroundPlanInput): string {
	const works = [
		...(hole
			? [
					`planted in a hole ${measured(hole.widthMm, 'mm')} wide and ${measured(hole.depthMm, 'mm')} deep, its ball ${measured(hole.ballDiameterMm, 'mm')} by ${measured(hole.ballDepthMm, 'mm')}${typeof hole.drainMinutes === 'number' ? ` (a test hole emptied in ${counted(Math.round(hole.drainMinutes), 'minute')})` : ''}`
				]
			: []),
		...(holding ? [`held by ${groundHoldingNames[holding.by]}`] : []),
		...(collar
			? [
					`collar opened ${measured(collar.openMm, 'mm')} from the bark, ${measured(collar.depthMm, 'mm')} deep`
				]
			: []),
		...(loosening
			? [
					`soil loosened by ${looseningNames[loosening.method]}, ${measuredPair(loosening.innerM, ' to ', loosening.outerM, 'm')} from the middle, ${measured(loosening.depthMm, 'mm')} deep`
				]
			: []),
		...(mulch
			? [
					`mulched ${measuredPair(mulch.innerM, ' to ', mulch.outerM, 'm')} from the middle, ${measured(mulch.depthMm, 'mm')} deep`
				]
			: []),
		...(sulphur
			? [
					`acidified, ${sulphur.phNow === null ? '' : `from a pH of ${sulphur.phNow} `}toward ${sulphur.phAim}`
				]
			: [])
	];
	return atStart(works.length > 2 ? works.join('; ') : listed(works));
}

/** Works in the ground that were done, oldest first; what is only planned is none. */
export const groundWorksDone = (plans: readonly GroundPlan[]): { id: string; on: string; what: string }[] =>
	plans
		.flatMap((plan) =>
			plan.doneOn === null ? [] : [{ id: plan.id, on: plan.doneOn, what: groundWorkSaid(plan) }]
		)
		.sort((a, b) => a.on.localeCompare(b.on));
