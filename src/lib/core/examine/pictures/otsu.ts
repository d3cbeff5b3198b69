/** Bins over the range of the readings. */
const BINS = 256;

/** Where readings part into two groups, and how far these lie apart. */
export interface Parted {
	threshold: number;
	lowMean: number;
	highMean: number;
}

/**
 * Parts readings into two groups so that they differ most between the groups.
 * @param readings any unit, some of them
 * @returns the threshold in the middle between two bins and the mean of either group, or null where all readings are alike
 * @see Otsu 1979, IEEE Trans. Syst. Man Cybern. 9, 62–66
 */
export function otsu(readings: ArrayLike<number>): Parted | null {
	let [least, most] = [Infinity, -Infinity];
	for (let i = 0; i < readings.length; i++) {
		const reading = readings[i] ?? NaN;
		if (reading < least) least = reading;
		if (reading > most) most = reading;
	}
	if (!(most > least)) return null;
	const bin = (most - least) / BINS;
	const counts = new Float64Array(BINS);
	const sums = new Float64Array(BINS);
	for (let i = 0; i < readings.length; i++) {
		const reading = readings[i] ?? NaN;
		const at = Math.min(BINS - 1, Math.floor((reading - least) / bin));
		counts[at] = (counts[at] ?? 0) + 1;
		sums[at] = (sums[at] ?? 0) + reading;
	}
	const total = sums.reduce((sum, one) => sum + one, 0);
	let [low, lowSum, best] = [0, 0, -1];
	let parted: Parted | null = null;
	for (let i = 0; i < BINS - 1; i++) {
		low += counts[i] ?? 0;
		lowSum += sums[i] ?? 0;
		const high = readings.length - low;
		if (low === 0 || high === 0) continue;
		const [lowMean, highMean] = [lowSum / low, (total - lowSum) / high];
		const between = low * high * (highMean - lowMean) ** 2;
		if (between > best) {
			best = between;
			parted = { threshold: least + (i + 1) * bin, lowMean, highMean };
		}
	}
	return parted;
}
