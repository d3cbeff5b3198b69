/** A picture in shades of grey, row by row from above, 0 … 255. */
export interface Grey {
	width: number;
	height: number;
	data: Float32Array;
}

/** A picture as it is decoded: red, green, blue, opacity of each pixel, 0 … 255. */
export interface Rgba {
	width: number;
	height: number;
	data: Uint8ClampedArray | Uint8Array;
}

/** Shades of a picture. @see ITU-R BT.601-7 (2011): weights of red, green and blue */
export function greyOf({ width, height, data }: Rgba): Grey {
	const grey = new Float32Array(width * height);
	for (let i = 0; i < grey.length; i++)
		grey[i] = 0.299 * (data[4 * i] ?? 0) + 0.587 * (data[4 * i + 1] ?? 0) + 0.114 * (data[4 * i + 2] ?? 0);
	return { width, height, data: grey };
}

/**
 * A picture made smaller by a whole number, each pixel the mean of those it stands for.
 * @param by 1 or more
 */
export function smaller(picture: Grey, by: number): Grey {
	if (by <= 1) return picture;
	const [width, height] = [Math.floor(picture.width / by), Math.floor(picture.height / by)];
	const data = new Float32Array(width * height);
	for (let y = 0; y < height; y++)
		for (let x = 0; x < width; x++) {
			let sum = 0;
			for (let v = 0; v < by; v++)
				for (let u = 0; u < by; u++) sum += picture.data[(y * by + v) * picture.width + x * by + u] ?? 0;
			data[y * width + x] = sum / (by * by);
		}
	return { width, height, data };
}

/**
 * The shade between pixels, by the four round it; a pixel's shade stands at its middle.
 * @param x from the left edge, px
 * @param y from the upper edge, px
 * @returns 0 … 255; beyond the edge as at the edge
 */
export function shadeAt({ width, height, data }: Grey, x: number, y: number): number {
	const u = Math.min(width - 1, Math.max(0, x - 0.5));
	const v = Math.min(height - 1, Math.max(0, y - 0.5));
	const [left, top] = [Math.min(width - 2, Math.floor(u)), Math.min(height - 2, Math.floor(v))];
	const at = Math.max(0, top) * width + Math.max(0, left);
	const [right, down] = [width > 1 ? 1 : 0, height > 1 ? width : 0];
	const [fx, fy] = [u - Math.max(0, left), v - Math.max(0, top)];
	const upper = (data[at] ?? 0) * (1 - fx) + (data[at + right] ?? 0) * fx;
	const lower = (data[at + down] ?? 0) * (1 - fx) + (data[at + down + right] ?? 0) * fx;
	return upper * (1 - fy) + lower * fy;
}
