import { SaxesParser } from 'saxes';

/** What is told of an XML text while it is read: local names, attributes by local name, text between tags. */
export interface XmlEvents {
  open?: (name: string, attributes: Record<string, string>) => void;
  close?: (name: string) => void;
  text?: (text: string) => void;
}

const local = (name: string): string => name.slice(name.indexOf(':') + 1);

/**
 * Reads XML from its beginning to its end. Entities other than the five of XML itself are faults, so nothing grows
 * in reading.
 *
 * @throws Error at the first fault
 */
export function readXml(bytes: Uint8Array, events: XmlEvents): void {
  const parser = new SaxesParser({ position: false });
  parser.on('error', (error) => {
    throw error;
  });
  parser.on('opentag', ({ name, attributes }) => {
    const plain: Record<string, string> = {};
    for (const key in attributes) plain[local(key)] = attributes[key] as string;
    events.open?.(local(name), plain);
  });
  if (events.close) parser.on('closetag', ({ name }) => events.close!(local(name)));
  if (events.text) {
    parser.on('text', events.text);
    parser.on('cdata', events.text);
  }
  parser.write(new TextDecoder().decode(bytes)).close();
}
