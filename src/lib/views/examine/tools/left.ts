import type { ZodType } from 'zod';
import type { Tool } from '$core/examine/measuring/measurement';

/** A reading that was begun and not kept, as far as it went. */
export type Left = Readonly<Record<string, unknown>>;

/** Tools that go on from what was left: those that take many readings. The others are read anew in a moment. */
const GOES_ON: ReadonlySet<Tool> = new Set<Tool>([
	'collar',
	'penetrometer',
	'soil-cores',
	'infiltration',
	'scratch-tap'
]);

const keyOf = (treeId: string, tool: Tool): string => `bruntle-read.${treeId}.${tool}`;
/** Soil and wood go on: what was read longer ago is measured anew. */
const KEEP_MS = 2 * 24 * 3600 * 1000;

/** What was read with a tool at a tree and not kept; null where nothing was, or too long ago. */
export function leftReading(treeId: string, tool: Tool): Left | null {
	if (!GOES_ON.has(tool)) return null;
	try {
		const found = JSON.parse(localStorage.getItem(keyOf(treeId, tool)) ?? 'null') as {
			at: number;
			raw: Left;
		} | null;
		return found && Date.now() - found.at < KEEP_MS && found.raw.tool === tool ? found.raw : null;
	} catch {
		// What cannot be read was left by nobody.
		return null;
	}
}

/** Keeps on this device what was read so far, or forgets it. @param raw null to forget */
export function leaveReading(treeId: string, tool: Tool, raw: unknown): void {
	if (!GOES_ON.has(tool)) return;
	try {
		if (raw === null) localStorage.removeItem(keyOf(treeId, tool));
		else localStorage.setItem(keyOf(treeId, tool), JSON.stringify({ at: Date.now(), raw }));
	} catch {
		// A full or forbidden store only means that nothing is left.
	}
}

/** What was left of one part of a reading, where it still is what the schema takes. */
export function partLeft<T>(left: Left | null, key: string, schema: ZodType<T>): T | null {
	const parsed = schema.safeParse(left?.[key]);
	return parsed.success ? parsed.data : null;
}
