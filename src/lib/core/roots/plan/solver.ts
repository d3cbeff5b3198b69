import loadHighs, { type Highs } from 'highs';

export interface SolverAnswer {
	status: 'optimal' | 'infeasible' | 'limit';
	objective: number;
	/** By the names given in the model; what is not named is 0. */
	values: Readonly<Record<string, number>>;
}

/** Solves a linear or mixed-integer model in LP format. */
export type Solve = (model: string, options: { gap: number; timeLimitS: number }) => SolverAnswer;

let loaded: Promise<Solve> | null = null;

/**
 * Loads the solver, once.
 * @param locateFile where its machine code lies, in a browser; not needed elsewhere
 * @see HiGHS, Huangfu & Hall 2018, Math. Program. Comput. 10:119–142
 */
export const loadSolver = (locateFile?: (file: string) => string): Promise<Solve> =>
	(loaded ??= loadHighs(locateFile ? { locateFile } : {}).then(solverOf));

const solverOf =
	(highs: Highs): Solve =>
	(model, { gap, timeLimitS }) => {
		const { Status, ObjectiveValue, Columns } = highs.solve(model, {
			mip_rel_gap: gap,
			time_limit: timeLimitS,
			output_flag: false
		});
		if (Status !== 'Optimal' && Status !== 'Infeasible' && Status !== 'Time limit reached')
			throw new Error(`The solver answered ${Status}`);
		const values: Record<string, number> = {};
		for (const [name, column] of Object.entries(Columns))
			if ('Primal' in column && typeof column.Primal === 'number') values[name] = column.Primal;
		return {
			status: Status === 'Optimal' ? 'optimal' : Status === 'Infeasible' ? 'infeasible' : 'limit',
			objective: ObjectiveValue,
			values
		};
	};
