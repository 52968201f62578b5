import type { Assessment, School } from '../../core/formula/answer';
import type { Market } from '../../core/formula/types';
import { VerdictMark } from '../../ui/VerdictMark';
import { effectOnProduct } from '../../core/loads/limits';
import { CRAFT_MEANING, MARKET_WORDS, percent, VERDICT_MEANINGS, VERDICT_WORDS } from '../../ui/words';
import { BatterSettings } from './BatterSettings';
import { againstLimit, sourceOf, subjectName } from './view';

interface VerdictProps {
  assessment: Assessment;
  /** The material of a line. */
  materialOf: (lineId: string) => string;
  materialName: (id: string) => string;
  rulebookEdition: string;
  today: string;
  /** The day whose rules are looked at. */
  onDate: string;
  onOnDate: (day: string) => void;
  isOld: boolean;
}

/** The product's verdict: against what, how sure, and from which day's rules. */
export function VerdictPanel({
  materialOf,
  assessment,
  materialName,
  rulebookEdition,
  today,
  onDate,
  onOnDate,
  isOld,
}: VerdictProps) {
  const { verdict } = assessment;
  const telling = assessment.limits.find((row) => effectOnProduct(row.force, row.verdict) === verdict);
  const worst = verdict === 'unproven' ? undefined : telling;
  const unproven = [...new Set(assessment.unproven.map(({ line }) => materialName(materialOf(line))))];
  return (
    <section aria-label="Verdict" className="border-b border-line pb-3">
      <div role="status" aria-live="polite" className="flex items-center gap-3">
        <VerdictMark verdict={verdict} size={34} />
        <h2 className="text-[1.9rem] leading-none">{VERDICT_WORDS[verdict]}</h2>
        {isOld && <span className="text-madder">last good reckoning</span>}
      </div>
      <p className="mt-1">
        {verdict === 'tight' && worst?.force === 'craft' ? CRAFT_MEANING : VERDICT_MEANINGS[verdict]}
        {verdict === 'unproven' && ` ${unproven.join(', ')}.`}
      </p>
      {worst && verdict !== 'clear' && (
        <p className="mt-1">
          <strong className="font-semibold">{subjectName(worst, materialName)}</strong>: {againstLimit(worst)}
          . With the doubt it reads {percent(worst.lowPct)} to {percent(worst.highPct)}.
          <br />
          <span className="text-soft">{sourceOf(worst)}</span>
        </p>
      )}
      <div className="eyebrow mt-1 flex flex-wrap items-baseline gap-x-2">
        <span>
          {assessment.markets
            .map((entry) => `${entry.market} ${VERDICT_WORDS[entry.verdict].toLowerCase()}`)
            .join(' · ')}{' '}
          · rulebook {rulebookEdition} ·
        </span>
        <label className="flex items-baseline gap-1">
          rules as of
          <input
            type="date"
            className="field py-0"
            value={onDate}
            onChange={(event) => event.target.value && onOnDate(event.target.value)}
          />
        </label>
        {onDate !== today && (
          <button
            type="button"
            className="cursor-pointer text-ultra underline"
            onClick={() => onOnDate(today)}
          >
            back to today
          </button>
        )}
      </div>
    </section>
  );
}

interface ListProps {
  assessment: Assessment;
  market: Market;
  markets: readonly Market[];
  school: School;
  onMarket: (market: Market) => void;
  onSchool: (school: School) => void;
}

const SCHOOL_WORDS: Record<School, string> = { added: 'As added', formed: 'As formed' };

function Choice<T extends string>(props: {
  legend: string;
  options: readonly T[];
  value: T;
  words: Record<T, string>;
  onChange: (value: T) => void;
}) {
  return (
    <fieldset className="flex gap-3">
      <legend className="sr-only">{props.legend}</legend>
      {props.options.map((option) => (
        <label key={option} className="flex cursor-pointer items-center gap-1">
          <input
            type="radio"
            name={props.legend}
            checked={option === props.value}
            onChange={() => props.onChange(option)}
            className="accent-ultra"
          />
          {props.words[option]}
        </label>
      ))}
    </fieldset>
  );
}

/** The ingredient list the formula leads to, in the chosen school and market. */
export function ListPanel({ assessment, market, markets, school, onMarket, onSchool }: ListProps) {
  const list = assessment.ingredients.find((entry) => entry.market === market && entry.school === school);
  const declared = assessment.declarables.filter((row) => row.market === market && row.declare);
  return (
    <section aria-label="Ingredient list" className="border-b border-line py-3">
      <div className="flex flex-wrap items-baseline justify-between gap-x-4">
        <h2 className="text-lg">Ingredients</h2>
        <Choice
          legend="School of the list"
          options={['added', 'formed']}
          value={school}
          words={SCHOOL_WORDS}
          onChange={onSchool}
        />
      </div>
      {markets.length > 1 && (
        <div className="mt-1 text-[0.93rem]">
          <Choice legend="Market" options={markets} value={market} words={MARKET_WORDS} onChange={onMarket} />
        </div>
      )}
      <p className="mt-1.5 leading-snug" data-testid="list-text">
        {list?.text}
      </p>
      <p className="eyebrow mt-1">
        {declared.length === 0
          ? 'No scent allergen to name under the dates in force.'
          : `Named above ${percent(declared[0]!.thresholdPct)}: ${declared
              .map((row) => `${row.name} ${percent(row.highPct)}${row.certain ? '' : ' at most'}`)
              .join(', ')}`}
      </p>
    </section>
  );
}

/** Lye, liquid and other notes, gravest first; and what they are set from. */
export function NotesPanel({ assessment }: { assessment: Assessment }) {
  const { superfat, masses } = assessment;
  const shown = (value: number | null) => (value === null ? 'none' : percent(value));
  return (
    <section aria-label="Lye and notes" className="border-b border-line py-3">
      <h2 className="text-lg">Lye and liquid</h2>
      <p className="tabular-nums">
        {masses.alkaliG.toFixed(1)} g sodium hydroxide in {masses.liquidG.toFixed(1)} g liquid · superfat{' '}
        {shown(superfat.effectivePct)} · pour {masses.pourG.toFixed(0)} g · cured {masses.curedG.toFixed(0)} g
      </p>
      <p className="eyebrow">
        Check the lye by a second method before a first pour. Goggles and gloves; lye into liquid, never the
        reverse; nothing of aluminium.
      </p>
      <ul>
        {assessment.notes.map((note) => (
          <li
            key={`${note.code} ${note.line}`}
            className={
              note.severity === 'danger' ? 'border-l-4 border-madder bg-wash px-2 py-1 font-medium' : ''
            }
          >
            {note.text}
          </li>
        ))}
      </ul>
      <BatterSettings />
    </section>
  );
}

const UNMET_WORDS = { lauricFats: 'lauric fats', superfat: 'superfat' };

/** Craft advice that the rest of the formula does not meet; apart from what binds. */
export function AdvicePanel({ assessment }: { assessment: Assessment }) {
  if (assessment.advice.length === 0) return null;
  return (
    <section aria-label="Craft advice" className="py-3">
      <h2 className="text-lg">Craft advice</h2>
      <ul>
        {assessment.advice.map((advice) => (
          <li key={advice.id} className="leading-snug">
            {advice.reason}{' '}
            <span className="text-soft">
              {advice.unmet
                .map(
                  ({ what, wantedPct, foundPct }) =>
                    `${UNMET_WORDS[what]} ${percent(foundPct)}, wanted ${percent(wantedPct)}`,
                )
                .join('; ')}
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}
