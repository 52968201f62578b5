/** What the worktable shows of an assessment: each line's governing limit, in words and for drawing. */
import type { AssessedLimit, Assessment } from '../../core/formula/answer';
import type { Formula, Kind, RequestError } from '../../core/formula/types';
import { binds } from '../../core/loads/limits';
import { spoken } from '../../core/spoken';
import { BASIS_WORDS, FORCE_WORDS, KIND_WORDS, percent } from '../../ui/words';

/** The limit that matters most for a line: the first it feeds, in the answer's order of worst first. */
export function governingLimit(assessment: Assessment, lineId: string): AssessedLimit | null {
  return (
    assessment.limits.find(({ contributors }) => contributors.some(({ line }) => line === lineId)) ?? null
  );
}

/** The load of a limit as multiples of it. A limit of zero is drawn as far past as anything can be. */
export function asMultiples(limit: AssessedLimit) {
  const ratio = (value: number) => (limit.maxPct > 0 ? value / limit.maxPct : value > 0 ? Infinity : 0);
  return { low: ratio(limit.lowPct), nominal: ratio(limit.nominalPct), high: ratio(limit.highPct) };
}

/** The share of a limit's load that lines other than this bring, 0 to 1. */
export function othersShare(limit: AssessedLimit, lineId: string): number {
  const own = limit.contributors.find(({ line }) => line === lineId)?.sharePct ?? 0;
  return 1 - own / 100;
}

/** An id read as words: "sea-salt-fine" is "Sea salt fine". */
export function inWords(id: string): string {
  const words = spoken(id);
  return words.charAt(0).toUpperCase() + words.slice(1);
}

/** What a limit speaks of, in words. */
export function subjectName(limit: AssessedLimit, materialName: (id: string) => string): string {
  const { type, id } = limit.subject;
  // A part of a mix is not on the table, and has no name there.
  if (type === 'colour' || type === 'inci') return id;
  if (type === 'material') return materialName(id) === id ? inWords(id) : materialName(id);
  return type === 'kind' ? KIND_WORDS[id as Kind] : inWords(id);
}

/** A row that a market does not let a colour in. */
export const isColour = ({ subject }: Pick<AssessedLimit, 'subject'>): boolean => subject.type === 'colour';

/** "4.44 % of the cured bar, limit 4.5 %", or of what binds nobody "7 % of the fats, makers stay under 5 %". */
export function againstLimit(limit: AssessedLimit): string {
  if (isColour(limit)) return `not let in as a colour in a cosmetic in the ${limit.market}`;
  const most = binds(limit.force) ? 'limit' : 'makers stay under';
  return `${percent(limit.nominalPct)} ${BASIS_WORDS[limit.basis]}, ${most} ${percent(limit.maxPct)}`;
}

/** What the craft's source says of itself, which the foot of the loads says once. */
const CRAFT_SOURCE = /\.? ?Usual range among makers; advice, not law$/;

/** Against what: force and source. Certificates name themselves. */
export function sourceOf(limit: AssessedLimit): string {
  if (!limit.source) return FORCE_WORDS[limit.force];
  if (isColour(limit)) return `${limit.source}.`;
  if (limit.force === 'craft') {
    const effect = limit.source.replace(CRAFT_SOURCE, '');
    return effect === '' ? FORCE_WORDS.craft : `${FORCE_WORDS.craft}: ${effect}.`;
  }
  return limit.force === 'certificate' ? limit.source : `${FORCE_WORDS[limit.force]}: ${limit.source}`;
}

/** What the reckoning found wrong with a line, if anything. */
export function faultOfLine(
  errors: readonly RequestError[],
  formula: Formula,
  lineId: string,
): string | undefined {
  const index = formula.lines.findIndex(({ id }) => id === lineId);
  return errors.find(({ path }) => path.startsWith(`formula.lines.${index}.`))?.message;
}
