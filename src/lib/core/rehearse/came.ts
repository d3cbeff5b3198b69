import { daysBetween } from '../maths/calendar';
import { counted } from '../text/plural';
import { chanceSaid, likelihood, percent } from '../text/percent';
import type { KeptOutcome, KeptRehearsal } from '../recovery/rehearsal/kept';
import { treeStateNames } from '../vocabulary/words';
import type { Tree } from '../take-in/tree';

const isLikely = (chance: number): boolean => likelihood(chance) === 'likely';

/** What is known today of a tree that was rehearsed. */
export interface CameSince {
	state: Tree['state'];
	/** Chance of re-establishment as Recovery tells it today; null where it is not known any more. */
	chance: number | null;
	/** Root function by its last weighing, with the day; null where nothing was weighed since. */
	roots: { phi: number; low: number; high: number; on: string } | null;
	/** Waterings written down since. */
	waterings: number;
}

/** One line of a rehearsal against what came. */
export interface CameLine {
	what: string;
	rehearsed: string;
	came: string;
	/** Whether what came lies within what was rehearsed; null where it is not known. */
	within: boolean | null;
}

/** A course on a day, between the points it was kept at. @returns null before it begins */
export function rehearsedOn(
	points: KeptOutcome['alive'],
	on: string
): { low: number; mean: number; high: number } | null {
	const after = points.findIndex((point) => point.on >= on);
	const [first, last] = [points[0], points.at(-1)];
	if (!first || !last || on < first.on) return null;
	if (after < 0) return last;
	const [a, b] = [points[Math.max(0, after - 1)] ?? first, points[after] ?? last];
	const part = a.on === b.on ? 0 : daysBetween(a.on, on) / daysBetween(a.on, b.on);
	const mix = (key: 'low' | 'mean' | 'high'): number => a[key] + part * (b[key] - a[key]);
	return { low: mix('low'), mean: mix('mean'), high: mix('high') };
}

/**
 * What was rehearsed for a day against what is known of the tree then. What nobody saw is said to be so.
 * @param today calendar date
 */
export function whatCame(kept: KeptRehearsal, since: CameSince, today: string): CameLine[] {
	const outcome = kept.outcomes[kept.taken];
	if (!outcome) return [];
	const lines: CameLine[] = [];
	const alive = rehearsedOn(outcome.alive, today);
	if (alive) {
		const dead = since.state === 'dead';
		lines.push({
			what: 'Alive',
			rehearsed: `${chanceSaid(alive.mean)} by now, ${chanceSaid(alive.low)} to ${chanceSaid(alive.high)}`,
			came: since.state === 'in-care' ? 'in care; nobody has closed its case' : treeStateNames[since.state],
			within: since.state === 'gone' ? null : dead !== isLikely(alive.mean)
		});
	}
	const established = rehearsedOn(outcome.established, today);
	if (established)
		lines.push({
			what: 'Re-established',
			rehearsed: `${chanceSaid(established.mean)} by now`,
			came:
				since.state === 're-established'
					? 'it is'
					: since.chance === null
						? 'not yet; nobody has seen enough of it lately'
						: `not yet; Recovery gives it ${chanceSaid(since.chance)} for later`,
			within: isLikely(established.mean) === (since.state === 're-established')
		});
	const roots = rehearsedOn(outcome.roots, since.roots?.on ?? today);
	if (roots)
		lines.push({
			what: 'Root function',
			rehearsed: `${percent(roots.mean)}${since.roots ? ` on ${since.roots.on}` : ' by now'}, ${percent(roots.low)} to ${percent(roots.high)}`,
			came: since.roots
				? `${percent(since.roots.phi)} by weighings, ${percent(since.roots.low)} to ${percent(since.roots.high)}`
				: 'nothing was weighed since',
			within: since.roots ? since.roots.high >= roots.low && since.roots.low <= roots.high : null
		});
	lines.push({
		what: 'Waterings',
		rehearsed: `${Math.round(outcome.waterings)} over the whole of it`,
		came:
			since.waterings === 0
				? 'none written down'
				: `${counted(since.waterings, 'watering')} written down so far`,
		within: null
	});
	return lines;
}
