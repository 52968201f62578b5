/** The elements of a JSON list, one after the other, from a text that comes in parts; never all of it in memory. */
import { Refusal } from './zip';

/** Longest text of one row, letters. */
const LONGEST_ROW = 32_000_000;
const [QUOTE, BACKSLASH, COMMA] = [0x22, 0x5c, 0x2c];
const OPENS = new Set([0x7b, 0x5b]);
const CLOSES = new Set([0x7d, 0x5d]);

/** Finds where each element ends; within texts nothing counts. */
class Splitter {
  private depth = 0;
  private isText = false;
  private isEscaped = false;
  private kept = '';
  /** Whether the list was opened, and closed again. */
  isOpen = false;
  isClosed = false;

  /** The elements that end within the next part. */
  *take(part: string): Generator<string> {
    let from = 0;
    for (let at = 0; at < part.length; at++) {
      const code = part.charCodeAt(at);
      if (this.isText) {
        if (this.isEscaped) this.isEscaped = false;
        else if (code === BACKSLASH) this.isEscaped = true;
        else if (code === QUOTE) this.isText = false;
      } else if (code === QUOTE) this.isText = true;
      else if (OPENS.has(code)) {
        if (++this.depth === 1) from = this.open(part, at);
      } else if (CLOSES.has(code)) {
        if (--this.depth === 0) {
          yield* this.end(part.slice(from, at));
          this.isClosed = true;
          from = at + 1;
        }
      } else if (code === COMMA && this.depth === 1) {
        yield* this.end(part.slice(from, at));
        from = at + 1;
      }
    }
    this.kept += part.slice(from);
    if (this.kept.length > LONGEST_ROW) throw new Refusal('It holds a row that is longer than is taken.');
  }

  private open(part: string, at: number): number {
    const isList = part[at] === '[' && !this.isOpen && this.kept.trim() === '';
    this.isOpen = isList;
    if (!isList) throw new SyntaxError('no list');
    this.kept = '';
    return at + 1;
  }

  private *end(last: string): Generator<string> {
    const text = (this.kept + last).trim();
    this.kept = '';
    if (text !== '') yield text;
  }

  get rest(): string {
    return this.kept.trim();
  }
}

/**
 * Reads the elements of a JSON list. Throws a SyntaxError where it is none.
 *
 * @example
 * for await (const row of jsonRows(parts)) insert(row); // parts of '[{"a":1}, {"a":2}]'
 */
export async function* jsonRows(parts: AsyncIterable<Buffer>): AsyncGenerator<unknown, void> {
  const decoder = new TextDecoder('utf-8', { fatal: true });
  const splitter = new Splitter();
  for await (const part of parts)
    for (const text of splitter.take(decoder.decode(part, { stream: true }))) yield JSON.parse(text);
  for (const text of splitter.take(decoder.decode())) yield JSON.parse(text);
  if (!splitter.isClosed || splitter.rest !== '') throw new SyntaxError('no list');
}
