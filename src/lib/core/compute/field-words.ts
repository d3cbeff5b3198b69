/*
 * What the numbers of the calculations mean, by the name of their field: a unit for its ending, and a meaning for the rest. A
 * schema that says it better on the spot wins.
 */

/** Unit by the ending of a name, longest first. */
const units: readonly (readonly [ending: string, unit: string])[] = [
	['MgPerM3', 'Mg/m³'],
	['MmPerRootH', 'mm/√h'],
	['MmPerH', 'mm/h'],
	['PerM2', 'per m²'],
	['Percent', '%'],
	['Share', 'share, 0 to 1'],
	['Mpa', 'MPa'],
	['Kpa', 'kPa'],
	['Cost', 'money of the owner'],
	['Count', 'count'],
	['Months', 'months'],
	['Days', 'days'],
	['Factor', 'factor'],
	['Mm2', 'mm²'],
	['M2', 'm²'],
	['KgL', 'kg/L'],
	['PerL', 'money of the owner a litre'],
	['Mj', 'MJ/m² a day'],
	['Wm', 'W/m²'],
	['Deg', 'degrees'],
	['Min', 'minutes'],
	['Ms', 'm/s'],
	['Px', 'px'],
	['Mm', 'mm'],
	['Cm', 'cm'],
	['Ml', 'ml'],
	['Kg', 'kg'],
	['L', 'L'],
	['M', 'm'],
	['C', '°C'],
	['G', 'g'],
	['S', 's']
];

