import type { CardFault, FoundCard } from '$core/examine/pictures/find-card-words';
import type { PlaneFault } from '$core/examine/pictures/plane';
import type { Values } from '$core/values/values';
import { wrap } from 'comlink';
import type { ReaderThread } from './picture-reader.worker';

/** Reads pictures away from the page. */
export interface PictureReader {
	/** Looks for the printed card. @throws Error when the picture cannot be read */
	card(url: string, values: Values): Promise<FoundCard | CardFault | PlaneFault>;
	stop(): void;
}

/** A reader with a thread of its own. */
export function createPictureReader(): PictureReader {
	const worker = new Worker(new URL('./picture-reader.worker.ts', import.meta.url), { type: 'module' });
	const thread = wrap<ReaderThread>(worker);
	return {
		card: (url, values) => thread.card(url, { ...values }),
		stop: () => worker.terminate()
	};
}
