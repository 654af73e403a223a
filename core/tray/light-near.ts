import type { PlanePoint } from '../place/fit-circle.js';
import { lightAt } from '../target/card-light.js';
import type { ReadablePicture } from '../target/level-picture.js';

/** A picture with the light that its card has nearest to a place, over all of it: a curve through the card tells nothing beside it. */
export function lightNear(picture: ReadablePicture, { xMm, yMm }: PlanePoint): ReadablePicture {
  const { pose, light } = picture;
  const { widthMm, heightMm } = pose.card;
  const place = { x: Math.min(widthMm, Math.max(0, xMm)), y: Math.min(heightMm, Math.max(0, yMm)) };
  const here = Math.log(lightAt(light.fall, pose, place));
  return { ...picture, light: { ...light, fall: [here, 0, 0, 0, 0, 0] } };
}
