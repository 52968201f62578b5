/** Phrases made ready for finding: their words with all the forms in which they may stand. */
import { plain } from './text';
import type { ClaimPhrase } from './types';

export type Step = { kind: 'gap' } | { kind: 'word'; forms: string[]; isOptional: boolean };

export interface Pattern {
  phrase: ClaimPhrase;
  /** In their order; of words that may stand apart in a sentence and in any order, those words. */
  steps: Step[];
  isApart: boolean;
  /** Forms beside which words that stand apart promise nothing. */
  unless: string[];
  weight: number;
}

/** Words that stand apart are read last: any phrase that is known goes before. */
const APART = ' & ';
const APART_WEIGHT = 0.1;

function stepsOf(say: string): Step[] {
  return say.split(/\s+/).map((part): Step => {
    if (part === '..') return { kind: 'gap' };
    const isOptional = /^\(.*\)$/.test(part);
    const forms = (isOptional ? part.slice(1, -1) : part).split('|').map(plain);
    return { kind: 'word', forms, isOptional };
  });
}

/** A word that may be left out weighs little: what is surely there counts. */
const OPTIONAL_WEIGHT = 0.25;

function weightOf(step: Step): number {
  if (step.kind === 'gap') return 0;
  return step.isOptional ? OPTIONAL_WEIGHT : 1;
}

/**
 * Phrases made ready for finding; longer ones come first, so that they win over their parts, and of two as long the one
 * that promises nothing.
 */
export function preparePhrases(phrases: readonly ClaimPhrase[]): Pattern[] {
  return phrases
    .flatMap((phrase) =>
      phrase.say.map((say) => {
        const isApart = say.includes(APART);
        const steps = stepsOf(say.replaceAll(APART, ' '));
        const unless = (phrase.unless ?? '').split(' ').filter(Boolean).map(plain);
        const weight = isApart ? APART_WEIGHT : steps.reduce((sum, step) => sum + weightOf(step), 0);
        return { phrase, steps, isApart, unless, weight };
      }),
    )
    .sort(
      (a, b) =>
        b.weight - a.weight || Number(b.phrase.isSilent ?? false) - Number(a.phrase.isSilent ?? false),
    );
}

/** How a form with a star before or behind it is held against a text: German writes its words together. */
export function starred(form: string): ((text: string) => boolean) | null {
  const [before, behind] = [form.startsWith('*'), form.endsWith('*')];
  if (!before && !behind) return null;
  const bare = form.slice(before ? 1 : 0, behind ? -1 : undefined);
  if (before && behind) return (text) => text.includes(bare);
  return before ? (text) => text.endsWith(bare) : (text) => text.startsWith(bare);
}
