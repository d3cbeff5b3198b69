/** From so many points of courses on, drawing and sending a map takes longer than others should wait for it. */
const LARGE_MAP_POINTS = 4000;

/** Whether a map is so large that each browser draws it for itself. */
export const isLarge = (map: { segments: readonly { course: readonly unknown[] }[] } | null): boolean =>
	(map?.segments ?? []).reduce((points, { course }) => points + course.length, 0) > LARGE_MAP_POINTS;
