import { describe, expect, it } from 'vitest';
import { cautions } from '$core/text/cautions';
import { groups, isTender, kindSchema } from '$core/vocabulary/kind';
import { shippedKinds } from '$core/vocabulary/shipped';
import { componentOf } from '$core/replant/mixes/components';
import { mixCautions, mixes } from '$core/replant/mixes/mixes';
import { signIds, signOf, signApplies } from '$core/vocabulary/signs';
import { conditionIds } from '$core/vocabulary/conditions';
import { strengthOf } from '$core/values/diagnosis';
import { defaultValues } from '$core/values/values';

/** Words that the cautions must hold: everything in the work that can hurt someone. */
const cautionsNeeded = [
	'qualified arborist',
	'licensed',
	'permit',
	'gas, power, water',
	'eyes',
	'mask',
	'legionella',
	'poison',
	'label',
	'compost',
	'permission in writing',
	'protected species',
	'weak evidence'
];

describe('the shipped kinds', () => {
	it('are at least a hundred and twenty genera, each whole and named once, and hold what rescuers meet', () => {
		const genera = new Set(
			shippedKinds.filter((kind) => !kind.id.startsWith('group-')).map((kind) => kind.genus)
		);
		expect(genera.size).toBeGreaterThanOrEqual(120);
		// The list is complete: only demo data and examples keep off some of these.
		for (const genus of 'Acer Quercus Cornus Crataegus Vaccinium Rhododendron Ficus Crassula Kalanchoe Yucca Persea Olea Pachira Ceiba Solanum'.split(
			' '
		))
			expect(genera, genus).toContain(genus);
		expect(new Set(shippedKinds.map((kind) => kind.id)).size).toBe(shippedKinds.length);
		for (const kind of shippedKinds) expect(kindSchema.safeParse(kind).error, kind.id).toBeUndefined();
	});
	it('know every group, also where only the group is known', () => {
		for (const group of groups) {
			expect(shippedKinds.filter((kind) => kind.group === group).length, group).toBeGreaterThanOrEqual(3);
			expect(shippedKinds.some((kind) => kind.id === `group-${group}`)).toBe(true);
		}
	});
	it('where only the group is known are no hardier than the hardiest kind of it, and carry a caution', () => {
		for (const kind of shippedKinds.filter((candidate) => candidate.id.startsWith('group-'))) {
			const coldest = shippedKinds
				.filter((other) => other.group === kind.group && other.id !== kind.id)
				.map((other) => other.coldestC);
			expect(kind.coldestC, kind.id).toBeGreaterThan(Math.min(...coldest));
			expect(kind.caution).toMatch(/Kind not known/);
		}
	});
	it('that are poisonous say so in words', () => {
		for (const kind of shippedKinds)
			if (kind.sap === 'toxic') expect(kind.caution.length, kind.id).toBeGreaterThan(10);
	});
	it('are tender when they must not meet frost', () => {
		for (const kind of shippedKinds)
			if (kind.group === 'tropical' || kind.group === 'succulent') expect(isTender(kind), kind.id).toBe(true);
		expect(shippedKinds.filter((kind) => kind.group === 'conifer').some(isTender)).toBe(false);
	});
	it('water fleshy plants last and wet-footed ones first (common practice, no source)', () => {
		const trigger = (id: string) => shippedKinds.find((kind) => kind.id === id)?.wetnessTrigger ?? NaN;
		expect(trigger('adenium')).toBeGreaterThan(0.9);
		expect(trigger('salix')).toBeLessThan(0.3);
	});
});

describe('signs and conditions', () => {
	it('every sign has a cause, and every condition at least two signs in some situation', () => {
		for (const sign of signIds)
			expect(
				conditionIds.some((id) => strengthOf(defaultValues, sign, id) > 0),
				sign
			).toBe(true);
		for (const id of conditionIds) {
			const telling = signIds.filter(
				(sign) => strengthOf(defaultValues, sign, id) > defaultValues[`diagnosis.leak.${sign}`]
			);
			expect(telling.length, id).toBeGreaterThanOrEqual(
				id === 'low-light' || id === 'salt-ph-nutrient' ? 1 : 2
			);
		}
	});
	it('no cause is weaker than chance: a sign never speaks against what brings it', () => {
		for (const sign of signIds)
			for (const id of conditionIds) {
				const strength = strengthOf(defaultValues, sign, id);
				if (strength > 0)
					expect(strength, `${sign} ${id}`).toBeGreaterThan(defaultValues[`diagnosis.leak.${sign}`]);
			}
	});
	it('each says how to look and how long it takes, and applies somewhere', () => {
		for (const id of signIds) {
			const sign = signOf(id);
			expect(sign.how.length).toBeGreaterThan(15);
			expect(sign.minutes).toBeGreaterThan(0);
			expect(
				(['potted', 'in-ground', 'just-lifted'] as const).some((situation) => signApplies(id, situation))
			).toBe(true);
		}
		expect(signApplies('brackets', 'potted')).toBe(false);
		expect(signApplies('stays-wet', 'in-ground')).toBe(false);
	});
});

describe('cautions', () => {
	it('stand for everything that can hurt someone', () => {
		const all = cautions
			.map((caution) => `${caution.title} ${caution.text}`)
			.join(' ')
			.toLowerCase();
		for (const word of cautionsNeeded) expect(all, word).toContain(word);
	});
	it('come with every mix that raises dust or holds compost', () => {
		for (const mix of Object.values(mixes)) {
			const parts = mix.parts.map((part) => componentOf(part.componentId).name).join(' ');
			if (/pumice|perlite|grit/.test(parts) && !/compost/.test(parts.replace('composted', '')))
				expect(mixCautions(mix.parts), mix.name).toMatch(/dust|mask/i);
			if (/(^| )compost($| )/.test(parts)) expect(mixCautions(mix.parts), mix.name).toMatch(/Legionella/);
		}
	});
});
