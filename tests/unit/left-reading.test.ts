import { readdirSync, readFileSync } from 'node:fs';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { tools } from '$core/examine/measuring/measurement';
import { infiltrationData } from '$core/examine/soil/infiltration';
import { leaveReading, leftReading, partLeft } from '$views/examine/tools/left';
import { memory } from '../records';

const store = memory();
vi.stubGlobal('localStorage', store);
afterEach(() => {
	store.kept.clear();
	vi.useRealTimers();
});

describe('a reading that was begun and not kept', () => {
	const raw = { tool: 'infiltration', ringDiameterMm: null, readings: [{ minutes: 0, sunkMm: 0 }] };
	it('is there again at that tree with that tool, as far as it went, and gone once it is forgotten', () => {
		expect(leftReading('a', 'infiltration')).toBeNull();
		leaveReading('a', 'infiltration', raw);
		expect(leftReading('a', 'infiltration')).toEqual(raw);
		expect(leftReading('b', 'infiltration')).toBeNull();
		expect(leftReading('a', 'penetrometer')).toBeNull();
		leaveReading('a', 'infiltration', null);
		expect(leftReading('a', 'infiltration')).toBeNull();
	});
	it('is measured anew after two days, and what cannot be read was left by nobody', () => {
		vi.useFakeTimers();
		leaveReading('a', 'infiltration', raw);
		vi.advanceTimersByTime(2 * 24 * 3600 * 1000 - 1);
		expect(leftReading('a', 'infiltration')).toEqual(raw);
		vi.advanceTimersByTime(1);
		expect(leftReading('a', 'infiltration')).toBeNull();
		for (const text of ['{', '3', '{"at":9e15}', '{"at":9e15,"raw":{"tool":"collar"}}']) {
			store.setItem('bruntle-read.a.infiltration', text);
			expect(leftReading('a', 'infiltration')).toBeNull();
		}
	});
	it('is left only with a tool that goes on from it, so that nobody is told of one that is not there', () => {
		const goesOn = tools.filter((tool) => {
			leaveReading('a', tool, { tool });
			return leftReading('a', tool) !== null;
		});
		const source = (tool: string): string =>
			readFileSync(
				`src/lib/views/examine/tools/${files[tool as keyof typeof files] ?? ''}Tool.svelte`,
				'utf8'
			);
		const files = {
			'scratch-tap': 'ScratchTap',
			collar: 'Collar',
			penetrometer: 'Penetrometer',
			'soil-cores': 'Cores',
			infiltration: 'Infiltration'
		};
		expect(goesOn.toSorted()).toEqual(Object.keys(files).toSorted());
		for (const tool of goesOn) expect(source(tool), tool).toContain('partLeft(');
		expect(store.kept.size).toBe(goesOn.length);
		// Nor does any other tool take up what nobody keeps for it.
		const taking = readdirSync('src/lib/views/examine/tools').filter(
			(name) =>
				/Tool\.svelte$/.test(name) &&
				readFileSync(`src/lib/views/examine/tools/${name}`, 'utf8').includes('partLeft(')
		);
		expect(taking).toHaveLength(goesOn.length);
	});
	it('gives back only parts that are still what they are to be', () => {
		const { ringDiameterMm, readings } = infiltrationData.shape;
		expect(partLeft(raw, 'readings', readings.element.array())).toEqual(raw.readings);
		expect(partLeft(raw, 'ringDiameterMm', ringDiameterMm)).toBeNull();
		expect(partLeft({ ...raw, readings: [{ minutes: 'x' }] }, 'readings', readings)).toBeNull();
		expect(partLeft(null, 'readings', readings)).toBeNull();
	});
});
