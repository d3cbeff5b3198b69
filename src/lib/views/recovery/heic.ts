import exifr from 'exifr';

/**
 * A HEIC picture as JPEG, turned upright, with the day its camera wrote.
 * @throws Error where this browser cannot read HEIC
 */
export async function jpegOf(file: File): Promise<{ jpeg: File; takenOn: string | null }> {
	const bitmap = await createImageBitmap(file, { imageOrientation: 'from-image' });
	const canvas = document.createElement('canvas');
	canvas.width = bitmap.width;
	canvas.height = bitmap.height;
	canvas.getContext('2d')?.drawImage(bitmap, 0, 0);
	bitmap.close();
	const blob = await new Promise<Blob | null>((done) => canvas.toBlob(done, 'image/jpeg', 0.92));
	if (!blob) throw new Error('The picture could not be turned into JPEG.');
	const read = (await exifr
		.parse(file, { pick: ['DateTimeOriginal'], reviveValues: false })
		.catch(() => undefined)) as { DateTimeOriginal?: string } | undefined;
	const day = /^(\d{4}):(\d{2}):(\d{2})/.exec(read?.DateTimeOriginal ?? '');
	return {
		jpeg: new File([blob], file.name.replace(/\.\w+$/, '.jpg'), { type: 'image/jpeg' }),
		takenOn: day ? `${day[1]}-${day[2]}-${day[3]}` : null
	};
}
