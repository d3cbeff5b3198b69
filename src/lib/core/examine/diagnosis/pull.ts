import type { Values } from '../../values/values';

/**
 * How strongly something seen speaks for or against, in words: a bare log-odds says nothing to anybody on a page of work.
 * @param pull by how much it moves the log-odds
 */
export function pullWords(pull: number, values: Values): string {
	const size = Math.abs(pull);
	const strength =
		size >= values['evidence.strongOdds']
			? 'strongly '
			: size < values['evidence.slightOdds']
				? 'slightly '
				: '';
	return `speaks ${strength}${pull > 0 ? 'for it' : 'against it'}`;
}
