import type { CardFault, FoundCard } from '$core/examine/pictures/find-card-words';
import type { LinedUp, ViewFault } from '$core/examine/pictures/lined-up';
import type { PlaneFault, Point2 } from '$core/examine/pictures/plane';
import type { WallTold } from '$core/examine/pictures/wall-words';
import type { Values } from '$core/values/values';
import { wrap, type Remote } from 'comlink';
import type {
	LeavesRead,
	ReaderThread,
	ReadRoot,
	RootsRead,
	RootsTold,
	WallShown
} from './picture-reader.worker';

export type { LeavesRead, ReadRoot, RootsRead, RootsTold, WallShown } from './picture-reader.worker';

/** Reads pictures away from the page. */
export interface PictureReader {
	/** Looks for the printed card, taken with a lens of known focal length against the longer side. @throws Error when the picture cannot be read */
	card(url: string, focalShare: number | null, values: Values): Promise<FoundCard | CardFault | PlaneFault>;
	/** Turns a picture to its plane and reads the roots in it; null where the touches tell no direction. @throws Error when it cannot be read */
	roots(url: string, told: RootsTold, values: Values): Promise<RootsRead | null>;
	/** The root between two touches on the map, mm, in the picture that was read last; null where none shows. */
	trace(base: Point2, end: Point2, values: Values): Promise<ReadRoot | null>;
	/** The root along a mended line, mm of the map, about so wide to either side; null where none shows. */
	along(line: readonly Point2[], halfMm: number, values: Values): Promise<ReadRoot | null>;
	/** Lays an earlier picture over a later one, drawn as it lies there, or tells why it cannot. @throws Error when one cannot be read */
	lineUp(before: string, after: string, values: Values): Promise<{ how: LinedUp; before: Blob } | ViewFault>;
	/** A loop round the crown of two pictures, px of the later; null where nothing is green. @throws Error when one cannot be read */
	crown(before: string, after: string, toAfter: readonly number[], values: Values): Promise<Point2[] | null>;
	/** Leaf within a loop, then and now; null where it holds nothing that can be read. @throws Error when one cannot be read */
	leaves(
		before: string,
		after: string,
		how: Pick<LinedUp, 'toAfter' | 'offPx'>,
		loop: readonly Point2[],
		values: Values
	): Promise<LeavesRead | null>;
	/** Roots on a wall by the colours that were touched; null where too little was told. @throws Error when it cannot be read */
	wall(url: string, told: WallTold, values: Values): Promise<WallShown | null>;
	/** A picture turned to a map, as far from its middle as is wanted, mm. @throws Error when it cannot be read */
	under(url: string, toPlan: readonly number[], reachMm: number, sidePx: number): Promise<Blob>;
	stop(): void;
}

/** A reader with a thread of its own, begun with the first question: a page that is made on the server asks none. */
export function createPictureReader(): PictureReader {
	let worker: Worker | null = null;
	let begun: Remote<ReaderThread> | null = null;
	const thread = (): Remote<ReaderThread> => {
		worker ??= new Worker(new URL('./picture-reader.worker.ts', import.meta.url), { type: 'module' });
		return (begun ??= wrap<ReaderThread>(worker));
	};
	// What the page watches is handed over as the plain thing it is.
	const plain = <T>(value: T): T => JSON.parse(JSON.stringify(value)) as T;
	return {
		card: (url, focalShare, values) => thread().card(url, focalShare, { ...values }),
		roots: (url, told, values) => thread().roots(url, plain(told), { ...values }),
		trace: (base, end, values) => thread().trace(plain(base), plain(end), { ...values }),
		along: (line, halfMm, values) => thread().along(plain(line), halfMm, { ...values }),
		lineUp: (before, after, values) => thread().lineUp(before, after, { ...values }),
		crown: (before, after, toAfter, values) => thread().crown(before, after, [...toAfter], { ...values }),
		leaves: (before, after, how, loop, values) =>
			thread().leaves(before, after, plain(how), plain(loop), { ...values }),
		wall: (url, told, values) => thread().wall(url, plain(told), { ...values }),
		under: (url, toPlan, reachMm, sidePx) => thread().under(url, [...toPlan], reachMm, sidePx),
		stop: () => worker?.terminate()
	};
}
