import { describe, expect, it } from 'vitest';
import { nearestTown, townOfZone, townsCalled } from '$core/vocabulary/town';
import { towns } from '$lib/server/towns';
import { GET } from '../../src/routes/api/v1/towns/+server';

const ask = async (query: string) => {
	const response = await GET({ url: new URL(`http://localhost/api/v1/towns?${query}`) } as Parameters<
		typeof GET
	>[0]);
	return {
		status: response.status,
		body: (await response.json()) as { towns: { name: string }[]; errors?: object[] }
	};
};

describe('the list of towns', () => {
	it('is read whole: what is a town of the temperate and warm world, with its height', async () => {
		const list = await towns();
		expect(list.length).toBeGreaterThan(20_000);
		for (const { town } of list) expect(Math.abs(town.latitudeDeg)).toBeLessThanOrEqual(66);
		// From memory of any atlas: Denver lies a mile high, Christchurch south of the line.
		expect(townsCalled('Denver', list, 1)[0]?.elevationM).toBeGreaterThan(1500);
		expect(townsCalled('Christchurch', list, 1)[0]).toMatchObject({
			country: 'NZ',
			zone: 'Pacific/Auckland'
		});
		expect(townsCalled('Christchurch', list, 1)[0]?.latitudeDeg).toBeLessThan(-43);
		expect(townOfZone('Europe/Berlin', list)?.name).toBe('Berlin');
		expect(nearestTown({ latitudeDeg: 48.2, longitudeDeg: 16.37 }, list)?.town.name).toBe('Vienna');
	});
	it('answers by name, position and zone, and refuses what is none of them', async () => {
		expect((await ask('name=Vienna')).body.towns[0]).toMatchObject({ name: 'Vienna', country: 'AT' });
		expect((await ask('latitude=48.2&longitude=16.37')).body.towns).toHaveLength(1);
		expect((await ask('zone=Nowhere/At_all')).body.towns).toEqual([]);
		for (const wrong of [
			'',
			'name=',
			'latitude=x&longitude=2',
			'latitude=100&longitude=2',
			'latitude=&longitude=',
			'latitude=52',
			'name=a&zone=b'
		])
			expect((await ask(wrong)).status).toBe(422);
		expect((await ask('name=V')).body.towns.length).toBeLessThanOrEqual(12);
	});
});
