import { MOST_PICTURE, type Picture } from '@clembo/scene/brief';

/** Pixels of the longer side, one after the other, until the picture is small enough to be kept. */
const SIDES = [600, 420, 300, 200];

/** A picture of a file, made small enough for a page. Throws words for whoever chose it. */
export async function pictureOf(file: File): Promise<Picture> {
  const image = new Image();
  const address = URL.createObjectURL(file);
  try {
    image.src = address;
    await image.decode().catch(() => {
      throw new Error(`“${file.name}” is no picture that can be read. Choose a PNG, JPEG or SVG file.`);
    });
    // A drawing without a size of its own says 0.
    const [w, h] = [image.naturalWidth || 300, image.naturalHeight || 150];
    for (const side of SIDES) {
      const factor = Math.min(1, side / Math.max(w, h));
      const canvas = document.createElement('canvas');
      canvas.width = Math.max(1, Math.round(w * factor));
      canvas.height = Math.max(1, Math.round(h * factor));
      canvas.getContext('2d')!.drawImage(image, 0, 0, canvas.width, canvas.height);
      const data = canvas.toDataURL('image/png');
      if (data.length <= MOST_PICTURE) return { data, width: canvas.width, height: canvas.height };
    }
    throw new Error(`“${file.name}” has too much detail for a page. Choose a simpler picture.`);
  } finally {
    URL.revokeObjectURL(address);
  }
}
