import { CAMERA_TAGS, cameraSays } from '$core/take-in/picture';
import exifr from 'exifr';

/**
 * A HEIC picture as JPEG, turned upright, with the day and the lens its camera wrote.
 * @throws Error where this browser cannot read HEIC
 */
export async function jpegOf(
	file: File
): Promise<{ jpeg: File; takenOn: string | null; focal35Mm: number | null }> {
	const bitmap = await createImageBitmap(file, { imageOrientation: 'from-image' });
	const canvas = document.createElement('canvas');
	canvas.width = bitmap.width;
	canvas.height = bitmap.height;
	canvas.getContext('2d')?.drawImage(bitmap, 0, 0);
	bitmap.close();
	const blob = await new Promise<Blob | null>((done) => canvas.toBlob(done, 'image/jpeg', 0.92));
	if (!blob) throw new Error('The picture could not be turned into JPEG.');
	const read: unknown = await exifr
		.parse(file, { pick: CAMERA_TAGS, reviveValues: false })
		.catch(() => undefined);
	return {
		jpeg: new File([blob], file.name.replace(/\.\w+$/, '.jpg'), { type: 'image/jpeg' }),
		...cameraSays(read)
	};
}
