/** Longest edge of a photo, px, and how it is packed. */
const EDGE = 1600;
const QUALITY = 0.82;

/** A picture file, upright and no larger than is needed, without the camera's notes of where and when. Throws words for what
 *  cannot be read. read: its colours are asked for often. */
export async function canvasOf(file: File, read = false): Promise<HTMLCanvasElement> {
  let bitmap: ImageBitmap;
  try {
    bitmap = await createImageBitmap(file, { imageOrientation: 'from-image' });
  } catch {
    throw new Error(`${file.name} is no picture that can be read here.`);
  }
  const scale = Math.min(1, EDGE / Math.max(bitmap.width, bitmap.height));
  const canvas = document.createElement('canvas');
  canvas.width = Math.max(1, Math.round(bitmap.width * scale));
  canvas.height = Math.max(1, Math.round(bitmap.height * scale));
  const pen = canvas.getContext('2d', { willReadFrequently: read });
  if (!pen) throw new Error('This browser cannot draw pictures.');
  pen.drawImage(bitmap, 0, 0, canvas.width, canvas.height);
  bitmap.close();
  return canvas;
}

/** Makes a picture file small. */
export async function shrink(file: File): Promise<Blob> {
  const canvas = await canvasOf(file);
  return await new Promise((done, fail) =>
    canvas.toBlob((b) => (b ? done(b) : fail(new Error(`${file.name} could not be packed.`))), 'image/jpeg', QUALITY),
  );
}

/** Where the device is, if it may tell. */
export const place = () =>
  new Promise<{ latitude: number; longitude: number } | undefined>((done) => {
    if (!navigator.geolocation) return done(undefined);
    navigator.geolocation.getCurrentPosition(
      (p) => done({ latitude: p.coords.latitude, longitude: p.coords.longitude }),
      () => done(undefined),
      { timeout: 4000, maximumAge: 60_000 },
    );
  });
