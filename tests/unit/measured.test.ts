import { createFormat, defaultFormatSettings, plain, type StoredUnit } from '$core/text/format';
import { measured, measuredPair, measuredWhole, spokenUnits } from '$core/text/measured';
import fc from 'fast-check';
import { readdirSync, readFileSync } from 'node:fs';
import ts from 'typescript';
import { describe, expect, it } from 'vitest';

const metric = createFormat(defaultFormatSettings);
const imperial = createFormat({ units: 'imperial', locale: 'en-GB' });
const german = createFormat({ units: 'metric', locale: 'de-DE' });

describe('a measure inside a sentence', () => {
	it.each([
		[
			`down from ${measuredPair(254, ' to ', 127, 'mm')} since.`,
			'down from 254 to 127 mm since.',
			'down from 10 to 5 in since.'
		],
		[
			`limit ${measured(-5, '°C')}; about ${measured(0, '°C')}`,
			'limit -5 °C; about 0 °C',
			'limit 23 °F; about 32 °F'
		],
		[
			`Pour ${measured(3.785, 'L')}, or ${measured(500, 'ml')}`,
			'Pour 3.8 L, or 500 ml',
			'Pour 1 US gal, or 0.13 US gal'
		],
		[
			`It is ${measured(3.048, 'm')} long, ${measured(45.36, 'kg')}`,
			'It is 3.05 m long, 45.36 kg',
			'It is 10 ft long, 100 lb'
		],
		[
			`About ${measuredWhole(119.8, 'kg')}, the vehicle carries ${measured(119.8, 'kg')}`,
			'About 120 kg, the vehicle carries 119.8 kg',
			'About 264 lb, the vehicle carries 264.1 lb'
		],
		[
			`a hole ${measured(30, 'cm')} deep within ${measured(9.29, 'm²')}`,
			'a hole 30 cm deep within 9 m²',
			'a hole 11.81 in deep within 100 ft²'
		],
		[`wind of ${measuredPair(1, '–', 3, 'm/s')}`, 'wind of 1–3 m/s', 'wind of 2–7 mph']
	])('%s', (said, inSi, inFeet) => {
		expect(metric.inWords(said)).toBe(inSi);
		expect(plain(said)).toBe(inSi);
		expect(imperial.inWords(said)).toBe(inFeet);
	});
	it('is the same that a table of the page says of it, in every unit system and language', () => {
		const units: readonly StoredUnit[] = ['mm', 'm', 'kg', 'm²'];
		fc.assert(
			fc.property(
				fc.double({ min: -5000, max: 5000, noNaN: true }).map((value) => Number(value.toFixed(4))),
				fc.constantFrom(...units),
				fc.constantFrom(metric, imperial, german),
				(value, unit, format) => {
					expect(format.inWords(measured(value, unit as (typeof spokenUnits)[number]))).toBe(
						format.measure(value, unit)
					);
					// Whole degrees and metres a second too; their tenths are said below.
					for (const whole of ['°C', 'm/s'] as const)
						expect(format.inWords(measured(Math.round(value), whole))).toBe(
							format.measure(Math.round(value), whole)
						);
				}
			)
		);
	});
	it.each([
		[measured(-7.4, '°C'), '-7.4 °C', '18.7 °F'],
		[measured(-7, '°C'), '-7 °C', '19 °F'],
		[measured(9.6, 'm/s'), '9.6 m/s', '21.5 mph'],
		// 300 psi, at which most roots stop: common practice, no source.
		[measured(2.07, 'MPa'), '2.1 MPa', '300 psi'],
		[measured(37.5, '°C'), '37.5 °C', '99.5 °F'],
		[measured(0.25, 'L'), '0.25 L', '0.07 US gal'],
		[measured(0.05, 'L'), '0.05 L', '0.01 US gal'],
		[measured(12.34, 'L'), '12.3 L', '3.26 US gal']
	])('%s keeps the tenths that tell', (said, inSi, inFeet) => {
		expect(metric.inWords(said)).toBe(inSi);
		expect(imperial.inWords(said)).toBe(inFeet);
	});
	it('half an inch that was typed is half an inch in the sentence', () => {
		expect(imperial.inWords(`It is ${measured(12.7, 'mm')} thick`)).toBe('It is 0.5 in thick');
	});
	it('of a person’s own words, and what only looks like one, is left as written', () => {
		for (const text of ['planted 2 m from the wall', 'for 5 min, 2 mm/h, A12 mm, pumice 3–6 mm', ''])
			expect(imperial.inWords(text)).toBe(text);
	});
	it('stands in no text of the code as bare figures', () => {
		const unit = '(mm|cm|m/s|m²|m|ml|L|litres?|kg|°C)(?![\\w²³/]| where)';
		const bare = new RegExp(`(?<![\\w.,–-])\\d+(\\.\\d+)? ${unit}`);
		const follows = new RegExp(`^ ${unit}`);
		const found: string[] = [];
		const look = (name: string, node: ts.Node): void => {
			// What a schema tells other programs is in the unit of its field.
			if (ts.isCallExpression(node) && /\.describe$/.test(node.expression.getText())) node = node.expression;
			if (ts.isStringLiteralLike(node)) {
				if (bare.test(node.text)) found.push(`${name}: ${node.text}`);
			} else if (ts.isTemplateExpression(node)) {
				const parts = [node.head.text, ...node.templateSpans.map((span) => span.literal.text)];
				if (parts.some((part, at) => bare.test(part) || (at > 0 && follows.test(part))))
					found.push(`${name}: ${node.getText()}`);
			}
			ts.forEachChild(node, (child) => look(name, child));
		};
		const files = readdirSync('src/lib', { recursive: true, encoding: 'utf8' }).filter((file) =>
			file.endsWith('.ts')
		);
		expect(files.length).toBeGreaterThan(250);
		for (const file of files)
			look(
				file,
				ts.createSourceFile(file, readFileSync(`src/lib/${file}`, 'utf8'), ts.ScriptTarget.Latest, true)
			);
		expect(found).toEqual([]);
	});
	it('reaches a page only as the person reads it', () => {
		const said =
			/(?:^|[>\s:,;])\{([\w.?]+\.(?:reason|because|why|sentence|problem|until|what)(?: \|\| '[^']*')?)\}/gm;
		/** What a person wrote themselves stands as written. */
		const written = ['session.because'];
		const files = ['src/lib', 'src/routes'].flatMap((folder) =>
			readdirSync(folder, { recursive: true, encoding: 'utf8' })
				.filter((file) => file.endsWith('.svelte'))
				.map((file) => `${folder}/${file}`)
		);
		expect(files.length).toBeGreaterThan(100);
		const bare = files.flatMap((file) =>
			[
				...readFileSync(file, 'utf8')
					.replace(/<script[\s\S]*?<\/script>/g, '')
					.matchAll(said)
			]
				.map(([, one]) => one ?? '')
				.filter((one) => !written.includes(one))
				.map((one) => `${file}: ${one}`)
		);
		expect(bare).toEqual([]);
	});
});
