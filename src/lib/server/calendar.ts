import { createFormat, type FormatSettings } from '../core/text/format';
import { createEvents } from 'ics';
import { randomBytes, timingSafeEqual } from 'node:crypto';
import { addDays } from '../core/maths/calendar';
import { calendarEvents, type CalendarEvent } from '../core/aftercare/tasks/calendar-events';
import { now, today } from './clock';
import type { Reader, Store } from './db/database';
import { readSetting, readValues, writeSetting } from './settings';
import { todayTrees } from './tree-lists';

/** Open work of the whole yard up to a year ahead, as events. */
export async function yardEvents(db: Reader): Promise<CalendarEvent[]> {
	const on = today();
	const [trees, values] = await Promise.all([todayTrees(db, on, 366), readValues(db)]);
	return calendarEvents(
		trees.map(({ tree, place, facts, tasks }) => ({
			tag: tree.tag,
			name: tree.name,
			placeName: place.name,
			facts,
			tasks
		})),
		on,
		values
	);
}

type DateArray = [number, number, number];
const parts = (day: string): DateArray => [
	Number(day.slice(0, 4)),
	Number(day.slice(5, 7)),
	Number(day.slice(8, 10))
];

/** Events as iCalendar (RFC 5545): whole days, the last one exclusive; what they say in the yard’s units and language. */
export function asICalendar(events: readonly CalendarEvent[], settings: FormatSettings): string {
	const { inWords } = createFormat(settings);
	const stamp = now();
	const { error, value } = createEvents(
		events.map((event) => ({
			uid: event.uid,
			start: parts(event.fromOn),
			end: parts(addDays(event.toOn, 1)),
			title: inWords(event.title),
			description: inWords(event.text),
			sequence: event.sequence,
			status: event.tentative ? ('TENTATIVE' as const) : ('CONFIRMED' as const),
			busyStatus: 'FREE' as const,
			productId: 'bruntle/calendar',
			calName: 'Bruntle',
			created: stamp.getTime(),
			lastModified: stamp.getTime()
		}))
	);
	if (error) throw error;
	return value && value !== ''
		? value
		: 'BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:bruntle/calendar\r\nEND:VCALENDAR\r\n';
}

const KEY = 'calendar-token';

/** The secret part of the feed’s address; null while there is none. */
export async function feedToken(db: Reader): Promise<string | null> {
	const token = await readSetting(db, KEY);
	return typeof token === 'string' && token !== '' ? token : null;
}

/** A new address; the one before is worth nothing from then on. */
export async function renewFeed(store: Store): Promise<string> {
	const token = randomBytes(18).toString('base64url');
	await writeSetting(store, KEY, token);
	return token;
}
/** Takes the address of the calendar back; who has it reads no more. */
export const revokeFeed = (store: Store): Promise<void> => writeSetting(store, KEY, '');

/** Compares two tokens in a time that tells nothing of either. */
export const sameToken = (a: string, b: string): boolean => {
	const [left, right] = [Buffer.from(a), Buffer.from(b)];
	return left.length === right.length && timingSafeEqual(left, right);
};
