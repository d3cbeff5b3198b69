import { readFileSync, readdirSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { azimuthOf, clockOf } from '$core/maths/circular';
import { createFormat, defaultFormatSettings } from '$core/text/format';
import { pageFormat } from '$core/text/bound';
import { measured, measuredWhole } from '$core/text/measured';
import { midSentence } from '$core/text/mid-sentence';
import { lossCauseNames } from '$core/take-in/tree';
import { valueKeys, resolveValues, workingValue, defaultValues } from '$core/values/values';

const metric = createFormat({ units: 'metric', locale: 'en-GB' });
const imperial = createFormat({ units: 'imperial', locale: 'en-US' });

describe('the formatter', () => {
	it('shows dates, numbers and units by the settings', () => {
		expect(metric.date('2026-04-18')).toBe('18 April 2026');
		expect(imperial.date('2026-04-18')).toBe('April 18, 2026');
		expect(metric.day('2026-04-18', '2026-12-01')).toBe('18 Apr');
		expect(metric.day('2025-04-18', '2026-12-01')).toBe('18 Apr 2025');
		expect(metric.span('2026-04-18', '2026-05-02')).toBe('18 Apr – 2 May 2026');
		expect(createFormat({ units: 'metric', locale: 'de-DE' }).measure(1234.5, 'L')).toBe('1.234,5 L');
		expect(metric.instant('2026-04-18T19:05:00.000Z')).toContain('19:05');
		expect(metric.number(NaN)).toBe('not known');
		expect(metric.number(-0.2)).toBe('0');
	});
	it('says what was typed in inches as it was typed, and no page rounds it to millimetres first', () => {
		const { toStored } = imperial.unitOf('mm');
		for (let hundredths = 1; hundredths < 6000; hundredths += 7)
			expect(imperial.measure(toStored(hundredths / 100), 'mm')).toBe(
				`${imperial.number(hundredths / 100, 2)} in`
			);
		const rounds = readdirSync('src/lib', { recursive: true, encoding: 'utf8' }).filter(
			(file) =>
				/\.(svelte|ts)$/.test(file) &&
				/measured?\(\s*Math\.round\([^;{}]*\),\s*'mm'/.test(readFileSync(`src/lib/${file}`, 'utf8'))
		);
		expect(rounds).toEqual([]);
	});
	it('tells a length that is only reckoned no finer than a tape, and lets no page round a warmth before it is converted', () => {
		expect(imperial.about(609.2)).toBe('24 in');
		expect(imperial.about(366.8)).toBe('14.4 in');
		expect(imperial.about(-300)).toBe('-11.8 in');
		expect(imperial.about(252)).toBe('9.92 in');
		expect(metric.about(609.2)).toBe('609 mm');
		// 0.4 °C is 33 °F; rounded first it was 32 °F beside 33 °F.
		expect(imperial.inWords(`about ${measuredWhole(0.4, '°C')}`)).toBe('about 33 °F');
		expect(metric.inWords(`about ${measuredWhole(0.4, '°C')}`)).toBe('about 0 °C');
		const rounds = readdirSync('src/lib', { recursive: true, encoding: 'utf8' }).filter(
			(file) =>
				/\.(svelte|ts)$/.test(file) &&
				/measured?\(\s*Math\.round\([^;{}]*\),\s*'°C'/.test(readFileSync(`src/lib/${file}`, 'utf8'))
		);
		expect(rounds).toEqual([]);
	});
	it('converts both ways without loss (25.4 mm, 3.785411784 L, 0.45359237 kg, 0.3048 m are exact by definition)', () => {
		expect(imperial.measure(25.4, 'mm')).toBe('1 in');
		expect(imperial.measure(3.785411784, 'L')).toBe('1 US gal');
		expect(imperial.measure(-40, '°C')).toBe('-40 °F');
		for (const unit of ['mm', 'm', 'L', 'kg', '°C', 'm²'] as const) {
			const face = imperial.unitOf(unit);
			expect(face.toStored(face.toShown(7.25))).toBeCloseTo(7.25, 12);
		}
	});
	it('speaks clock positions', () => {
		expect(metric.clock(6.5)).toBe('6:30');
		expect(metric.clock(12)).toBe('12:00');
		expect(metric.clock(11.9999)).toBe('12:00');
		expect(clockOf(90, 'container')).toBe(9);
		expect(clockOf(90, 'ground')).toBe(3);
		for (let deg = 0; deg < 360; deg += 15)
			for (const frame of ['container', 'ground'] as const)
				expect(azimuthOf(clockOf(deg, frame), frame)).toBeCloseTo(deg, 9);
	});
	it('falls back on an impossible locale', () => {
		expect(createFormat({ units: 'metric', locale: '!' }).date('2026-04-18')).toBe('18 April 2026');
	});
});

describe('working values', () => {
	it('lie within their own bounds, carry a mark, and name a source where published', () => {
		for (const key of valueKeys) {
			const value = workingValue(key);
			expect(value.value, key).toBeGreaterThanOrEqual(value.min);
			expect(value.value, key).toBeLessThanOrEqual(value.max);
			expect(value.label.length, key).toBeGreaterThan(3);
			if (value.mark === 'published') expect(value.source, key).toBeTruthy();
		}
	});
	it('give way to the owner’s own, but never to one out of bounds', () => {
		const own = resolveValues({ 'crown.reserve': 1.3, 'anchorage.wantedShare': 7, nonsense: 1 });
		expect(own['crown.reserve']).toBe(1.3);
		expect(own['anchorage.wantedShare']).toBe(defaultValues['anchorage.wantedShare']);
	});
});

describe('a sentence of the core', () => {
	it('has its dates in words, with the year where it is not this one; what only looks like one stays', () => {
		const { inWords } = createFormat(defaultFormatSettings);
		expect(inWords('closed on 2024-11-02: dead')).toBe('closed on 2 Nov 2024: dead');
		expect(inWords('from 2026-03-01 to 2025-12-24', '2026-04-18')).toBe('from 1 Mar to 24 Dec 2025');
		expect(inWords('2024-13-02, 12024-01-02 and 2.5-3')).toBe('2024-13-02, 12024-01-02 and 2.5-3');
	});
});

describe('a label inside a sentence', () => {
	it('begins small and keeps the capitals that belong to its words', () => {
		expect(midSentence('Salt, pH or nutrient trouble')).toBe('salt, pH or nutrient trouble');
		expect(midSentence('Root rot')).toBe('root rot');
		expect(midSentence('pH far off')).toBe('pH far off');
		expect(midSentence('EC above 2')).toBe('EC above 2');
		expect(lossCauseNames['salt-ph-nutrient']).toContain('pH');
	});
});

describe('on a page', () => {
	const metric = pageFormat({ units: 'metric', locale: 'en-GB' });
	const us = pageFormat({ units: 'imperial', locale: 'en-US' });
	it('a number and its unit stay on one line, in figures and in sentences; words after a number may break', () => {
		expect(metric.percent(0.85)).toBe('85\u00a0%');
		expect(metric.measure(317, 'mm')).toBe('317\u00a0mm');
		expect(us.measure(3.785411784, 'L')).toBe('1\u00a0US gal');
		expect(metric.inWords(`Cover 82 %, wanted 85 %; set it ${measured(300, 'mm')} deep.`)).toBe(
			'Cover 82\u00a0%, wanted 85\u00a0%; set it 300\u00a0mm deep.'
		);
		expect(metric.withMeasures('3 roots, 2 mixes, 5 minutes, 4 lime trees')).toBe(
			'3 roots, 2 mixes, 5 minutes, 4 lime trees'
		);
	});
	it('says nothing else than the formatter of the core', () => {
		for (const unit of ['mm', 'm', 'L', 'kg', '°C', 'm²', 'm/s', 'MPa'] as const)
			for (const page of [metric, us])
				expect(page.measure(12.5, unit)).toBe(
					createFormat(page.settings).measure(12.5, unit).replace(' ', '\u00a0')
				);
	});
});
