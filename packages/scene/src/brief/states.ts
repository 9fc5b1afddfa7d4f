/** States of activities that can give them their colour, beside code fields; none of these can be a code field's id. */
export const COLOUR_STATES: Readonly<Record<string, string>> = {
  '=status': 'status',
  '=critical': 'whether it is critical',
  '=band': 'how it stands against the promise',
};
