/** Sides in words: by the compass in the ground, by the clock in a pot, where the front is at six. */
export function sideName(bearingDeg: number, inGround: boolean): string {
	const eighth = Math.round((((bearingDeg % 360) + 360) % 360) / 45) % 8;
	const compass = ['north', 'north-east', 'east', 'south-east', 'south', 'south-west', 'west', 'north-west'];
	const pot = [
		'the front',
		'front left',
		'left',
		'back left',
		'the back',
		'back right',
		'right',
		'front right'
	];
	return (inGround ? compass : pot)[eighth] ?? '';
}
