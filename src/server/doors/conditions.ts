/** The doors of what papers show and of what suppliers are asked. */
import { LETTER_LANGUAGES } from '../../core/paperwork/letter-words';
import { Day, Id, LONGEST, Name, NumberBetween, OneOf, OrNull, Text, Values } from './fields';

const MOST_FIGURE = 1e6;

/** What a paper shows of a condition. */
export class ShownDoor {
  @OrNull() @NumberBetween(0, MOST_FIGURE) value!: number | null;
  @Name('the paper', LONGEST.name) paper!: string;
  @Day() on!: string;
  @OrNull() @Day() until!: string | null;
}

export class ShownFiledDoor extends ShownDoor {
  @Id() condition!: string;
}

const MOST_ASKED = 60;
const LONGEST_LETTER = 8000;
const isAsked = (value: unknown): boolean =>
  typeof value === 'string' && value !== '' && value.length <= LONGEST.line;

/** A letter to a supplier. */
export class LetterDoor {
  @OneOf(LETTER_LANGUAGES) language!: string;
  @Values(MOST_ASKED, 'not-text', 'Name what is asked.', isAsked) about!: string[];
  @Name('the letter’s subject', LONGEST.line) subject!: string;
  @Text(LONGEST_LETTER) body!: string;
}

export class LetterFiledDoor extends LetterDoor {
  @Day() on!: string;
}
