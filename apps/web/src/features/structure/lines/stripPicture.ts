import { MOST_STRIP_PICTURE } from '@clembo/core';

/** A picture as it is kept: its pixels alone, small enough for a plan. */
export interface StripPicture {
  data: string;
  width: number;
  height: number;
}

/** No larger file is opened. */
const MOST_BYTES = 40 * 1_048_576;
/** Pixels of the longer side, one after the other, until the picture is small enough to be kept. */
const SIDES = [3000, 2200, 1600, 1100, 700];
/** No picture is taken in that would be larger than this when it is opened, in pixels. */
const MOST_PIXELS = 200_000_000;

type Painted = {
  width: number;
  height: number;
  paint: (to: CanvasRenderingContext2D, w: number, h: number) => Promise<void>;
};

/**
 * A picture of a file (PNG, JPEG, SVG, or the first page of a PDF), painted anew: nothing of the file is kept but what
 * is seen. Throws words for whoever chose it.
 */
export async function stripPicture(file: File): Promise<StripPicture> {
  if (file.size > MOST_BYTES)
    throw new Error(`“${file.name}” is larger than ${MOST_BYTES / 1_048_576} MB. Choose a smaller picture.`);
  const isPdf = file.type === 'application/pdf' || /\.pdf$/i.test(file.name);
  const source = isPdf ? await pageOf(file) : await imageOf(file);
  if (source.width * source.height > MOST_PIXELS)
    throw new Error(`“${file.name}” has too many pixels to be opened. Choose a smaller picture.`);
  for (const side of SIDES) {
    const factor =
      source.width > side || source.height > side || isPdf ? side / Math.max(source.width, source.height) : 1;
    const canvas = document.createElement('canvas');
    canvas.width = Math.max(1, Math.round(source.width * factor));
    canvas.height = Math.max(1, Math.round(source.height * factor));
    const to = canvas.getContext('2d')!;
    // What is clear in the file is paper here: a JPEG knows no clear pixels.
    to.fillStyle = '#ffffff';
    to.fillRect(0, 0, canvas.width, canvas.height);
    await source.paint(to, canvas.width, canvas.height);
    for (const data of [canvas.toDataURL('image/png'), canvas.toDataURL('image/jpeg', 0.86)])
      if (data.length <= MOST_STRIP_PICTURE) return { data, width: canvas.width, height: canvas.height };
  }
  throw new Error(`“${file.name}” has too much detail to be kept. Choose a simpler picture.`);
}

async function imageOf(file: File): Promise<Painted> {
  const image = new Image();
  const address = URL.createObjectURL(file);
  image.src = address;
  try {
    await image.decode();
  } catch {
    throw new Error(`“${file.name}” is no picture that can be read. Choose a PNG, JPEG, SVG or PDF file.`);
  } finally {
    URL.revokeObjectURL(address);
  }
  // A drawing without a size of its own says 0; it is sharp at any.
  const drawing = file.type === 'image/svg+xml';
  const [w, h] = [image.naturalWidth || 1000, image.naturalHeight || 300];
  const grow = drawing ? SIDES[1]! / Math.max(w, h) : 1;
  return {
    width: Math.round(w * grow),
    height: Math.round(h * grow),
    paint: async (to, width, height) => to.drawImage(image, 0, 0, width, height),
  };
}

/** The first page of a PDF. Scripts in it are not run. */
async function pageOf(file: File): Promise<Painted> {
  const pdf = await import('pdfjs-dist');
  pdf.GlobalWorkerOptions.workerPort ??= new Worker(new URL('pdfjs-dist/build/pdf.worker.min.mjs', import.meta.url), {
    type: 'module',
  });
  try {
    const opened = await pdf.getDocument({ data: await file.arrayBuffer(), isEvalSupported: false }).promise;
    const page = await opened.getPage(1);
    const { width, height } = page.getViewport({ scale: 1 });
    return {
      width,
      height,
      paint: async (to, w) => {
        await page.render({ canvasContext: to, viewport: page.getViewport({ scale: w / width }) }).promise;
      },
    };
  } catch (error) {
    const locked = error instanceof Error && error.name === 'PasswordException';
    throw new Error(
      locked
        ? `“${file.name}” is locked with a password. Save it without one.`
        : `“${file.name}” is no PDF that can be read.`,
    );
  }
}
