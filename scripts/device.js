// A simulated device: posts readings to a running Bruntle like a real one would.
// node scripts/device.js scale|soil-probe|air ADDRESS TOKEN [seconds between readings]
const [kind = '', address = '', token = '', every = '10'] = process.argv.slice(2);
const seconds = Number(every);
if (
	!['scale', 'soil-probe', 'air'].includes(kind) ||
	!/^https?:\/\//.test(address) ||
	token === '' ||
	!(seconds >= 1)
) {
	console.error(
		'Give a kind (scale, soil-probe or air), the address of Bruntle, the token of the device, and seconds between readings.'
	);
	process.exit(1);
}
const begun = Date.now();
let battery = 0.9;

const reading = () => {
	const hours = (Date.now() - begun) / 3_600_000;
	const wave = Math.sin((2 * Math.PI * hours) / 24);
	const jitter = () => (Math.random() - 0.5) * 0.02;
	battery = Math.max(0.05, battery - 0.0001);
	return {
		at: new Date().toISOString(),
		...(kind === 'scale' && { weightKg: Math.round((16 - hours * 0.04 + jitter()) * 1000) / 1000 }),
		...(kind === 'soil-probe' && {
			moisture: Math.max(0.05, Math.round((0.4 - hours * 0.003 + jitter()) * 1000) / 1000)
		}),
		...(kind !== 'scale' && { temperatureC: Math.round((12 + 6 * wave + jitter() * 10) * 10) / 10 }),
		...(kind === 'air' && { humidityPercent: Math.round(65 - 15 * wave) }),
		battery: Math.round(battery * 1000) / 1000
	};
};

const post = async () => {
	try {
		const response = await fetch(new URL('/api/v1/readings', address), {
			method: 'POST',
			headers: { 'content-type': 'application/json', authorization: `Bearer ${token}` },
			body: JSON.stringify(reading())
		});
		const answer = await response.json();
		if (response.ok) console.log(`simulated ${kind}: kept ${answer.kept}`);
		else {
			console.error(`${answer.title} ${answer.detail ?? ''}`);
			if (response.status === 401) process.exit(1);
		}
	} catch {
		console.error('No answer; trying again.');
	}
};
for (;;) {
	await post();
	await new Promise((done) => setTimeout(done, seconds * 1000));
}
