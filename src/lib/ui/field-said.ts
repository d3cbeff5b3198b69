import { fieldUnit } from '$core/text/fields';
import type { Format } from '$core/text/format';

const ID = /^[0-9a-f]{8}-[0-9a-f-]{27}$/;
const DAY = /^\d{4}-\d\d-\d\d$/;
const WORD = /^[a-z]+(-[a-z0-9]+)+$/;

/** What a field holds, as a person reads it: in their units, a day as a day, a choice in words. */
export function fieldSaid(format: Format, field: string, value: string): string {
	if (value === '') return 'nothing';
	const unit = fieldUnit(field);
	if (unit !== null && Number.isFinite(Number(value))) return format.measure(Number(value), unit);
	if (value === 'true' || value === 'false') return value === 'true' ? 'yes' : 'no';
	if (DAY.test(value)) return format.date(value);
	if (ID.test(value)) return 'another one';
	return WORD.test(value) ? value.replaceAll('-', ' ') : value;
}
