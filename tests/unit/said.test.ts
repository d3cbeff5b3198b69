import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { pullWords } from '$core/examine/diagnosis/pull';
import { logistic, logOdds } from '$core/maths/odds';
import { balanceWords } from '$core/roots/plan/ledger';
import { chanceSaid, percent } from '$core/text/percent';
import { counted } from '$core/text/plural';
import { defaultValues as values } from '$core/values/values';

describe('figures in words', () => {
	it('one is one, however it came to be shown as one', () => {
		expect(counted('1', 'day')).toBe('1 day');
		expect(counted(1, 'day')).toBe('1 day');
		expect(counted('0.5', 'day')).toBe('0.5 days');
		expect(counted(0, 'day')).toBe('0 days');
		expect(counted(2, 'person', 'people')).toBe('2 people');
	});
	it('a share is told in whole percent', () => {
		expect([percent(0.314), percent(0.005), percent(0.0049), percent(1)]).toEqual([
			'31 %',
			'1 %',
			'0 %',
			'100 %'
		]);
	});
	it('a chance is never said to be none or sure, and is the share it is in between', () => {
		expect([0, 0.009, 0.01, 0.5, 0.99, 0.991, 1].map((chance) => chanceSaid(chance))).toEqual([
			'under 1 %',
			'under 1 %',
			'1 %',
			'50 %',
			'99 %',
			'over 99 %',
			'over 99 %'
		]);
		expect(chanceSaid(0.5, (share) => `${share * 10} of ten`)).toBe('5 of ten');
	});
	it('evidence speaks slightly, plainly or strongly, from the limits that are set', () => {
		const [strong, slight] = [values['evidence.strongOdds'], values['evidence.slightOdds']];
		expect(pullWords(strong, values)).toBe('speaks strongly for it');
		expect(pullWords(-strong, values)).toBe('speaks strongly against it');
		expect(pullWords(strong - 0.01, values)).toBe('speaks for it');
		expect(pullWords(slight, values)).toBe('speaks for it');
		expect(pullWords(-slight + 0.01, values)).toBe('speaks slightly against it');
	});
	it('roots stand even, a little one-sided, or one-sided, from the limits that are set', () => {
		const [little, much] = [values['balance.little'], values['balance.much']];
		expect(
			[0, little - 0.01, little, much - 0.01, much, 1].map((resultantLength) =>
				balanceWords({ holding: 3, resultantLength }, values)
			)
		).toEqual([
			'Even all round',
			'Even all round',
			'A little one-sided',
			'A little one-sided',
			'One-sided',
			'One-sided'
		]);
		// Where nothing is known to hold it, nothing is even.
		expect(balanceWords({ holding: 0, resultantLength: 0 }, values)).toBeNull();
	});
});

describe('log-odds', () => {
	it('and chances are each other’s inverse, and what is sure stays finite', () => {
		fc.assert(
			fc.property(fc.double({ min: 1e-6, max: 1 - 1e-6, noNaN: true }), (chance) => {
				expect(logistic(logOdds(chance))).toBeCloseTo(chance, 9);
			})
		);
		expect(logOdds(0.75)).toBeCloseTo(Math.log(3), 12);
		expect(Number.isFinite(logOdds(0)) && Number.isFinite(logOdds(1))).toBe(true);
		expect(logOdds(0, 1e-9)).toBeCloseTo(Math.log(1e-9), 6);
	});
});
