/** A number of ISO 10303-21: always with a point. */
export const stepReal = (value: number): string => {
  const plain = String(Number(value.toPrecision(12)));
  return plain.includes('.') || plain.includes('e') ? plain.replace('e', 'E') : `${plain}.`;
};

/** A text of ISO 10303-21: quotes and backslashes doubled, other letters by their number (6.4.3). */
export function stepText(value: string): string {
  let out = '';
  for (const c of value) {
    const code = c.codePointAt(0)!;
    if (c === "'") out += "''";
    else if (c === '\\') out += '\\\\';
    else if (code >= 32 && code < 127) out += c;
    else if (code > 0xffff) out += `\\X4\\${code.toString(16).toUpperCase().padStart(8, '0')}\\X0\\`;
    else out += `\\X2\\${code.toString(16).toUpperCase().padStart(4, '0')}\\X0\\`;
  }
  return `'${out}'`;
}

const LETTERS = '0123456789ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz_$';

/** An identifier of 22 letters that is the same for the same thing: 128 bits of four hashes (FNV-1a), in base 64. */
export function globalId(what: string): string {
  let bits = 0n;
  for (let seed = 0; seed < 4; seed++) {
    let hash = 0x811c9dc5 ^ (seed * 0x9e3779b1);
    for (let i = 0; i < what.length; i++) hash = Math.imul(hash ^ what.charCodeAt(i), 0x01000193);
    bits = (bits << 32n) | BigInt(hash >>> 0);
  }
  let out = '';
  for (let k = 0; k < 22; k++) {
    out = LETTERS[Number(bits & 63n)] + out;
    bits >>= 6n;
  }
  return out;
}

/** A file of ISO 10303-21 in the schema of IFC4, of entities in their order. */
export const stepFile = (name: string, stamp: string, entities: readonly string[]): string => `ISO-10303-21;
HEADER;
FILE_DESCRIPTION(('ViewDefinition [ReferenceView]'),'2;1');
FILE_NAME(${stepText(name)},'${stamp}',(''),(''),'Clembo','Clembo','');
FILE_SCHEMA(('IFC4'));
ENDSEC;
DATA;
${entities.join('\n')}
ENDSEC;
END-ISO-10303-21;
`;
