/** What a view of a model on the screen shares with its pages. */
export { type Bounds, type Camera, cameraOf, directionsOf } from './camera';
export { TO_COME } from './look';
export { LOOK_BYTES, packLooks } from './packed';
export { boundsOf, liftedBy } from './picture';
export { elementAt, elementsIn, type Seen } from './picking';
