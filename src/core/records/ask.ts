/** A question about the house with what was understood of it and what answers, as screens and server know it. */
import type { Subject } from '../search/ask-words';
import type { Hit } from './search';

export interface AskAnswer {
  subject: Subject;
  /** What was understood, each with the place of its words in the question. */
  understood: { says: string; from: number; to: number }[];
  /** Words that say nothing here. */
  unread: string[];
  /** What answers, the first of them; what cannot be told stands last and says why. */
  rows: Hit[];
  count: number;
  /** How many of those cannot be told. */
  open: number;
}
