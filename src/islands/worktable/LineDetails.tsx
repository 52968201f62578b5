import { ArrowDown, ArrowUp, Trash2 } from 'lucide-react';
import { MEASURES, STAGES, type Line, type Measure, type Stage } from '../../core/formula/types';
import type { Explanation } from '../../core/formula/answer';
import { writeAmount } from '../../core/quantities/amount';
import { Select } from '../../ui/Select';
import { BASIS_WORDS, grams, MEASURE_WORDS, percent, STAGE_WORDS } from '../../ui/words';
import { useTable } from './context';
import { changeLine, moveLine, removeLine } from './edits';
import linesStyles from './lines.module.css';

const BASIS_STEP_WORDS = {
  fats: 'fats',
  pour: 'fresh pour',
  water: 'less its water',
  dry: 'dry',
  cured: 'cured',
};

/** The chain from the maker's amount to the concentration, step by step. */
function Chain({ chain }: { chain: Explanation }) {
  return (
    <div className="mt-2 font-narrow text-[0.95rem] tabular-nums">
      <p className="eyebrow">How {percent(chain.nominalPct)} comes about</p>
      <ol className="mt-0.5">
        {chain.terms.map((term) => (
          <li key={term.line}>
            {term.material}: {writeAmount(term.amount)} is {grams(term.massG)}
            {term.sharePct < 100 && ` × ${percent(term.sharePct)} = ${grams(term.broughtG)}`}
          </li>
        ))}
        {chain.terms.length > 1 && <li>together {grams(chain.subjectG)}</li>}
        <li>
          {chain.basisSteps.map(({ what, massG }) => `${BASIS_STEP_WORDS[what]} ${grams(massG)}`).join(', ')}
        </li>
        <li>
          {grams(chain.subjectG)} of {grams(chain.basisSteps.at(-1)!.massG)} is {percent(chain.nominalPct)}{' '}
          {BASIS_WORDS[chain.basis]}; at most {grams(chain.subjectHighG)} of {grams(chain.basisHighG)},{' '}
          {percent(chain.highPct)}; the limit is {percent(chain.maxPct)}
          {chain.portion && ` (portion ${chain.portion})`}
        </li>
      </ol>
    </div>
  );
}

/** Which paper counts for the material, why, and what to ask for. */
function PaperLine({ material }: { material: string }) {
  const { data } = useTable();
  const papers = data.papers[material];
  if (!papers) return null;
  const told = [papers.certificate, papers.allergens].flatMap((governing) => governing ?? []);
  return (
    <ul className="mt-2 font-narrow text-[0.95rem]">
      {told.map(({ paper, reasons, ask }) => (
        <li key={paper.id}>
          {paper.type === 'certificate' ? 'Certificate' : 'Allergen declaration'} {paper.number} of{' '}
          {paper.issuedOn} counts: {reasons.join('; ')}.
          {ask && <strong className="font-medium"> {ask}</strong>}
        </li>
      ))}
    </ul>
  );
}

const measureOptions = MEASURES.map((measure) => [measure, MEASURE_WORDS[measure]] as const);
const stageOptions = STAGES.map((stage) => [stage, STAGE_WORDS[stage]] as const);

/** Stage, measure, portion and place of a line, and the chain behind its governing limit. */
export function LineDetails({ line, chain }: { line: Line; chain?: Explanation }) {
  const { formula, change, materialName, toggle } = useTable();
  const set = (part: Partial<Line>) => change(changeLine(formula, line.id, part), `details ${line.id}`);
  const name = materialName(line.material);
  const portions = formula.portions ?? [];
  return (
    <div className={linesStyles.lineDetails}>
      <div className="flex flex-wrap items-end gap-4">
        <Select
          label="Goes in"
          value={line.stage}
          options={stageOptions}
          onChange={(stage: Stage) => set({ stage })}
        />
        <Select
          label="Measured"
          value={line.measuredBy ?? 'scale'}
          options={measureOptions}
          onChange={(measuredBy: Measure) => set({ measuredBy, uncertaintyPct: null })}
        />
        {portions.length > 0 && (
          <Select
            label="Portion"
            value={line.portion ?? ''}
            options={[['', 'all of the batter'], ...portions.map(({ id }) => [id, id] as const)]}
            onChange={(portion) => set({ portion: portion || null })}
          />
        )}
        <button
          type="button"
          className="action"
          aria-label={`Move ${name} up`}
          onClick={() => change((now) => moveLine(now, line.id, -1), 'move')}
        >
          <ArrowUp size={16} aria-hidden="true" />
        </button>
        <button
          type="button"
          className="action"
          aria-label={`Move ${name} down`}
          onClick={() => change((now) => moveLine(now, line.id, 1), 'move')}
        >
          <ArrowDown size={16} aria-hidden="true" />
        </button>
        <button
          type="button"
          className="action"
          onClick={() => {
            toggle(line.id);
            change((now) => removeLine(now, line.id), `remove ${line.id}`);
          }}
        >
          <Trash2 size={16} aria-hidden="true" /> Remove {name}
        </button>
      </div>
      <PaperLine material={line.material} />
      {chain && <Chain chain={chain} />}
    </div>
  );
}