/** Names whose ending is no unit, or that have none, with the unit said in the meaning. */
const meanings: Readonly<Record<string, string>> = {
	absorbing: 'share of the absorbing roots, 0 to 1',
	after: 'value after the change, as its neighbour before',
	air: 'air in the soil, share of its volume',
	airFrom: 'least air wanted, share of the volume',
	airSpace: 'air-filled porosity, share of the volume',
	airTo: 'most air wanted, share of the volume',
	alive: 'how many were alive, count',
	allowances: 'living share that a stage may remove, 0 to 1',
	allowed: 'living share that may go, 0 to 1',
	asymptote: 'size that the curve comes to, in the unit of the sizes',
	atRisk: 'cases still followed then, count',
	available: 'water a plant can draw, share of the volume',
	backups: 'cuttings or divisions to take first, count',
	base: 'allowance before its factors, share',
	below: 'share under what is wanted, 0 to 1',
	sunWm2: 'radiation of the sun, W/m²',
	totalLoss: 'living root that goes in all, share, 0 to 1',
	before: 'value before the change, as its neighbour after',
	begin: 'root function on the day of the work, 1 before the damage',
	beginPhi: 'root function at the beginning, 1 before the damage',
	beginSpread: 'how unsure root function is at the beginning, one deviation',
	by: 'how much it moved, log-odds',
	came: 'share for which it came, 0 to 1',
	chance: 'chance, 0 to 1',
	change: 'change of the chance, log-odds',
	containerCapacity: 'water held after draining, share of the volume',
	count: 'how many, count',
	crownExcess: 'crown beyond what the roots can feed, share',
	crownRatio: 'crown left against the roots left, ratio',
	day: 'day of the year or of the run, count of days',
	daylightHours: 'length of the day, hours',
	days: 'days between the two dates',
	dead: 'how many were dead, count',
	deg: 'angle, degrees',
	demandAfter: 'demand of the crown after, share of a whole one',
	demandBefore: 'demand of the crown before, share of a whole one',
	disturbanceNow: 'chance to live lost by disturbing it now, 0 to 1',
	disturbanceThen: 'chance to live lost by disturbing it then, 0 to 1',
	dryness: 'dryness, 0 just watered to 1 as dry as it may get',
	easilyAvailable: 'water that is drawn easily, share of the volume',
	effect: 'what it does to the chance, points of chance',
	effective: 'standings that carry the weight, count',
	excess: 'what is too much, share',
	expected: 'expected value, same unit as what is seen',
	extraHoles: 'further drain holes to make, count',
	fieldCapacity: 'water held at field capacity, share of the volume',
	figure: 'the reading, in the unit of its tool',
	flare: 'factor for the flare',
	flareGrade: 'grade of what the flare shows, 0 sound upward',
	from: 'lower edge of the class',
	fullness: 'how full the ball is of roots, share',
	gaps: 'days that nobody measured, count',
	girdlerGrade: 'grade of the girdler, 0 none to 3 over half of the trunk',
	grade: 'grade of the sign, 0 not there upward',
	happened: 'how many it happened to, count',
	have: 'amount at hand, in the unit of the line',
	height: 'factor for the height of the hands',
	high: 'upper edge of the range, same unit as the value',
	hold: 'factor for the hold of the hands',
	holdTo: 'dryness to hold it at, 0 to 1',
	holes: 'drain holes or holes in the ground, count',
	hours: 'hours',
	known: 'how many whose fate is known, count',
	leafCover: 'share of the crown in leaf, 0 to 1',
	least: 'least of them, same unit',
	limit: 'limit, same unit as the value',
	line: 'line of the file, counted from 1',
	litres: 'water to pour, L',
	livingLoss: 'living root that goes, share, 0 to 1',
	looked: 'how many were looked at, count',
	loss: 'living root lost, share, 0 to 1',
	losses: 'living root lost at each cut, share, 0 to 1',
	low: 'lower edge of the range, same unit as the value',
	middle: 'middle of the range, root function, 1 before the damage',
	midpoint: 'time of half the size, in the unit of the times',
	minutes: 'time it takes, minutes',
	miss: 'how far it misses what is wanted, share',
	mm: 'length, mm',
	more: 'how much more, same unit',
	most: 'most of them, same unit',
	need: 'amount that is needed, in the unit of the line',
	now: 'chance now, 0 to 1',
	open: 'how many are open, count',
	openAlarms: 'urgent tasks overdue, count',
	unanswered: 'urgent tasks whose days are over, of which nobody said whether they were done, count',
	outflow: 'share of the water that runs through, 0 to 1',
	packSize: 'size of a pack, in the unit of the line',
	packs: 'packs to buy, count',
	parts: 'parts by volume',
	people: 'people it takes, count',
	ph: 'acidity, pH',
	phAim: 'acidity wanted, pH',
	phNow: 'acidity found, pH',
	phi: 'root function, 1 before the damage',
	points: 'points of the judgement',
	porosity: 'pores in all, share of the volume',
	positions: 'places in which it was tried, count',
	holding: 'roots that hold it, count',
	price: 'price, money of the owner',
	prior: 'chance before anything was seen, 0 to 1',
	probability: 'chance, 0 to 1',
	probabilityBefore: 'chance as it was said before, 0 to 1',
	progress: 'share of the growing season that is over, 0 outside it',
	rate: 'share that comes through, 0 to 1',
	rotChance: 'chance of root or stem rot, 0 to 1; null where nobody looked',
	rayleighR: 'resultant of Rayleigh’s test, effective number of directions',
	rayleighZ: 'statistic of Rayleigh’s test, no unit',
	reach: 'factor for the reach of the hands',
	readings: 'readings that went in, count',
	resultantLength: 'resultant length, 0 even to 1 all on one side',
	rootFunction: 'root function, 1 before the damage',
	rootsKept: 'living roots that come along, share, 0 to 1',
	outMinutes: 'time out of the ground, minutes',
	lifted: 'whether it came out of the ground by this work',
	times: 'factor on the usual odds, ×',
	rows: 'rows read, count',
	said: 'chance that was said, 0 to 1',
	saturation: 'water held when saturated, share of the volume',
	scale: 'spread of the curve, in the unit of the times',
	sd: 'error, one deviation, same unit as the value',
	seasons: 'growing seasons, with fractions',
	sectors: 'weight in each sector of 45 degrees, share',
	seed: 'seed of the simulation, whole number',
	share: 'share, 0 to 1',
	short: 'amount that is missing, in the unit of the line',
	size: 'size, in the unit of the points',
	spread: 'how unsure it is, one deviation',
	stage: 'stage, counted from 0',
	stages: 'stages, count',
	stagesLeft: 'root stages still planned, count',
	staysWetGrade: 'grade of staying wet, 0 as the others to 2 hardly dries',
	steps: 'steps, count',
	stones: 'steadying stones, count',
	stress: 'water stress, 1 none to 0 all',
	struck: 'how many struck, count',
	successes: 'how many of them hold, count',
	suckers: 'suckers, count',
	supply: 'what the roots supply, share of the demand',
	supplyAfter: 'supply of the roots after, share of a whole crown’s demand',
	supplyBefore: 'supply of the roots before, share of a whole crown’s demand',
	time: 'time, in one unit throughout',
	to: 'upper edge of the class',
	travel: 'factor for how far it is lifted',
	trenches: 'trenches, count',
	trials: 'how many were tried, count',
	trigger: 'dryness at which its kind is watered, 0 to 1',
	twist: 'factor for the twist of the body',
	unrooted: 'mix without roots, share',
	value: 'value, in the unit of its name',
	version: 'how often the record was written, count',
	water: 'water in the soil, share of the volume',
	waterFrom: 'least water wanted, share of the volume',
	waterTo: 'most water wanted, share of the volume',
	weight: 'weight of the direction, 0 or more',
	wetnessTrigger: 'dryness at which its kind is watered, 0 wet to 1 dry',
	wilting: 'water held at the wilting point, share of the volume',
	wire: 'wires, count',
	yield: 'volume of the mix against the sum of its parts, ratio',
	z: 'quantile of the normal distribution, no unit',
	odds: 'log-odds, ln(p / (1 − p))',
	worth: 'points',
	gap: 'share by which a better plan may exist, 0 proven best',
	kg: 'amount, kg',
	conflict: 'times rarer together than apart, ratio',
	pull: 'log-odds'
};

