import { findCard } from '$core/examine/pictures/find-card';
import type { Rgba } from '$core/examine/pictures/raster';
import type { Values } from '$core/values/values';
import { expose } from 'comlink';

/** A picture as it is decoded here, turned as it is looked at. @throws Error when it cannot be read */
async function decoded(url: string): Promise<Rgba> {
	const answer = await fetch(url);
	if (!answer.ok) throw new Error('The picture could not be read.');
	const bitmap = await createImageBitmap(await answer.blob());
	const { width, height } = bitmap;
	const drawing = new OffscreenCanvas(width, height).getContext('2d', { willReadFrequently: true });
	if (!drawing) throw new Error('The picture could not be read.');
	drawing.drawImage(bitmap, 0, 0);
	bitmap.close();
	return { width, height, data: drawing.getImageData(0, 0, width, height).data };
}

/** Reads pictures in a thread of its own, so that the page stays at hand. */
const reader = {
	card: async (url: string, values: Values) => findCard(await decoded(url), values)
};
export type ReaderThread = typeof reader;
expose(reader);
