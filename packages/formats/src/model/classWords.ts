/** Parts of class names that say how something is described, not what it is. */
const DESCRIBED = /(?:StandardCase|ElementedCase)$/;

/** A class of the standard as a word: `IfcCurtainWall` is `Curtain wall`. */
export function classWords(name: string): string {
  const bare = name.replace(/^Ifc/, '').replace(DESCRIBED, '');
  const words = bare.replace(/([a-z])([A-Z])/g, '$1 $2').toLowerCase();
  return words === 'building element proxy' ? 'Other element' : words.charAt(0).toUpperCase() + words.slice(1);
}
