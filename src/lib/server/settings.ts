import { eq } from 'drizzle-orm';
import { z } from 'zod';
import { oneOf } from '../core/fields/fields';
import { defaultFormatSettings, locales, unitSystems, type FormatSettings } from '../core/format/format';
import { isValueKey, resolveValues, workingValue, type Values } from '../core/values/values';
import type { Reader, Store } from './db/database';
import { setting, valueOverride } from './db/schema';
import { invalid, notFound } from './errors';

export async function readSetting(db: Reader, key: string): Promise<unknown> {
	const [row] = await db.select().from(setting).where(eq(setting.key, key));
	return row?.value;
}

export async function writeSetting(store: Store, key: string, value: unknown): Promise<void> {
	await store.write(async (tx) => {
		await tx
			.insert(setting)
			.values({ key, value })
			.onConflictDoUpdate({ target: setting.key, set: { value } });
	});
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

export const readValues = async (db: Reader): Promise<Values> => resolveValues(await readOverrides(db));

/**
 * Sets the owner's own number for a working value, or goes back to the shipped one.
 * @param value null to go back
 * @throws Refusal 404 unknown key · 422 out of its range
 */
export async function overrideValue(store: Store, key: string, value: number | null): Promise<void> {
	if (!isValueKey(key)) throw notFound('value');
	const { min, max, unit } = workingValue(key);
	if (value !== null && !(Number.isFinite(value) && value >= min && value <= max))
		throw invalid([{ field: key, message: `must be a number from ${min} to ${max} ${unit}` }]);
	await store.write(async (tx) => {
		if (value === null) await tx.delete(valueOverride).where(eq(valueOverride.key, key));
		else
			await tx
				.insert(valueOverride)
				.values({ key, value })
				.onConflictDoUpdate({ target: valueOverride.key, set: { value } });
	});
}
