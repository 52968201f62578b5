/** Words and sentences of a text that is looked through for claims. */

export interface Word {
  text: string;
  from: number;
  to: number;
  /** Whether a sentence or clause ends before this word. */
  opens: boolean;
}

/** Lower case, without accents or apostrophes; what reads the same is compared the same. */
export function plain(text: string): string {
  return text
    .normalize('NFD')
    .replace(/[\u0300-\u036f’']/g, '')
    .toLowerCase()
    .replace(/œ/g, 'oe')
    .replace(/ß/g, 'ss');
}

export function wordsOf(text: string): Word[] {
  const words: Word[] = [];
  let end = 0;
  for (const match of text.matchAll(/[\p{L}\p{N}%]+(?:[’'][\p{L}]+)*/gu)) {
    const between = text.slice(end, match.index);
    // French elision parts into two words: "l'acné", "n'est".
    const pieces = match[0].split(/(?<=^(?:[ldnmtscj]|qu)[’'])/i);
    let from = match.index;
    pieces.forEach((piece, index) => {
      const opens = index === 0 && /[.!?;:\n,•]/.test(between);
      words.push({ text: plain(piece), from, to: from + piece.length, opens });
      from += piece.length;
    });
    end = match.index + match[0].length;
  }
  return words;
}

/** Sentences of a text: where each begins and ends among its words. */
export function sentences(text: string, words: readonly Word[]): [from: number, to: number][] {
  const starts = words.flatMap(({ from }, at) =>
    at === 0 || /[.!?;:\n•]/.test(text.slice(words[at - 1]!.to, from)) ? [at] : [],
  );
  return starts.map((start, at) => [start, starts[at + 1] ?? words.length]);
}
