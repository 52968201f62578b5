import type { MixPart } from '../../core/formula/mix';
import { effectOnProduct } from '../../core/loads/limits';
import type { TryBar } from '../../core/records/scent';
import type { BlendAnswer, Bound, Demanded } from '../../core/scent/nearest';
import type { BlendDemand } from '../../core/scent/programme';
import { VerdictMark } from '../../ui/VerdictMark';
import { FORCE_WORDS, percent, VERDICT_WORDS } from '../../ui/words';
import { inWords, subjectName } from '../worktable/view';
import { partsOfMasses, tryBlend, type Bench } from './reckoning';

type Found = Extract<BlendAnswer, { outcome: 'found' }>;
const DECIMALS = 3;

function demandInWords(demanded: Demanded, nameOf: (id: string) => string): string {
  switch (demanded.kind) {
    case 'total':
      return demanded.pctFats > 0 ? `${percent(demanded.pctFats)} of the fats in all` : 'any scent at all';
    case 'leeway':
      return `${nameOf(demanded.line.replace(/^oil /, ''))} close to its part`;
    case 'threshold':
      return `${demanded.name} under the ${percent(demanded.maxPct)} at which ${demanded.market} asks for its name`;
    case 'limit': {
      const { subject, maxPct, portion } = demanded;
      const name = subject.type === 'material' ? nameOf(subject.id) : inWords(subject.id);
      return `${name} at most ${percent(maxPct)}${portion ? ` in portion ${portion}` : ''}`;
    }
  }
}

function boundInWords(bound: Bound, demand: BlendDemand, found: Found): string {
  if (demand.mode === 'largest') {
    const more = bound.looserTotalPctFats;
    return more === null || more <= found.totalPctFats + 1e-6
      ? 'ten percent more of it alone would buy nothing'
      : `ten percent more of it would let the whole go to ${percent(more)}`;
  }
  const moved = bound.looserMovedPct;
  return moved === null || moved >= found.movedPct - 1e-6
    ? 'ten percent more of it alone would change nothing'
    : `with ten percent more of it, ${percent(moved)} would change hands instead of ${percent(found.movedPct)}`;
}

/** Rounded down, so that the total never lifts a load over. */
function totalOf(found: Found, demand: BlendDemand): number {
  if (demand.mode === 'nearest') return demand.totalPctFats;
  return Math.floor(found.totalPctFats * 10 ** DECIMALS) / 10 ** DECIMALS;
}

export interface AnswerProps {
  bench: Bench;
  bar: TryBar;
  nameOf: (id: string) => string;
  onTake: (parts: MixPart[], totalPct: number) => void;
  answer: BlendAnswer;
  demand: BlendDemand;
}

/** What the solver found, assessed again, and what bound it; or what does not go together. */
export function SolverAnswer({ answer, demand, bench, bar, nameOf, onTake }: AnswerProps) {
  if (answer.outcome === 'unbounded') return <p>No limit on file holds this blend back.</p>;
  if (answer.outcome === 'nothing') {
    return (
      <div role="status">
        <p className="font-medium">Nothing fits. These do not go together:</p>
        <ul className="list-disc pl-5">
          {answer.collide.map((one) => (
            <li key={JSON.stringify(one)}>{demandInWords(one, nameOf)}</li>
          ))}
        </ul>
      </div>
    );
  }
  const parts = partsOfMasses(answer.masses);
  const total = totalOf(answer, demand);
  const again = tryBlend(bench, bar, parts, total)?.assessment ?? null;
  const telling = again?.limits.find(
    ({ force, verdict }) => effectOnProduct(force, verdict) === again.verdict,
  );
  return (
    <div role="status">
      <p>
        <strong className="font-semibold">{percent(total)} of the fats</strong>
        {answer.movedPct > 0.005
          ? `, ${percent(answer.movedPct)} of the blend moved`
          : ', the parts as they are'}
      </p>
      <ul className="tabular-nums">
        {parts.map(({ material, parts: share }) => (
          <li key={material} className="flex justify-between border-b border-hair">
            <span>{nameOf(material)}</span>
            <span>{percent(share)}</span>
          </li>
        ))}
      </ul>
      {again && (
        <p className="mt-1 flex items-center gap-2">
          <VerdictMark verdict={again.verdict} size={16} /> Assessed again:{' '}
          {VERDICT_WORDS[again.verdict].toLowerCase()}
          {telling &&
            again.verdict !== 'clear' &&
            ` (${subjectName(telling, nameOf)}, ${FORCE_WORDS[telling.force].toLowerCase()})`}
        </p>
      )}
      {answer.bounds.length > 0 && (
        <>
          <h3 className="mt-1 font-medium">What bound it</h3>
          <ul className="list-disc pl-5 leading-snug">
            {answer.bounds.map((bound) => (
              <li key={JSON.stringify(bound.meaning)}>
                {demandInWords(bound.meaning, nameOf)};{' '}
                <span className="text-soft">{boundInWords(bound, demand, answer)}</span>
              </li>
            ))}
          </ul>
        </>
      )}
      <button type="button" className="action action-strong mt-2" onClick={() => onTake(parts, total)}>
        Take these parts
      </button>
    </div>
  );
}
