import { monthMeans, type ClimateValues } from '$core/climate/normals';
import { readNumber } from '$core/text/typed';
import { distanceKm, type Town } from '$core/vocabulary/town';

/** Where a position came from, so that a guess is told from what somebody set. */
export type PositionFrom = 'kept' | 'yard' | 'zone' | 'town' | 'here' | 'typed';

interface Position {
	latitudeDeg: number | null;
	longitudeDeg: number | null;
	elevationM: number | null;
	coldestMonthC?: number | null;
	warmestMonthC?: number | null;
}

const countryOf = (code: string): string => {
	try {
		return new Intl.DisplayNames(['en'], { type: 'region' }).of(code) ?? code;
	} catch {
		return code;
	}
};
export const townLabel = (town: Town): string => `${town.name}, ${countryOf(town.country)}`;

/** Position and height of a place while they are set: by a town, by where the machine is, or by hand. */
export class PlacePosition {
	latitude = $state('');
	longitude = $state('');
	elevationM = $state<number | null>(null);
	/** Means of the coldest and the warmest month there, as typed; another position has others. */
	coldestMonthC = $state<number | null>(null);
	warmestMonthC = $state<number | null>(null);
	from = $state<PositionFrom>('kept');
	/** Town whose position or height stands for it. */
	town = $state.raw<Town | null>(null);
	/** What is found for what was typed. */
	found = $state.raw<Town[]>([]);
	problem = $state('');
	#ask: (query: string) => Promise<Town[]>;
	/** Height of the nearest town stands for that of a position within so many km, and is said to. */
	#heightWithinKm: number;
	#asked = 0;

	constructor(
		begin: { position: Position; from: PositionFrom } | null,
		ask: (query: string) => Promise<Town[]>,
		heightWithinKm: number
	) {
		this.#ask = ask;
		this.#heightWithinKm = heightWithinKm;
		if (begin) this.#set(begin.position, begin.from);
	}

	#set(position: Position, from: PositionFrom): void {
		const rounded = (deg: number | null): string => (deg === null ? '' : String(Math.round(deg * 100) / 100));
		this.latitude = rounded(position.latitudeDeg);
		this.longitude = rounded(position.longitudeDeg);
		this.elevationM = position.elevationM === null ? null : Math.round(position.elevationM);
		this.coldestMonthC = position.coldestMonthC ?? null;
		this.warmestMonthC = position.warmestMonthC ?? null;
		this.from = from;
	}

	/** What the months are reckoned to be where nobody types them, °C; null as long as no latitude is known. */
	guessed(values: ClimateValues): { coldestC: number; warmestC: number } | null {
		const latitudeDeg = readNumber(this.latitude);
		return latitudeDeg === null || Math.abs(latitudeDeg) > 90
			? null
			: monthMeans({ latitudeDeg, elevationM: this.elevationM ?? 0 }, values);
	}

	/** Nothing is known of it yet: the largest town of the machine's time zone is a first guess, and is called one. */
	async guess(zone: string): Promise<void> {
		const [town] = await this.#ask(`zone=${encodeURIComponent(zone)}`);
		if (!town || this.latitude !== '' || this.from === 'typed') return;
		this.town = town;
		this.#set(town, 'zone');
	}

	/** What is called like that; an answer that comes late does not overtake one asked since. */
	async search(typed: string): Promise<void> {
		const turn = ++this.#asked;
		const found = typed.trim().length < 2 ? [] : await this.#ask(`name=${encodeURIComponent(typed.trim())}`);
		if (turn === this.#asked) this.found = found;
	}

	take(label: string): void {
		const town = this.found.find((one) => townLabel(one) === label);
		if (!town) return;
		this.town = town;
		this.problem = '';
		this.#set(town, 'town');
	}

	/**
	 * Where the machine is.
	 * @param heightM as it says itself, or null: then that of the nearest town, where one is near
	 */
	async here(latitudeDeg: number, longitudeDeg: number, heightM: number | null): Promise<void> {
		const [near] = await this.#ask(`latitude=${latitudeDeg}&longitude=${longitudeDeg}`);
		const close =
			near && distanceKm(near, { latitudeDeg, longitudeDeg }) <= this.#heightWithinKm ? near : null;
		this.town = heightM === null ? close : null;
		this.problem = '';
		this.#set({ latitudeDeg, longitudeDeg, elevationM: heightM ?? close?.elevationM ?? null }, 'here');
	}

	/** Typed by hand, which outranks every guess. */
	type(change: { latitude?: string; longitude?: string; elevationM?: number | null }): void {
		Object.assign(this, change);
		this.from = 'typed';
	}

	/** What the numbers rest on, in one sentence; nothing where somebody typed or kept them. */
	get said(): string {
		const town = this.town ? townLabel(this.town) : '';
		switch (this.from) {
			case 'zone':
				return `Only guessed from this machine’s time zone: ${town}. Find your own town, or correct it.`;
			case 'town':
				return `Position and height of ${town}. A hill or a valley of your own: correct the height.`;
			case 'here':
				return this.elevationM === null
					? 'Position of this machine. It does not know its height: fill it in.'
					: town === ''
						? 'Position and height of this machine.'
						: `Position of this machine; height of ${town}, the nearest town. Correct it if you stand higher or lower.`;
			case 'yard':
				return 'Taken over from another place of the yard.';
			case 'kept':
			case 'typed':
				return '';
		}
	}
}
