/** A photo on a phone has ten times as many dots as anybody looks at. */
const LONGEST = 1600;
const QUALITY = 0.8;

/**
 * A picture as it is kept: no larger than is looked at, and with nothing in it that the camera wrote beside the picture
 * (where it was taken, by which phone).
 * @returns JPEG in base64
 * @throws where it is no picture that this browser can read
 */
export async function photoOf(file: Blob): Promise<string> {
  const picture = await createImageBitmap(file);
  const scale = Math.min(1, LONGEST / Math.max(picture.width, picture.height));
  const canvas = document.createElement('canvas');
  canvas.width = Math.round(picture.width * scale);
  canvas.height = Math.round(picture.height * scale);
  canvas.getContext('2d')?.drawImage(picture, 0, 0, canvas.width, canvas.height);
  picture.close();
  return canvas.toDataURL('image/jpeg', QUALITY).replace(/^data:[^,]*,/, '');
}

/** Of a photo that is not kept by the server yet. */
export const photoUrl = (base64: string): string => `data:image/jpeg;base64,${base64}`;
