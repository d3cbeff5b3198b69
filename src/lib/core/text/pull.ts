/** From this pull, in log-odds, evidence speaks strongly; under that one it hardly counts. Two to nine times the odds, four to three. */
const STRONG = 1.5;
const SLIGHT = 0.4;

/** How strongly something speaks for or against, in words: a bare log-odds says nothing to anybody on a page of work. */
export function pullWords(pull: number): string {
	const strength = Math.abs(pull) >= STRONG ? 'strongly ' : Math.abs(pull) < SLIGHT ? 'slightly ' : '';
	return `speaks ${strength}${pull > 0 ? 'for it' : 'against it'}`;
}
