/** The mark that a text of two bytes a letter begins with, and what it is called. */
const WIDE = [
  [[0xff, 0xfe], 'utf-16le'],
  [[0xfe, 0xff], 'utf-16be'],
] as const;

const wideOf = (bytes: Uint8Array) =>
  WIDE.find(([mark]) => mark.every((byte, at) => bytes[at] === byte))?.[1];

/** Whether a file is text: nothing else says so, or holds no empty byte. */
export const isText = (bytes: Uint8Array): boolean => wideOf(bytes) !== undefined || !bytes.includes(0);

/**
 * The text of a file that a person brings: as its first bytes say, UTF-8 where it is, else as spreadsheets on older
 * systems save what is not English.
 */
export function textOfBytes(bytes: Uint8Array): string {
  const wide = wideOf(bytes);
  if (wide) return new TextDecoder(wide).decode(bytes);
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes).replace(/^\uFEFF/, '');
  } catch {
    return new TextDecoder('windows-1252').decode(bytes);
  }
}
