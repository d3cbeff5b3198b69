const steps: Readonly<Record<string, readonly [number, number]>> = {
	ArrowLeft: [-1, 0],
	ArrowRight: [1, 0],
	ArrowUp: [0, -1],
	ArrowDown: [0, 1]
};

/** Which way an arrow key moves a point on the page, right and down; null for another key. */
export const arrowStep = (key: string): readonly [number, number] | null => steps[key] ?? null;
