import { counted } from '../../text/plural';
import type { Format } from '../../text/format';
import { densityNames, judgeCore } from '../soil/bulk-density';
import { infiltrationRate } from '../soil/infiltration';
import { resistanceProfile } from '../soil/penetrometer';
import { textureByFeel } from '../soil/texture';
import { textureClasses } from '../../vocabulary/textures';
import { waterHeld } from '../soil/water-held';
import type { Tree } from '../../take-in/tree';
import type { Values } from '../../values/values';
import { flareNames, judgeCollar } from './collar';
import { diebackLimit } from './dieback';
import { slideResultNames, squeezeResultNames } from './hand-tests';
import type { RawReading } from './measurement';
import { outflow } from './pouring';
import { rootSample } from './root-sample';
import { weighPot } from './weighing';

/**
 * A reading in one sentence, with the number that decides it, as lists and the finding sheet write it.
 * @param on day of the reading
 */
export function readingWords(
	raw: RawReading,
	on: string,
	tree: Pick<Tree, 'trunkDiameterMm'>,
	values: Values,
	format: Format
): string {
	const percent = format.percent;
	switch (raw.tool) {
		case 'root-sample': {
			const { count, liveShare, low, high } = rootSample(raw, values);
			return `${percent(liveShare)} of ${count} roots alive (${percent(low)} to ${percent(high)})`;
		}
		case 'scratch-tap': {
			const { limitMm, lowMm, highMm } = diebackLimit(raw, values);
			return limitMm >= raw.heightMm
				? 'alive to its top'
				: `alive up to ${format.measure(limitMm, 'mm')} of ${format.measure(raw.heightMm, 'mm')} (${format.measure(lowMm, 'mm')} to ${format.measure(highMm, 'mm')})`;
		}
		case 'weighing': {
			const { dryness, againstNeighbours, days } = weighPot(raw, on, values);
			return [
				dryness === null
					? `${format.measure(raw.nowKg, 'kg')} of ${format.measure(raw.fullKg, 'kg')}`
					: `${percent(dryness)} of the way to dry`,
				`${counted(days, 'day')} after water`,
				...(againstNeighbours === null
					? []
					: [`drinks ${percent(againstNeighbours)} of its neighbours’ share`])
			].join(', ');
		}
		case 'moisture':
			return [
				...(raw.feel === null ? [] : [`feels ${raw.feel}`]),
				...(raw.probeShare === null ? [] : [`a probe reads ${percent(raw.probeShare)} water by volume`])
			].join(', ');
		case 'outflow':
			return `${percent(outflow(raw, values).share)} of ${format.measure(raw.pouredL, 'L')} ran out`;
		case 'drain-time':
			return `water stood ${format.number(raw.minutes, 1)} min`;
		case 'squeeze-test':
			return squeezeResultNames[raw.result];
		case 'slide-test':
			return `${slideResultNames[raw.result]}${raw.wallShare === null ? '' : `, circling roots on ${percent(raw.wallShare)} of the wall`}`;
		case 'collar': {
			const { arcShare } = judgeCollar(raw, tree.trunkDiameterMm, values);
			return [
				`flare ${flareNames[raw.flare]}`,
				...(raw.buriedMm ? [`${format.measure(raw.buriedMm, 'mm')} deep`] : []),
				arcShare === null
					? 'roots across it not looked for'
					: arcShare === 0
						? 'no root across it'
						: `${percent(arcShare)} of the trunk lain across`
			].join(', ');
		}
		case 'texture': {
			const texture = textureClasses[textureByFeel(raw)];
			const { available } = waterHeld(texture.sandPercent, texture.clayPercent, raw.organicPercent);
			return `${texture.label}, holds ${percent(available)} of its volume for roots`;
		}
		case 'penetrometer': {
			const { worst, slowFromMm, stopsFromMm } = resistanceProfile(raw.readings, values);
			const hard = stopsFromMm ?? slowFromMm;
			return hard === null || worst === null
				? `open: at most ${format.measure(worst?.meanMpa ?? 0, 'MPa')}`
				: `hard from ${format.measure(hard, 'mm')}, worst ${format.measure(worst.meanMpa, 'MPa')} at ${format.measure(worst.fromMm, 'mm')}`;
		}
		case 'soil-cores': {
			const worst = raw.cores
				.map((core) => judgeCore(core, raw.texture, values))
				.reduce((a, b) => (b.bulkDensityMgPerM3 > a.bulkDensityMgPerM3 ? b : a));
			return `${format.number(worst.bulkDensityMgPerM3, 2)} Mg/m³ at ${format.measure(worst.fromMm, 'mm')}: ${densityNames[worst.judgement]}`;
		}
		case 'infiltration': {
			const { steadyMmPerH, class: rate } = infiltrationRate(raw, values);
			return `${format.number(steadyMmPerH)} mm/h, ${rate}`;
		}
	}
}
