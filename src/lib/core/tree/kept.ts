import type { NightsUnderCover } from '../climate/cold-limit';
import type { Smell } from '../examine/looks/seen-words';
import type { StageGate } from '../roots/plan/stage-gate';
import type { Planned } from './planned';
import type { CheckFirst, Urgent, WaitsForWindow } from './urgent';
import type { Standing, PestsSeen, Stands } from './standing';
import { outSince } from './standing';

/** How a tree stands, as Today and the lists need it: small, kept beside the tree until something changes. */
export interface StandingKept {
	/** Out of the ground and in no pot: since when and how it was left. */
	out: { on: string; how: Stands } | null;
	/** Day its water was last poured, weighed or felt; null where nobody ever wrote it down. */
	waterOn: string | null;
	/** Day since which it stands in a pot; null for one that stands in none. */
	pottedOn: string | null;
	/** Its pot is too heavy for a scale, or to be lifted by hand; left out of what was kept before that was told. */
	tooHeavy?: boolean;
	/** How it moved when it was last tried, and since when it is held against that, where it is. */
	firmness: { value: 'moves' | 'loose'; on: string; heldOn?: string; setOn?: string } | null;
	pests: { value: PestsSeen; on: string } | null;
	/** A bad smell of its root zone since it was set where it stands and since its roots were last worked on. */
	smell: { value: Exclude<Smell, 'none'>; on: string } | null;
	/** Day of the last work that took living root, by cut or by lift. */
	rootsCutOn: string | null;
	/** Day on which they were last wounded, so that a cold night touches them; left out of what was kept before that was told. */
	woundedOn?: string | null;
	/** Its last nights under cover, over or not. */
	underCover: NightsUnderCover | null;
	/** Planned work that is no task of its own, the next. */
	planned: Planned | null;
	/** What its last look says to act on now. */
	urgent: Pick<Urgent, 'subject' | 'chance' | 'on' | 'stage' | 'water' | 'meaning' | 'untilOn'> | null;
	/** A likely cause that a check of a minute decides, before it is acted on. */
	check: CheckFirst | null;
	/** A likely cause whose work waits for its window. */
	waits: WaitsForWindow | null;
	/** How many of it live, by the last count; 1 of a tree. */
	alive: number;
	/** Whether the last root stage is paid back; null where none waits. */
	gate: Pick<StageGate, 'answer' | 'because'> | null;
}

/** A smell of before it was set, or before the work, led to them and speaks of what was taken away; one of the day it came is of what stands. */
export function smellSince(
	{ smell, stands }: Pick<Standing, 'smell' | 'stands'>,
	rootsCutOn: string | null
): StandingKept['smell'] {
	if (smell.value === null || smell.value === 'none' || smell.on === null) return null;
	const setOn = stands.by === 'taking in' ? '' : (stands.on ?? '');
	return smell.on > setOn && smell.on > (rootsCutOn ?? '') ? { value: smell.value, on: smell.on } : null;
}

/** How a tree stands, as far as the list of trees and Today need it. */
export function standingKept(
	standing: Standing,
	{
		rootsCutOn,
		woundedOn,
		gate,
		urgent,
		check,
		waits,
		alive,
		underCover,
		planned,
		firmness,
		tooHeavy
	}: Pick<
		StandingKept,
		| 'rootsCutOn'
		| 'woundedOn'
		| 'gate'
		| 'urgent'
		| 'check'
		| 'waits'
		| 'alive'
		| 'underCover'
		| 'planned'
		| 'firmness'
		| 'tooHeavy'
	>
): StandingKept {
	const { pests } = standing;
	return {
		rootsCutOn,
		woundedOn,
		underCover,
		planned,
		urgent: urgent && {
			subject: urgent.subject,
			chance: urgent.chance,
			on: urgent.on,
			stage: urgent.stage,
			water: urgent.water,
			meaning: urgent.meaning,
			untilOn: urgent.untilOn
		},
		check,
		waits,
		alive,
		gate: gate && { answer: gate.answer, because: gate.because },
		out: outSince(standing),
		waterOn: standing.waterSeen.on,
		pottedOn: standing.stands.value === 'potted' ? standing.stands.on : null,
		firmness,
		...(tooHeavy && { tooHeavy }),
		smell: smellSince(standing, rootsCutOn),
		pests: pests.value && pests.value !== 'none' && pests.on ? { value: pests.value, on: pests.on } : null
	};
}
