/** A linear expression: coefficients by variable. */
export type Linear = Map<string, number>;

/**
 * Adds a term to a sum.
 * @param factor of the name, no unit
 */
export const add = (into: Linear, name: string, factor: number): void => {
	if (factor !== 0) into.set(name, (into.get(name) ?? 0) + factor);
};
/**
 * Adds all terms of a sum to another.
 * @param factor of each term, no unit
 */
export const addAll = (into: Linear, from: Linear, factor: number): void => {
	for (const [name, value] of from) add(into, name, value * factor);
};
const written = (linear: Linear): string =>
	[...linear]
		.filter(([, value]) => Math.abs(value) > 1e-12)
		.map(([name, value]) => `${value < 0 ? '-' : '+'} ${Math.abs(value).toFixed(10)} ${name}`)
		.join(' ') || '0 zero';

/** A mixed-integer program as it is written for the solver, row by row. */
export class Program {
	readonly objective: Linear = new Map();
	readonly #rows: string[] = [];
	readonly #bounds: string[] = [];
	readonly #whole: string[] = [];

	row(linear: Linear, sense: '<=' | '>=', right: number): void {
		this.#rows.push(` r${this.#rows.length}: ${written(linear)} ${sense} ${right.toFixed(10)}`);
	}
	/** A variable that is 0 or 1. */
	whole(name: string): void {
		this.#whole.push(name);
	}
	/** A variable of 0 to 1. */
	part(name: string): void {
		this.#bounds.push(` 0 <= ${name} <= 1`);
	}
	get text(): string {
		const rows = this.#rows.length > 0 ? this.#rows.join('\n') : ' r0: zero <= 0';
		const bounds = [...this.#bounds, ' 0 <= zero <= 0'].join('\n');
		const whole = this.#whole.length > 0 ? `Binary\n ${this.#whole.join(' ')}\n` : '';
		return `Maximize\n obj: ${written(this.objective)}\nSubject To\n${rows}\nBounds\n${bounds}\n${whole}End\n`;
	}
}

/** Without its whole numbers: bounds what any plan can be worth. */
export function relaxed(text: string): string {
	const names = /Binary\n (.*)\nEnd/s.exec(text)?.[1]?.split(' ') ?? [];
	const bounds = names.map((name) => ` 0 <= ${name} <= 1\n`).join('');
	return text.replace(/Binary\n .*\nEnd/s, 'End').replace('Bounds\n', `Bounds\n${bounds}`);
}
