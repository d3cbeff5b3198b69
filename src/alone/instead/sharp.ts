/** Stands for the picture library: what the server asks of it, by the browser's own means. */

interface Region {
	left: number;
	top: number;
	width: number;
	height: number;
}

const heads: readonly (readonly [string, RegExp])[] = [
	['jpeg', /^\xff\xd8\xff/],
	['png', /^\x89PNG/],
	['webp', /^RIFF....WEBP/s]
];
const formatOf = (bytes: Uint8Array): string | undefined => {
	const head = Array.from(bytes.subarray(0, 12), (byte) => String.fromCharCode(byte)).join('');
	return heads.find(([, sign]) => sign.test(head))?.[0];
};

class Picture {
	private most: [width: number, height: number] | null = null;
	private region: Region | null = null;
	private quality = 0.84;
	private asPixels = false;

	constructor(private readonly bytes: Uint8Array<ArrayBuffer>) {}

	timeout = (): this => this;
	/** A browser turns a picture as its camera says when it reads it. */
	rotate = (): this => this;
	flatten = (): this => this;
	toColourspace = (): this => this;
	ensureAlpha = (): this => this;
	raw(): this {
		this.asPixels = true;
		return this;
	}
	resize(width: number, height: number): this {
		this.most = [width, height];
		return this;
	}
	extract(region: Region): this {
		this.region = region;
		return this;
	}
	jpeg({ quality }: { quality: number }): this {
		this.quality = quality / 100;
		return this;
	}

	private read = (): Promise<ImageBitmap> =>
		createImageBitmap(new Blob([this.bytes]), { imageOrientation: 'from-image' });

	async metadata() {
		const format = formatOf(this.bytes);
		const bitmap = await this.read();
		const { width, height } = bitmap;
		bitmap.close();
		return { format, width, height, exif: format === 'jpeg' ? Buffer.from(this.bytes) : undefined };
	}

	private async drawn(): Promise<OffscreenCanvas> {
		const bitmap = await this.read();
		const from = this.region ?? { left: 0, top: 0, width: bitmap.width, height: bitmap.height };
		const [mostW, mostH] = this.most ?? [from.width, from.height];
		const scale = Math.min(1, mostW / from.width, mostH / from.height);
		const width = Math.max(1, Math.round(from.width * scale));
		const height = Math.max(1, Math.round(from.height * scale));
		const canvas = new OffscreenCanvas(width, height);
		const context = canvas.getContext('2d');
		if (!context) throw new Error('this browser draws no pictures here');
		context.fillStyle = '#ffffff';
		context.fillRect(0, 0, width, height);
		context.drawImage(bitmap, from.left, from.top, from.width, from.height, 0, 0, width, height);
		bitmap.close();
		return canvas;
	}

	async toBuffer(options?: { resolveWithObject: boolean }) {
		const canvas = await this.drawn();
		const info = { width: canvas.width, height: canvas.height };
		if (this.asPixels) {
			const pixels = canvas.getContext('2d')?.getImageData(0, 0, info.width, info.height).data;
			const data = Buffer.from(pixels ?? []);
			return options ? { data, info } : data;
		}
		const blob = await canvas.convertToBlob({ type: 'image/jpeg', quality: this.quality });
		const data = Buffer.from(await blob.arrayBuffer());
		return options ? { data, info } : data;
	}

	/** Mean of red, green and blue, 0 to 255. */
	async stats() {
		const canvas = await this.drawn();
		const { data } = canvas.getContext('2d')?.getImageData(0, 0, canvas.width, canvas.height) ?? { data: [] };
		const sums = [0, 0, 0];
		for (let at = 0; at < data.length; at += 4)
			sums.forEach((sum, channel) => (sums[channel] = sum + (data[at + channel] ?? 0)));
		return { channels: sums.map((sum) => ({ mean: (sum * 4) / data.length })) };
	}
}

const sharp = (bytes: Uint8Array<ArrayBuffer>): Picture => new Picture(bytes);
export default sharp;
