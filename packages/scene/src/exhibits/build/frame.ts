import type { BuildBrief } from '../../brief/build';
import { HAIRLINE, PAPER } from '../../graph/ink';
import { type ImageNode, round, type SceneNode } from '../../graph/scene';
import { cameraOf } from './camera';
import { boundsOf, drawModel, liftedBy, pngOf } from './picture';
import type { DateStanding, Standings } from './standings';

/** Points of a picture to a point of the page: 125 to an inch, each the middle of four. */
const FINE = 125 / 72;
/** No picture has more points than this, however large the page. */
const MOST_POINTS = 2_200_000;

/** Makes pictures of a model on its dates, all with the same camera for the same proportion. */
export function pictureMaker(brief: BuildBrief, { model, meant }: Standings) {
  const lifted = liftedBy(
    model.elements.map((e) => e.storey),
    model.body,
    brief.lift,
  );
  const bounds = boundsOf({ body: model.body, meant, lifted });
  const made = new Map<string, { data: string }>();
  return (date: DateStanding, width: number, height: number): { data: string } | null => {
    if (!bounds) return null;
    const fine = Math.min(FINE, Math.sqrt(MOST_POINTS / (width * height)));
    const [w, h] = [Math.max(8, Math.round(width * fine)), Math.max(8, Math.round(height * fine))];
    const key = `${date.day} ${w} ${h}`;
    const known = made.get(key);
    if (known) return known;
    const camera = cameraOf(brief, bounds, w, h);
    const picture = pngOf(
      drawModel({ body: model.body, meant, lifted, cut: brief.cut }, date.looks, camera, w * 2, h * 2),
    );
    made.set(key, picture);
    return picture;
  };
}
export type PictureMaker = ReturnType<typeof pictureMaker>;

/** A picture on the page, in a hairline frame; in words for who does not see it. */
export function framed(
  make: PictureMaker,
  date: DateStanding,
  box: { x: number; y: number; width: number; height: number },
  alt: string,
): SceneNode[] {
  const place = { x: round(box.x), y: round(box.y), width: round(box.width), height: round(box.height) };
  const picture = make(date, place.width, place.height);
  const image: ImageNode[] = picture ? [{ type: 'image', ...place, data: picture.data, alt, role: 'cell' }] : [];
  return [
    ...image,
    { type: 'rect', ...place, fill: PAPER, opacity: 0, stroke: HAIRLINE, strokeWidth: 0.6, radius: 2, role: 'cell' },
  ];
}
