const ESCAPES: Record<string, string> = { '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;', "'": '&#39;' };

/** Escapes what XML gives a meaning, and drops what it does not allow at all: control characters and halves of pairs. */
export const escapeXml = (text: string): string =>
  text
    .replace(/[&<>"']/g, (c) => ESCAPES[c]!)
    // biome-ignore lint: control characters are what is looked for
    .replace(/[\u0000-\u0008\u000b\u000c\u000e-\u001f\ufffe\uffff]/g, '')
    .replace(/[\ud800-\udbff](?![\udc00-\udfff])|(?<![\ud800-\udbff])[\udc00-\udfff]/g, '\ufffd');
