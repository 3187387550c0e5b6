const LARGEST_BYTES = 6_000_000;
const LARGEST_SIDE = 2600;

/** A picture that the server takes: one that is too large is made smaller here. What cannot be read is left to the server to refuse. */
export async function smaller(file: Blob): Promise<Blob> {
  if (file.size <= LARGEST_BYTES) return file;
  try {
    const picture = await createImageBitmap(file);
    const scale = Math.min(1, LARGEST_SIDE / Math.max(picture.width, picture.height));
    const canvas = new OffscreenCanvas(Math.round(picture.width * scale), Math.round(picture.height * scale));
    canvas.getContext('2d')?.drawImage(picture, 0, 0, canvas.width, canvas.height);
    return await canvas.convertToBlob({ type: 'image/jpeg', quality: 0.9 });
  } catch {
    return file;
  }
}
