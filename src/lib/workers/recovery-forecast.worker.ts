import { recoveryForecast, type RecoveryCase } from '$core/recovery/forecast';
import type { Values } from '$core/values/values';
import { expose } from 'comlink';

/** The simulation of recovery in a thread of its own, so that the page stays at hand. */
const forecaster = {
	forecast: (tree: RecoveryCase, values: Values) => recoveryForecast(tree, values)
};
export type ForecasterThread = typeof forecaster;
expose(forecaster);
