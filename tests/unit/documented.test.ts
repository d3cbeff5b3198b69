import { readdirSync, readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import ts from 'typescript';

/** Functions that rooms offer each other: what each is for, and in which unit its numbers are. */

interface Offered {
	name: string;
	says: string;
	takes: { name: string; isNumber: boolean }[];
	givesNumber: boolean;
}

const isNumber = (type: ts.TypeNode | undefined): boolean =>
	/^(Promise<)?number( \| null)?>?$/.test(type?.getText() ?? '');

function offeredIn(file: string): Offered[] {
	const source = ts.createSourceFile(file, readFileSync(file, 'utf8'), ts.ScriptTarget.Latest, true);
	const read = (name: string, node: ts.Node, made: ts.SignatureDeclaration): Offered => ({
		name: `${file} ${name}`,
		says: ts
			.getJSDocCommentsAndTags(node)
			.map((doc) => doc.getText())
			.join('\n'),
		takes: made.parameters.map((taken) => ({ name: taken.name.getText(), isNumber: isNumber(taken.type) })),
		givesNumber: isNumber(made.type)
	});
	return source.statements.flatMap((statement) => {
		const offered =
			ts.canHaveModifiers(statement) &&
			ts.getModifiers(statement)?.some(({ kind }) => kind === ts.SyntaxKind.ExportKeyword);
		if (!offered) return [];
		if (ts.isFunctionDeclaration(statement) && statement.name)
			return [read(statement.name.text, statement, statement)];
		if (!ts.isVariableStatement(statement)) return [];
		return statement.declarationList.declarations.flatMap(({ name, initializer }) =>
			initializer && ts.isArrowFunction(initializer) ? [read(name.getText(), statement, initializer)] : []
		);
	});
}

const offered = ['core', 'server'].flatMap((floor) =>
	readdirSync(`src/lib/${floor}`, { recursive: true, encoding: 'utf8' })
		.filter((name) => name.endsWith('.ts'))
		.flatMap((name) => offeredIn(`src/lib/${floor}/${name}`))
);

/** Names that end in a unit, or in what is counted. */
const TELLS_ITS_UNIT =
	/(Mm2?|Cm|Kg|G|L|Ml|C|Deg|M2?|MgPerM3|PerH|Ms|Kpa|Mpa|Percent|Days|Hours|Minutes|Months|Weeks|Years|Mj|Km|H|Px|Bits|Bytes|Ratio|Count|Index|degreeDays7)$|[sS]hare$|[cC]hance$|[gG]rade$|^(count|index|year|days|seconds|minutes|stage|version|seed)$/;
/** What a text says a number is in. */
const SAYS_A_UNIT =
	/@returns|, (mm|kg|L|°C|m\/s|kPa|MJ|km|cm|m²|mm²|mm a day|bits|m)\b|\b(share|chance|factor|angle|azimuth|thickness|depth|width|litres|metres|degrees|hours|days|grade|points)\b|log-odds|kPa|0 …/i;

describe('a function that a room offers', () => {
	it('is seen by this test', () => expect(offered.length).toBeGreaterThan(700));
	it('says what it is for', () => {
		expect(offered.filter(({ says }) => says === '').map(({ name }) => name)).toEqual([]);
	});
	it('says of each number it takes what it is in, by its name or in a line', () => {
		expect(
			offered.flatMap(({ name, says, takes }) => {
				const told = [...says.matchAll(/@param ([\w, ]+)/g)].flatMap(([, names]) =>
					(names ?? '').split(/[, ]+/)
				);
				return takes
					.filter((taken) => taken.isNumber && !TELLS_ITS_UNIT.test(taken.name) && !told.includes(taken.name))
					.map((taken) => `${name}: ${taken.name}`);
			})
		).toEqual([]);
	});
	it('says of a number it gives what it is in', () => {
		expect(
			offered
				.filter(
					({ name, says, givesNumber }) =>
						givesNumber && !TELLS_ITS_UNIT.test(name) && !SAYS_A_UNIT.test(says)
				)
				.map(({ name }) => name)
		).toEqual([]);
	});
});
