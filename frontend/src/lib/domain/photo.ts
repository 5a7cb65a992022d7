/** Photos for the log: a label on a plug can be read, and a phone sends it in a second. */

const LONGEST_PIXELS = 1600;
const QUALITY = 0.8;

/** Width and height at most so long, in proportion. */
export function fitted(width: number, height: number, longest: number = LONGEST_PIXELS): [number, number] {
	const scale = Math.min(1, longest / Math.max(width, height, 1));
	return [Math.max(1, Math.round(width * scale)), Math.max(1, Math.round(height * scale))];
}

/** The picture as JPEG, upright, without what stands beside it in the file. Throws where it cannot be read. */
export async function smaller(file: Blob): Promise<Blob> {
	const picture = await createImageBitmap(file, { imageOrientation: 'from-image' });
	const canvas = document.createElement('canvas');
	[canvas.width, canvas.height] = fitted(picture.width, picture.height);
	canvas.getContext('2d')?.drawImage(picture, 0, 0, canvas.width, canvas.height);
	picture.close();
	return new Promise((resolve, reject) => {
		canvas.toBlob(
			(blob) => (blob ? resolve(blob) : reject(new Error('The picture could not be written.'))),
			'image/jpeg',
			QUALITY
		);
	});
}
