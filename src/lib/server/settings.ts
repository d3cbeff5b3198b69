import { rangeInUnit } from '../core/text/measured';
import { eq } from 'drizzle-orm';
import { z } from 'zod';
import { oneOf } from '../core/vocabulary/fields';
import { defaultFormatSettings, locales, unitSystems, type FormatSettings } from '../core/text/format';
import { isValueKey, valuesInForce, workingValue, type Values } from '../core/values/values';
import type { Reader, Store, Writer } from './db/database';
import { setting, valueOverride } from './db/schema';
import { invalid, notFound } from './errors';

/** A setting as it was kept; null where it never was. */
export async function readSetting(db: Reader, key: string): Promise<unknown> {
	const [row] = await db.select().from(setting).where(eq(setting.key, key));
	return row?.value;
}

/** Keeps a setting. */
export async function writeSetting(store: Store, key: string, value: unknown): Promise<void> {
	await store.write((tx) => keepSetting(tx, key, value));
}

/** Keeps a setting with what else is written. */
export async function keepSetting(tx: Writer, key: string, value: unknown): Promise<void> {
	await tx.insert(setting).values({ key, value }).onConflictDoUpdate({ target: setting.key, set: { value } });
}

export const formatSettingsInput = z.strictObject({ units: oneOf(unitSystems), locale: oneOf(locales) });

/** How this yard wants numbers and dates; the defaults when nothing (or something unreadable) is stored. */
export async function readFormatSettings(db: Reader): Promise<FormatSettings> {
	const parsed = formatSettingsInput.safeParse(await readSetting(db, 'format'));
	return parsed.success ? parsed.data : defaultFormatSettings;
}

/** Values the owner has put in place of shipped defaults, by key. */
export async function readOverrides(db: Reader): Promise<Record<string, number>> {
	const rows = await db.select().from(valueOverride);
	return Object.fromEntries(rows.map((row) => [row.key, row.value]));
}

/** The working values in force. */
export const readValues = async (db: Reader): Promise<Values> => valuesInForce(await readOverrides(db));

/** Working values to set, by key; null goes back to the shipped number. */
export const valueChanges = z.record(z.string(), z.number({ error: 'must be a number' }).nullable());

/**
 * Sets the owner's own numbers for working values, or goes back to the shipped ones; all of them or none.
 * @throws Refusal 404 unknown key · 422 out of its range
 */
export async function overrideValues(
	store: Store,
	changes: Readonly<Record<string, number | null>>
): Promise<void> {
	for (const [key, value] of Object.entries(changes)) {
		if (!isValueKey(key)) throw notFound('value');
		const { min, max, unit } = workingValue(key);
		if (value !== null && !(Number.isFinite(value) && value >= min && value <= max))
			throw invalid([{ field: key, message: `must be a number from ${rangeInUnit(min, max, unit)}` }]);
	}
	await store.write(async (tx) => {
		for (const [key, value] of Object.entries(changes))
			if (value === null) await tx.delete(valueOverride).where(eq(valueOverride.key, key));
			else
				await tx
					.insert(valueOverride)
					.values({ key, value })
					.onConflictDoUpdate({ target: valueOverride.key, set: { value } });
	});
}
