import { wordsOf } from '../vocabulary/words-of';
import { z } from 'zod';
import { seasonFits } from '../climate/windows';
import { calendarDate, id, note, oneOf, share, toldText, version } from '../vocabulary/fields';

/** A probability as the app said it on a day, kept so that it can be judged later. Written by the app, never edited. */
export const saidForecastSchema = z.strictObject({
	id: id(),
	saidOn: calendarDate(),
	/** At the work, before anything was seen of it, or after a look. */
	occasion: oneOf(['work', 'look']),
	probability: share(),
	horizonOn: calendarDate(),
	/** Of a work: what it took and how it stood to its season, as outcomes are counted by. */
	context: z
		.strictObject({ livingLoss: share(), seasonFit: oneOf(seasonFits) })
		.nullable()
		.default(null),
	version: version()
});
export type SaidForecast = z.infer<typeof saidForecastSchema>;

/** What is due at a point of the recovery. */
export const decisionNames = {
	'carry-on': 'Carry on',
	'act-now': 'Act now',
	'wait-window': 'Wait for its window',
	'look-closer': 'Look closer',
	retie: 'Hold it firm',
	'try-firm': 'Try it again',
	'water-path': 'It wilts dry: the way of water',
	'rot-path': 'It wilts wet: the way of rot',
	're-cut': 'Cut the dieback back',
	'next-stage': 'Open the next root stage',
	'let-grow': 'Let it grow untouched',
	'call-dead': 'Call it dead'
};
export type DecisionKind = keyof typeof decisionNames;
export const decisionKinds = wordsOf(decisionNames);

/** What a person decided, against what was advised. */
export const decisionInput = z
	.strictObject({
		decidedOn: calendarDate(),
		advised: oneOf(decisionKinds),
		decided: oneOf(decisionKinds),
		note: note(600)
	})
	.refine((decision) => decision.decided === decision.advised || decision.note !== '', {
		path: ['note'],
		error: 'must say why, since it was advised otherwise'
	});
export type DecisionInput = z.infer<typeof decisionInput>;
export const decisionSchema = decisionInput.safeExtend({
	id: id(),
	/** The evidence as it stood. */
	because: toldText(1000),
	probability: share().nullable(),
	version: version()
});
export type Decision = z.infer<typeof decisionSchema>;
