import type { RecoveryCase, RecoveryForecast } from '$core/recovery/forecast';
import type { Values } from '$core/values/values';
import { wrap } from 'comlink';
import type { ForecasterThread } from './recovery-forecast.worker';

/** Forecasts a recovery away from the page. */
export interface Forecaster {
	forecast(tree: RecoveryCase, values: Values): Promise<RecoveryForecast>;
	/** Stops what is under way; its promise never settles. */
	stop(): void;
}

export function createForecaster(): Forecaster {
	const worker = new Worker(new URL('./recovery-forecast.worker.ts', import.meta.url), { type: 'module' });
	const thread = wrap<ForecasterThread>(worker);
	return {
		forecast: (tree, values) => thread.forecast(structuredClone(tree), { ...values }),
		stop: () => worker.terminate()
	};
}
