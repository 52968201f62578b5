import { inHouse } from '../../ui/masses';
import { newStep } from '../../ui/step';
import { Faults } from '../../ui/Faults';
import { address, send, type Fault } from '../../ui/api';
import { memo, useState } from 'react';
import type { AssessedLimit, Assessment, School } from '../../core/formula/answer';
import type { Market } from '../../core/formula/types';
import { DayField } from '../../ui/DayField';
import { VerdictMark } from '../../ui/VerdictMark';
import { conditionSaid } from '../../core/paperwork/conditions';
import { binds, effectOnProduct } from '../../core/loads/limits';
import {
  COLOUR_MEANING,
  CRAFT_MEANING,
  MARKET_WORDS,
  percent,
  VERDICT_MEANINGS,
  VERDICT_WORDS,
  gramsAt,
} from '../../ui/words';
import { useTable } from './context';
import { LyeTable } from './LyeTable';
import { useSums } from './Sums';
import { againstLimit, isColour, sourceOf, subjectName } from './view';

/** The market's verdict and the least room it has left, in words and as a small stroke. */
function MarketLine({ market, verdict }: Assessment['markets'][number]) {
  const { assessment, materialName } = useTable();
  const closest = assessment.limits.find((row) => row.market === market && binds(row.force));
  const room = closest?.headroomPct;
  const colour = assessment.limits.find((row) => row.market === market && isColour(row));
  return (
    <li className="flex items-center gap-2">
      <span className="w-7 font-medium">{market}</span>
      <VerdictMark verdict={verdict} size={13} />
      <span className="w-20">{VERDICT_WORDS[verdict]}</span>
      <span className="font-narrow text-soft tabular-nums">
        {colour
          ? `${colour.subject.id}: not let in as a colour`
          : closest && room != null
            ? `${room >= 0 ? `${percent(100 - room)} of the limit used` : `${percent(-room)} past the limit`}, ${subjectName(closest, materialName)}`
            : 'no limit applies here'}
      </span>
    </li>
  );
}

/** What a verdict means, by what makes it. */
function meaningOf(verdict: Assessment['verdict'], worst: AssessedLimit | undefined): string {
  if (verdict !== 'tight' || worst?.force !== 'craft') return VERDICT_MEANINGS[verdict];
  return isColour(worst) ? COLOUR_MEANING : CRAFT_MEANING;
}

/** The day whose rules are looked at; drawn again only where it changes. */
const AsOf = memo(function AsOf({ day, onDay }: { day: string; onDay: (day: string) => void }) {
  return (
    <DayField label="rules as of" isLabelHidden value={day} onChange={(picked) => picked && onDay(picked)} />
  );
});

interface VerdictProps {
  onOnDate: (day: string) => void;
  isOld: boolean;
}

/** The product's verdict: against what, how sure, and from which day's rules. */
export function VerdictPanel({ onOnDate, isOld }: VerdictProps) {
  const { data, formula, assessment, onDate, materialName } = useTable();
  const { verdict } = assessment;
  const telling = assessment.limits.find((row) => effectOnProduct(row.force, row.verdict) === verdict);
  const worst = verdict === 'unproven' ? undefined : telling;
  const materialOf = (lineId: string) => formula.lines.find(({ id }) => id === lineId)?.material ?? lineId;
  const asked = data.conditions.filter(
    ({ state, material }) => state !== 'met' && formula.lines.some((line) => line.material === material),
  );
  const off = useSums().sums.filter(({ isOff }) => isOff);
  const unproven = [...new Set(assessment.unproven.map(({ line }) => materialName(materialOf(line))))];
  return (
    <section aria-label="Verdict" className="border-b border-line pb-2">
      <div role="status" aria-live="polite" className="flex items-center gap-3">
        <VerdictMark verdict={verdict} size={32} />
        <h2 className="text-[1.8rem] leading-none">{VERDICT_WORDS[verdict]}</h2>
        {isOld && <span className="text-madder">from before this change</span>}
      </div>
      <p className="mt-1 leading-snug">
        {meaningOf(verdict, worst)}
        {verdict === 'unproven' && ` ${unproven.join(', ')}.`}
        {worst && verdict !== 'clear' && (
          <>
            {' '}
            <strong className="font-semibold">{subjectName(worst, materialName)}</strong>:{' '}
            {againstLimit(worst)}.{' '}
            {!isColour(worst) &&
              `With the doubt it reads ${percent(worst.lowPct)} to ${percent(worst.highPct)}. `}
            <span className="text-soft">{sourceOf(worst)}</span>
          </>
        )}
      </p>
      {off.length > 0 && (
        <p role="alert" className="mt-1 text-madder">
          It rests on figures that do not add up:{' '}
          {off.map(({ of, pct }) => `${of === 'fats' ? 'fats' : 'liquids'} of ${percent(pct)}`).join(', ')}.
        </p>
      )}
      {asked.length > 0 && (
        <ul aria-label="What only a paper shows" className="mt-1 border-l-4 border-line pl-2">
          {asked.map((stand) => (
            <li
              key={`${stand.material} ${stand.condition.id}`}
              className={stand.state === 'notMet' ? 'text-madder' : ''}
            >
              {conditionSaid(stand)} <span className="text-soft">({stand.condition.markets.join(', ')})</span>
            </li>
          ))}
        </ul>
      )}
      <ul className="mt-1 text-[0.93rem]">
        {assessment.markets.map((entry) => (
          <MarketLine key={entry.market} {...entry} />
        ))}
      </ul>
      <div className="eyebrow mt-0.5 flex flex-wrap items-baseline gap-x-2">
        <span>Rulebook {data.rulebookEdition},</span>
        <span aria-hidden="true">rules as of</span>
        <AsOf day={onDate} onDay={onOnDate} />
        {onDate !== data.onDate && (
          <button
            type="button"
            className="cursor-pointer text-ultra underline"
            onClick={() => onOnDate(data.onDate)}
          >
            back to today
          </button>
        )}
      </div>
    </section>
  );
}

