import { z } from 'zod';
import { azimuthOf, clockOf, normaliseDeg } from '../../maths/circular';
import { fieldProblems, id, measure, type FieldProblem } from '../../vocabulary/fields';
import { clockText } from '../../text/format';
import { measured } from '../../text/measured';
import { segmentProblem, segmentSchema, startAzimuth, type RootMap, type Segment } from './root-map';

/** Depth of a root where it leaves the trunk, mm: above the flare it is negative. */
const LEAST_DEPTH_MM = -1000;
const MOST_DEPTH_MM = 5000;

const own = segmentSchema.shape;
/** A field of a form: nothing typed is nothing, what reads as a number is one. */
const typedNumber = <T extends z.ZodType>(schema: T) =>
	z.preprocess((raw) => {
		if (typeof raw !== 'string') return raw;
		const text = raw.trim();
		return text === '' ? null : Number.isFinite(Number(text)) ? Number(text) : raw;
	}, schema);

const clockMessage = 'must be a clock position from 1:00 to 12:59';
/** What is typed of a root that is on the map already. Lengths in mm. */
const rootEditInput = z.object({
	clock: z
		.string({ error: clockMessage })
		.trim()
		.regex(/^(0?\d|1[0-2])(:[0-5]\d)?$/, { error: clockMessage }),
	diameterStartMm: typedNumber(own.diameterStartMm),
	depthMm: typedNumber(measure(LEAST_DEPTH_MM, MOST_DEPTH_MM, 'mm')),
	rootClass: own.rootClass,
	condition: own.condition,
	fineScore: typedNumber(own.fineScore),
	deadFromMm: typedNumber(own.deadFromMm),
	doubtfulFromMm: typedNumber(own.doubtfulFromMm),
	seenToMm: typedNumber(own.seenToMm),
	parentId: z.preprocess((raw) => (raw === '' || raw === undefined ? null : raw), id().nullable()),
	attachMm: typedNumber(own.attachMm.nullable()),
	flaws: own.flaws,
	seenOtherwise: own.seenOtherwise,
	note: own.note
});
export type RootTyped = Record<string, unknown>;

/** Depth at which a root leaves the trunk or its parent, mm. */
export const startDepthMm = (segment: Pick<Segment, 'course'>): number => segment.course[0]?.depthMm ?? 0;

/** A turn by which a whole course stays on the dial it is kept on, −180 to 540°; its points never part at the top. */
function turnOnDial(course: Segment['course'], turn: number): number {
	const stays = (by: number): boolean =>
		course.every(({ azimuthDeg }) => azimuthDeg + by >= -180 && azimuthDeg + by <= 540);
	return [turn, turn - 360, turn + 360].find(stays) ?? turn;
}

/** Place of a root as it stands in the form. */
export const clockTyped = (segment: Pick<Segment, 'course'>, frame: RootMap['frame']): string =>
	clockText(clockOf(startAzimuth(segment), frame));

/**
 * A root of the map as somebody typed it anew, through the one schema of a root. Its course turns and sinks with its start; a thinner root
 * is thinner all along; what was guessed of it and typed otherwise is no guess any more.
 * @param typed fields of the form, lengths in mm; left out is nothing
 * @returns the root, or what must be otherwise, by field
 */
export function rootEdited(
	segment: Segment,
	map: Pick<RootMap, 'segments' | 'frame' | 'trunkDiameterMm'>,
	typed: RootTyped
): { ok: true; segment: Segment } | { ok: false; problems: FieldProblem[] } {
	const read = rootEditInput.safeParse({
		deadFromMm: null,
		doubtfulFromMm: null,
		seenToMm: null,
		attachMm: null,
		flaws: [],
		seenOtherwise: [],
		...typed
	});
	if (!read.success) return { ok: false, problems: fieldProblems(read.error) };
	const { clock, depthMm, ...fields } = read.data;
	const problems: FieldProblem[] = [];
	if (fields.parentId !== null && fields.attachMm === null)
		problems.push({ field: 'attachMm', message: 'must say how far along its parent the root leaves' });
	if (fields.parentId === null && fields.diameterStartMm > map.trunkDiameterMm)
		problems.push({
			field: 'diameterStartMm',
			message: `must not be thicker than the trunk (${measured(map.trunkDiameterMm, 'mm')})`
		});
	if (problems.length > 0) return { ok: false, problems };

	// Typed as it stood, it has not moved, however finely it was drawn.
	const moved = clock !== clockTyped(segment, map.frame);
	const [hour = 0, minute = 0] = clock.split(':').map(Number);
	const turn = moved
		? turnOnDial(
				segment.course,
				azimuthOf(hour + minute / 60, map.frame) - normaliseDeg(startAzimuth(segment))
			)
		: 0;
	const sink = depthMm - startDepthMm(segment);
	const scale = fields.diameterStartMm / segment.diameterStartMm;
	const { success, data, error } = segmentSchema.safeParse({
		...segment,
		...fields,
		attachMm: fields.parentId === null ? 0 : fields.attachMm,
		deadFromMm: fields.condition === 'dead' ? (fields.deadFromMm ?? 0) : null,
		doubtfulFromMm: fields.condition === 'sound' ? null : fields.doubtfulFromMm,
		diameterEndMm: Math.max(0.1, segment.diameterEndMm * scale),
		guessed: segment.guessed.filter(
			(one) =>
				!(one === 'class' && fields.rootClass !== segment.rootClass) &&
				!(one === 'depth' && Math.abs(sink) > 0.5)
		),
		course: segment.course.map((point) => ({
			...point,
			azimuthDeg: point.azimuthDeg + turn,
			depthMm: point.depthMm + sink
		}))
	});
	if (!success) return { ok: false, problems: fieldProblems(error) };
	const ring = segmentProblem(map.segments.map((one) => (one.id === segment.id ? data : one)));
	return ring
		? { ok: false, problems: [{ field: ring.field, message: ring.message }] }
		: { ok: true, segment: data };
}
