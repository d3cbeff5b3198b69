import { writeCsv } from '../../core/text/csv';
import { conditionOf } from '../../core/vocabulary/conditions';
import type { Judged } from '../../core/practice/judged';
import { playRound } from '../../core/practice/played';
import { practiceTree } from '../../core/practice/practice-tree';
import { setCases } from '../../core/practice/set-cases';
import { practiceValues, type RoundRow } from './rounds';

/** A round as the list of rounds tells it: what ailed it only once it is over. */
export function roundTold({ id, wish, setCase, treeId, startedAt, endedAt, day, judged }: RoundRow) {
	const { truth, days } = practiceTree(wish, practiceValues);
	return {
		id,
		treeId,
		name: setCases.find((one) => one.number === setCase)?.name ?? `Tree ${wish.seed}`,
		setCase,
		seed: wish.seed,
		kind: truth.kind.commonName,
		startedAt,
		day,
		days,
		over: endedAt !== null,
		judged: judged && {
			truth: judged.truth.map((one) => conditionOf(one).label),
			died: judged.diedOn !== null,
			own: judged.own,
			best: judged.best,
			advised: judged.advised,
			brier: judged.brier
		}
	};
}
export type RoundTold = ReturnType<typeof roundTold>;

const columns = [
	'trainee',
	'started_at',
	'ended_at',
	'case',
	'seed',
	'kind',
	'what_ailed_it',
	'died_on',
	'chance_own',
	'chance_best',
	'chance_advised',
	'chance_nothing',
	'brier_first',
	'brier_last',
	'minutes',
	'minutes_best'
] as const;

const figure = (value: number | null): number | '' => (value === null ? '' : Math.round(value * 1000) / 1000);

/** Rounds that are over as CSV, a row each, for who teaches [RFC 4180]. */
export function resultsCsv(rounds: readonly RoundRow[]): string {
	const rows = rounds.flatMap(({ judged, ...round }): Record<(typeof columns)[number], string | number>[] => {
		if (!judged) return [];
		const { truth } = practiceTree(round.wish, practiceValues);
		return [
			{
				trainee: round.trainee,
				started_at: round.startedAt,
				ended_at: round.endedAt ?? '',
				case: round.setCase ?? '',
				seed: round.wish.seed,
				kind: truth.kind.commonName,
				what_ailed_it: judged.truth.map((id) => conditionOf(id).label).join(' + ') || 'nothing',
				died_on: judged.diedOn ?? '',
				chance_own: figure(judged.own),
				chance_best: figure(judged.best),
				chance_advised: figure(judged.advised),
				chance_nothing: figure(judged.nothing),
				brier_first: figure(judged.brierFirst),
				brier_last: figure(judged.brier),
				minutes: Math.round(judged.minutes),
				minutes_best: Math.round(judged.bestMinutes)
			}
		];
	});
	return writeCsv(columns, rows);
}

/** A round that is over with all that its page shows. @param round judged */
export function judgedRound(round: RoundRow) {
	const tree = practiceTree(round.wish, practiceValues);
	const played = playRound(tree, round.acts, tree.days);
	const last = played.diedOn ?? played.days.length;
	return {
		round: roundTold(round),
		judged: round.judged as Judged,
		startOn: tree.truth.startOn,
		situation: tree.truth.situation,
		/** How it went, by day: how dry it was, its roots, and the days on which it was watered. */
		days: played.days
			.filter(({ day }) => day <= last)
			.map(({ day, dryness, roots, watered }) => ({ day, dryness, roots, watered })),
		/** Chance to be alive by week, by what was done. */
		alive: [...played.alive],
		said: round.acts.flatMap((act) => (act.what === 'say' ? [{ day: act.day, chances: act.chances }] : []))
	};
}