/** Words of a name: `ballDiameterMm` is "ball diameter". */
const spoken = (name: string): string =>
	name
		.replace(/([a-z])([A-Z0-9])/g, '$1 $2')
		.toLowerCase()
		.trim();

/**
 * What a number means and in which unit, by the name of its field.
 * @returns null for a name that says neither
 * @example wordsFor('ballDiameterMm') is 'ball diameter, mm'
 */
export function wordsFor(name: string): string | null {
	const known = meanings[name];
	if (known) return known;
	for (const [ending, unit] of units) {
		if (!name.endsWith(ending)) continue;
		const rest = name.slice(0, -ending.length);
		// What is left must still be a word, and the ending begin one.
		if (rest.length > 1 && /[a-z0-9]$/.test(rest)) return `${spoken(rest)}, ${unit}`;
	}
	return null;
}

/** Adds meaning and unit to every number of a JSON Schema that has none of its own; in place. */
export function describeNumbers(schema: unknown, name = ''): void {
	if (Array.isArray(schema)) {
		for (const part of schema) describeNumbers(part, name);
		return;
	}
	if (typeof schema !== 'object' || schema === null) return;
	const node = schema as Record<string, unknown>;
	if ((node.type === 'number' || node.type === 'integer') && node.description === undefined) {
		const words = wordsFor(name);
		if (words) node.description = words;
	}
	for (const key of ['properties', '$defs'] as const) {
		const parts = node[key];
		if (typeof parts === 'object' && parts !== null)
			for (const [own, part] of Object.entries(parts))
				describeNumbers(part, key === 'properties' ? own : name);
	}
	for (const key of ['items', 'prefixItems', 'anyOf', 'oneOf', 'allOf', 'additionalProperties'] as const)
		describeNumbers(node[key], name);
}
