import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { differences, fieldName, fieldsEntered, fieldUnit, flatFields } from '$core/text/fields';
import { createFormat, defaultFormatSettings } from '$core/text/format';
import { fieldSaid } from '$ui/field-said';

const entered = (...sent: [string, string][]): Map<string, string> => fieldsEntered(sent);

describe('what was entered beside what stands there', () => {
	it('takes a hidden part apart, joins what was chosen several times, and leaves out what the page carries', () => {
		const found = entered(
			['version', '3'],
			['id', 'a'],
			['widthMm~shown', '1.5 in'],
			['widthMm', '38.1'],
			['events', 'repotted'],
			['events', 'moved'],
			['plan', '{"pot":{"depthMm":90},"ties":[{"gaugeMm":2}],"mix":["akadama","pumice"]}']
		);
		expect(Object.fromEntries(found)).toEqual({
			widthMm: '38.1',
			events: 'repotted, moved',
			'pot.depthMm': '90',
			'ties.0.gaugeMm': '2',
			mix: 'akadama, pumice'
		});
	});

	it('tells a changed list, a line that only one of the two has, and a part that was emptied', () => {
		const stands = flatFields({
			version: 4,
			mix: ['pumice', 'lava'],
			ties: [{ gaugeMm: 2 }, { gaugeMm: 3 }],
			seat: null,
			note: ''
		});
		const plan = { mix: ['pumice'], ties: [{ gaugeMm: 2.5 }], seat: { heightMm: 12 }, note: '' };
		expect(differences(entered(['plan', JSON.stringify(plan)]), stands)).toEqual([
			{ field: 'mix', here: 'pumice', there: 'pumice, lava' },
			{ field: 'ties.0.gaugeMm', here: '2.5', there: '2' },
			{ field: 'seat.heightMm', here: '12', there: '' },
			{ field: 'ties.1.gaugeMm', here: '', there: '3' }
		]);
	});

	it('takes 60 and 60.0 for one number, and says nothing of what the form did not ask', () => {
		const stands = { heightMm: '60', name: 'Elm', placeId: 'p' };
		expect(differences(entered(['heightMm', '60.0'], ['name', 'Elm '], ['because', 'dry']), stands)).toEqual(
			[]
		);
		expect(differences(entered(['heightMm', '']), { heightMm: '0' })).toHaveLength(1);
	});

	it('finds a record no different from itself, and every change of one of its values', () => {
		const part = fc.record({
			name: fc.string({ minLength: 1 }).filter((text) => text.trim() === text),
			depthMm: fc.integer({ min: 1, max: 900 }),
			layers: fc.array(fc.record({ of: fc.constantFrom('pumice', 'lava'), mm: fc.integer() }), {
				minLength: 1
			})
		});
		fc.assert(
			fc.property(part, fc.nat(), (record, at) => {
				const same = entered(['plan', JSON.stringify(record)]);
				expect(differences(same, flatFields(record))).toEqual([]);
				const i = at % record.layers.length;
				const layers = record.layers.map((layer, j) => (j === i ? { ...layer, mm: layer.mm + 1 } : layer));
				expect(differences(same, flatFields({ ...record, layers })).map(({ field }) => field)).toEqual([
					`layers.${i}.mm`
				]);
			})
		);
	});

	it('names a field in words, with its value in the units of the person', () => {
		expect(fieldName('plan.plantedOn')).toBe('planted on');
		expect(fieldName('layers.1.depthMm')).toBe('layers 2, depth');
		expect(fieldName('placeId')).toBe('place');
		expect(fieldUnit('areaM2')).toBe('m²');
		expect(fieldUnit('fullKg')).toBe('kg');
		expect(fieldUnit('windMs')).toBe('m/s');
		expect(fieldUnit('name')).toBeNull();
		const inches = createFormat({ ...defaultFormatSettings, units: 'imperial' });
		expect(fieldSaid(inches, 'heightMm', '254')).toBe('10 in');
		expect(fieldSaid(inches, 'note', '')).toBe('nothing');
		expect(fieldSaid(inches, 'wired', 'true')).toBe('yes');
		expect(fieldSaid(inches, 'setting', 'in-ground')).toBe('in ground');
		expect(fieldSaid(inches, 'plantedOn', '2026-04-18')).toContain('April');
		expect(fieldSaid(inches, 'placeId', '0f8fad5b-d9cb-469f-a165-70867728950e')).toBe('another one');
		expect(fieldSaid(inches, 'name', 'Beech-by-the-Mill')).toBe('Beech-by-the-Mill');
	});
});
