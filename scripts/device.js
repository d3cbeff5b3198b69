// A simulated device: posts readings to a running Bruntle like a real one would.
// node scripts/device.js scale|soil-probe|air ADDRESS TOKEN [seconds between readings] [instant its own clock begins at]
const [kind = '', address = '', token = '', every = '10', begins = ''] = process.argv.slice(2);
const seconds = Number(every);
const ownClock = begins === '' ? null : Date.parse(begins);
if (
	!['scale', 'soil-probe', 'air'].includes(kind) ||
	!/^https?:\/\//.test(address) ||
	token === '' ||
	!(seconds >= 1) ||
	Number.isNaN(ownClock)
) {
	console.error(
		'Give a kind (scale, soil-probe or air), the address of Bruntle, the token of the device, seconds between readings, and the instant its clock begins at if that is not now.'
	);
	process.exit(1);
}
const STEP_MS = 10 * 60_000;
const begun = ownClock ?? Date.now();
let clock = begun;
let battery = 0.68;
/** @type {Record<string, number>} Where its readings go on from. */
const last = {};

const reading = () => {
	const hours = (clock - begun) / 3_600_000;
	const at = new Date(clock);
	const wave = Math.cos(((at.getUTCHours() + at.getUTCMinutes() / 60 - 14) / 24) * 2 * Math.PI);
	const jitter = () => (Math.random() - 0.5) * 0.02;
	battery = Math.max(0.05, battery - 0.0001);
	return {
		at: at.toISOString(),
		...(kind === 'scale' && {
			weightKg: Math.round(((last.weightKg ?? 16) - hours * 0.02 + jitter()) * 1000) / 1000
		}),
		...(kind === 'soil-probe' && {
			moisture: Math.max(
				0.05,
				Math.round(((last.moisture ?? 0.4) - hours * 0.003 + jitter() / 4) * 1000) / 1000
			)
		}),
		...(kind !== 'scale' && { temperatureC: Math.round((9 + 6 * wave + jitter() * 10) * 10) / 10 }),
		...(kind === 'air' && { humidityPercent: Math.round(68 - 15 * wave) }),
		battery: Math.round(battery * 1000) / 1000
	};
};

/** A device that remembers its last reading goes on from there. */
const remember = async () => {
	try {
		const response = await fetch(new URL('/api/v1/readings', address), {
			headers: { authorization: `Bearer ${token}` }
		});
		if (response.ok) Object.assign(last, (await response.json()).last ?? {});
	} catch {
		// It begins afresh.
	}
};

const post = async () => {
	if (ownClock === null) clock = Date.now();
	try {
		const response = await fetch(new URL('/api/v1/readings', address), {
			method: 'POST',
			headers: { 'content-type': 'application/json', authorization: `Bearer ${token}` },
			body: JSON.stringify(reading())
		});
		const answer = await response.json();
		if (response.ok) {
			console.log(`simulated ${kind}: kept ${answer.kept}`);
			clock += STEP_MS;
		} else {
			console.error(`${answer.title} ${answer.detail ?? ''}`);
			if (response.status === 401) process.exit(1);
		}
	} catch {
		console.error('No answer; trying again.');
	}
};
await remember();
for (;;) {
	await post();
	await new Promise((done) => setTimeout(done, seconds * 1000));
}
