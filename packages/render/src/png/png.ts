import type { FontMetrics, Scene } from '@clembo/scene';
import { Resvg } from '@resvg/resvg-js';
import { writeSvg } from '../svg/svg';

export interface PngOptions {
  fonts: FontMetrics;
  fontPath: (file: string) => string;
  /** Pixels for a point. */
  scale?: number;
}

/** Writes a scene as PNG, two pixels for a point unless said otherwise. */
export function writePng(scene: Scene, { fonts, fontPath, scale = 2 }: PngOptions): Uint8Array {
  const svg = writeSvg(scene, { fonts, sized: false });
  const resvg = new Resvg(svg, {
    fitTo: { mode: 'width', value: Math.round(scene.width * scale) },
    font: {
      fontFiles: Object.values(fonts).map((f) => fontPath(f.file)),
      loadSystemFonts: false,
      defaultFontFamily: fonts.label.family,
    },
    background: scene.paper,
  });
  return resvg.render().asPng();
}
