import { wordsOf } from '../vocabulary/words-of';
import { backupKinds, type BackupKind } from '../vocabulary/backup-kinds';
import { z } from 'zod';
import { calendarDate, count, id, measure, note, oneOf, shortText, version } from '../vocabulary/fields';
import { wilsonInterval } from '../maths/wilson';
import type { Values } from '../values/values';

export const backupEventNames = {
	struck: 'have roots',
	potted: 'potted on',
	lost: 'lost',
	given: 'given away'
};
export type BackupEvent = keyof typeof backupEventNames;
export const backupEvents = wordsOf(backupEventNames);

/** Cuttings or divisions of one day, tracked until each is a tree, lost or given away. */
export const backupInput = z.strictObject({
	takenOn: calendarDate(),
	kind: oneOf(backupKinds),
	source: shortText(120).describe('Where on the tree it came from'),
	lengthMm: measure(5, 3000, 'mm').nullable().default(null),
	treatment: note(200).describe('What was done to it; evidence for most is weak'),
	count: count(1, 2000),
	note: note(300)
});
export type BackupInput = z.infer<typeof backupInput>;

export const backupSchema = backupInput.extend({
	id: id(),
	events: z
		.array(
			z.strictObject({
				on: calendarDate(),
				what: oneOf(backupEvents),
				count: count(1, 2000),
				/** The tree that one became, where it was potted into the yard. */
				becameId: id().nullable().default(null)
			})
		)
		.max(200, { error: 'must be at most 200 events' }),
	version: version()
});
export type Backup = z.infer<typeof backupSchema>;

export interface BackupStanding {
	/** Still to root. */
	waiting: number;
	/** Rooted, not potted yet. */
	rooted: number;
	potted: number;
	lost: number;
	given: number;
	/** Alive by any count. */
	alive: number;
}

/** How many of a batch stand where. What is potted was rooted first; losses come from those that wait, then from the rooted. */
export function backupStanding(backup: Pick<Backup, 'count' | 'events'>): BackupStanding {
	const standing = { waiting: backup.count, rooted: 0, potted: 0, lost: 0, given: 0 };
	for (const { what, count: some } of [...backup.events].sort((a, b) => a.on.localeCompare(b.on))) {
		if (what === 'struck') {
			const moved = Math.min(some, standing.waiting);
			standing.waiting -= moved;
			standing.rooted += moved;
			continue;
		}
		const fromRooted =
			what === 'lost' ? Math.max(0, some - standing.waiting) : Math.min(some, standing.rooted);
		const fromWaiting = Math.min(standing.waiting, some - fromRooted);
		standing.rooted -= Math.min(standing.rooted, fromRooted);
		standing.waiting -= fromWaiting;
		standing[what] += some;
	}
	return { ...standing, alive: standing.waiting + standing.rooted + standing.potted };
}

/** More events than there are plants. @returns the first that does not fit, or null */
export function tooMany(backup: Pick<Backup, 'count' | 'events'>): BackupEvent | null {
	let gone = 0;
	let rooted = 0;
	for (const { what, count: some } of backup.events) {
		if (what === 'struck') rooted += some;
		else gone += some;
		if (rooted > backup.count || gone > backup.count) return what;
	}
	return null;
}

export const worthKeepingOutput = z.object({
	count: z.number().describe('To keep, count'),
	rate: z.number().describe('Share that comes through, 0 to 1'),
	from: z.enum(['yard', 'usual']).describe('Whether the rate is of this yard')
});

/**
 * How many to keep so that one comes through with a wanted certainty: 1 − (1 − rate)^n. The rate is what is known: of this yard
 * where enough were struck, else a usual one; the lower edge of its interval is taken, so that few counts ask for more.
 * @param struck of those whose fate is known
 */
export function worthKeeping(
	kind: BackupKind,
	{ struck, known }: { struck: number; known: number },
	values: Values
): z.infer<typeof worthKeepingOutput> {
	const usual = values[`backup.rate.${kind}`];
	const own = known >= values['backup.ownFrom'] ? wilsonInterval(struck, known) : null;
	const rate = Math.min(0.98, Math.max(0.02, own ? own.low : usual));
	return {
		count: Math.max(1, Math.ceil(Math.log(1 - values['backup.certainty']) / Math.log(1 - rate))),
		rate,
		from: own ? 'yard' : 'usual'
	};
}
