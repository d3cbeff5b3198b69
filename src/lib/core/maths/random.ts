/** A small seeded generator (mulberry32): the same seed always gives the same run. */
export interface Random {
	/** Even in [0, 1). */
	next(): number;
	/** Normal with mean 0 and deviation 1. */
	normal(): number;
	between(low: number, high: number): number;
	pick<T>(items: readonly [T, ...T[]]): T;
}

/**
 * A generator of its own, the same from the same seed.
 * @param seed any whole number; of it 32 bits count
 */
export function createRandom(seed: number): Random {
	let state = seed >>> 0;
	const next = (): number => {
		state = (state + 0x6d2b79f5) >>> 0;
		let t = state;
		t = Math.imul(t ^ (t >>> 15), t | 1);
		t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
		return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
	};
	return {
		next,
		normal: () => Math.sqrt(-2 * Math.log(1 - next())) * Math.cos(2 * Math.PI * next()),
		between: (low, high) => low + (high - low) * next(),
		pick: (items) => items[Math.floor(next() * items.length)] ?? items[0]
	};
}