interface ListProps {
  market: Market;
  onMarket: (market: Market) => void;
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

/** The school of the list, one for the bar and market: what is chosen here is chosen on the wrap. */
function useSchool(market: Market) {
  const { data } = useTable();
  const [schools, setSchools] = useState(data.schools);
  const [faults, setFaults] = useState<Fault[]>([]);
  const choose = async (school: School) => {
    const before = schools;
    setSchools({ ...schools, [market]: school });
    const answer = await send('PUT', address('products', data.product.id, 'school'), { market, school });
    setFaults(answer.ok ? [] : answer.faults);
    if (!answer.ok) setSchools(before);
  };
  return { school: schools[market], choose, faults };
}

const NAMING_WORDS = { parfum: 'as one scent', named: 'by their own names' } as const;

/** The ingredient list the formula leads to, in the bar's school for the market. */
export function ListPanel({ market, onMarket }: ListProps) {
  const { data, assessment, formula, change, material } = useTable();
  const { school, choose, faults } = useSchool(market);
  const { markets } = data.product;
  const list = assessment.ingredients.find((entry) => entry.market === market && entry.school === school);
  const declared = assessment.declarables.filter((row) => row.market === market && row.declare);
  const hasOils = formula.lines.some((line) => material(line.material)?.kind === 'essentialOil');
  return (
    <section aria-label="Ingredient list" className="border-b border-line py-2">
      <div className="flex flex-wrap items-baseline justify-between gap-x-4">
        <h2 className="text-lg">Ingredients</h2>
        <Choice
          legend="School of the list"
          options={['added', 'formed']}
          value={school}
          words={SCHOOL_WORDS}
          onChange={(next) => void choose(next)}
        />
      </div>
      <Faults faults={faults} />
      {markets.length > 1 && (
        <div className="mt-1 text-[0.93rem]">
          <Choice legend="Market" options={markets} value={market} words={MARKET_WORDS} onChange={onMarket} />
        </div>
      )}
      <p className="mt-1.5 leading-snug" data-testid="list-text">
        {list?.text}
      </p>
      {hasOils && (
        <div className="mt-1 flex flex-wrap gap-x-3 text-[0.93rem]">
          <span className="text-soft">Essential oils</span>
          <Choice
            legend="Essential oils"
            options={['parfum', 'named']}
            value={formula.scentNaming ?? 'parfum'}
            words={NAMING_WORDS}
            onChange={(scentNaming) => change((now) => ({ ...now, scentNaming }), newStep('naming'))}
          />
          {formula.scentNaming === 'named' && (
            <span className="text-soft">
              The EU’s and the UK’s rule (Article 19) asks for Parfum: naming oils one by one departs from it.
            </span>
          )}
        </div>
      )}
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
export function NotesPanel() {
  const { assessment } = useTable();
  const { superfat, masses } = assessment;
  const shown = (value: number | null) => (value === null ? 'none' : percent(value));
  return (
    <section aria-label="Lye and notes" className="border-b border-line py-2">
      <h2 className="text-lg">Lye and liquid</h2>
      <p className="tabular-nums">
        {gramsAt(masses.alkaliG, 0.1)} sodium hydroxide in {gramsAt(masses.liquidG, 0.1)} liquid · superfat{' '}
        {shown(superfat.effectivePct)} · pour {gramsAt(masses.pourG, 1)} · cured {gramsAt(masses.curedG, 1)}
      </p>
      <p className="eyebrow">
        Check the lye by a second method before a first pour. Goggles and gloves; lye into liquid, never the
        reverse; nothing of aluminium.
      </p>
      <LyeTable />
      <ul>
        {assessment.notes.map((note) => (
          <li
            key={`${note.code} ${note.line}`}
            className={
              note.severity === 'danger' ? 'border-l-4 border-madder bg-wash px-2 py-1 font-medium' : ''
            }
          >
            {inHouse(note.text)}
          </li>
        ))}
      </ul>
    </section>
  );
}

const UNMET_WORDS = { lauricFats: 'lauric fats', superfat: 'superfat' };

/** Craft advice that the rest of the formula does not meet; apart from what binds. */
export function AdvicePanel() {
  const { assessment } = useTable();
  if (assessment.advice.length === 0) return null;
  return (
    <section aria-label="Craft advice" className="py-2">
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
