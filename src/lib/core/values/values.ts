import { aftercareValues } from './aftercare';
import { bookValues } from './book';
import { climateValues } from './climate';
import { markSentence, type WorkingValue } from './define';
import { diagnosisValues } from './diagnosis';
import { measuringValues } from './measuring';
import { pictureValues } from './pictures';
import { practiceNumbers } from './practice';
import { recoveryValues } from './recovery';
import { rehearseValues } from './rehearse';
import { replantValues } from './replant';
import { rootValues } from './roots';
import { settingValues } from './setting';
import { soilValues } from './soil';
import { standingValues } from './standing';
import { triageValues } from './triage';
import { todayValues } from './today';
import { waterValues } from './water';
import { workValues } from './ground-works';

/** All working defaults, by the room that uses them. */
export const valueFamilies = {
	Roots: rootValues,
	'Front and angle': settingValues,
	Replant: replantValues,
	'In the ground': workValues,
	'Water drawn': waterValues,
	'Season and cold': climateValues,
	Aftercare: aftercareValues,
	Today: todayValues,
	Recovery: recoveryValues,
	Rehearse: rehearseValues,
	Practice: practiceNumbers,
	'How it stands': standingValues,
	'Field book': bookValues,
	Measuring: measuringValues,
	Pictures: pictureValues,
	Soil: soilValues,
	'Before the work': triageValues,
	Diagnosis: diagnosisValues
} as const;

const workingValues = {
	...rootValues,
	...settingValues,
	...replantValues,
	...workValues,
	...waterValues,
	...climateValues,
	...aftercareValues,
	...todayValues,
	...recoveryValues,
	...rehearseValues,
	...practiceNumbers,
	...standingValues,
	...bookValues,
	...measuringValues,
	...pictureValues,
	...soilValues,
	...triageValues,
	...diagnosisValues
};

export type ValueKey = keyof typeof workingValues;

/** The numbers in force: shipped defaults, or what the owner put in their place. */
export type Values = Readonly<Record<ValueKey, number>>;

export const valueKeys = Object.keys(workingValues) as ValueKey[];

/** Whether a working value has this name. */
export const isValueKey = (key: string): key is ValueKey => Object.hasOwn(workingValues, key);

/** The definition behind a key, for showing its label, unit and mark. */
export const workingValue = (key: ValueKey): WorkingValue => workingValues[key];

/** Where a value comes from, in words: its mark and its source. */
export function markOf(key: ValueKey): string {
	const { mark, source } = workingValue(key);
	return source ? `${markSentence[mark]}: ${source}` : markSentence[mark];
}

/**
 * The values in force.
 * @param overrides the owner's own numbers by key; unknown keys and numbers out of bounds are ignored,
 * so that an old override can never break a calculation.
 */
export function resolveValues(overrides: Readonly<Record<string, number>> = {}): Values {
	const resolved = { ...shipped };
	for (const [key, own] of Object.entries(overrides)) {
		if (!Object.hasOwn(workingValues, key)) continue;
		const { min, max } = workingValues[key as ValueKey];
		if (Number.isFinite(own) && own >= min && own <= max) resolved[key as ValueKey] = own;
	}
	return resolved;
}
const shipped = Object.fromEntries(valueKeys.map((key) => [key, workingValues[key].value])) as Record<
	ValueKey,
	number
>;

export const defaultValues: Values = resolveValues();

/** The numbers in force, one object as long as none is changed: what is worked out from them is remembered by it. */
export function valuesInForce(overrides: Readonly<Record<string, number>>): Values {
	const text = JSON.stringify(overrides);
	if (inForce?.text !== text) inForce = { text, values: Object.freeze(resolveValues(overrides)) };
	return inForce.values;
}
let inForce: { text: string; values: Values } | null = null;

const keys = new WeakMap<Values, string>();

/** The numbers as one key, the same for the same numbers; written down once for as long as they are one object. */
export function valuesKey(values: Values): string {
	let key = keys.get(values);
	if (key === undefined) keys.set(values, (key = JSON.stringify(values)));
	return key;
}
