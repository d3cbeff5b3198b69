import { measured } from '../../text/measured';
import type { SoilCore } from '../soil/bulk-density';
import type { RawReading } from './measurement';
import type { WeighingData } from './weighing';

/** Heavier than full by no more than this is a matter of the scale: a share, and kg. */
const HEAVIER = { share: 1.05, kg: 0.05 };
/** Grains of soil, g/ml: more water than their pores hold is a wrong weight or a wrong ring. */
const PARTICLES = 2.65;

export interface Impossible {
	/** Path of the field within the reading. */
	path: string;
	message: string;
}

/** A weighing that cannot be: a pot heavier than when it was full. */
export function impossibleWeighing(
	weighing: Pick<WeighingData, 'fullKg' | 'nowKg' | 'neighbours'>
): Impossible | null {
	const over = ({ fullKg, nowKg }: { fullKg: number; nowKg: number }): boolean =>
		nowKg > fullKg * HEAVIER.share + HEAVIER.kg;
	if (over(weighing))
		return {
			path: 'nowKg',
			message: 'must not be more than when it was full; weigh it full anew if it has grown or was repotted'
		};
	const neighbour = weighing.neighbours.findIndex(over);
	return neighbour < 0
		? null
		: { path: `neighbours.${neighbour}.nowKg`, message: 'must not be more than when it was full' };
}

/** A core that cannot be: more water than its pores hold. */
export function impossibleCore(core: Pick<SoilCore, 'freshG' | 'dryG' | 'ringMl'>): Impossible | null {
	if (core.freshG === null) return null;
	const poresMl = core.ringMl - core.dryG / PARTICLES;
	const waterMl = core.freshG - core.dryG;
	return waterMl > poresMl * 1.02 + 1
		? {
				path: 'freshG',
				message: `is more water than this ring can hold (${measured(Math.round(poresMl), 'ml')}); check the weights and the ring`
			}
		: null;
}

/** What of a reading cannot be, though each number lies in its range; null where nothing speaks against it. */
export function impossibleIn(raw: RawReading): Impossible | null {
	if (raw.tool === 'weighing') return impossibleWeighing(raw);
	if (raw.tool === 'soil-cores')
		for (const [i, core] of raw.cores.entries()) {
			const found = impossibleCore(core);
			if (found) return { ...found, path: `cores.${i}.${found.path}` };
		}
	return null;
}
