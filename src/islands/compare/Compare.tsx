import { guarded } from '../../ui/Guarded';
import { compareFormulas } from '../../core/formula/compare';
import type { Assessment, AssessedLimit } from '../../core/formula/answer';
import { binds } from '../../core/loads/limits';
import { outlookOn } from '../../core/outlook';
import type { TraitMaterial } from '../../core/formula/traits';
import { writeAmount } from '../../core/quantities/amount';
import type { ComparedSide } from '../../core/records/product';
import { differenceInWords } from '../../ui/differences';
import { useHydrated } from '../../ui/hydrated';
import { Straightedge } from '../../ui/Straightedge';
import { VerdictMark } from '../../ui/VerdictMark';
import { grams, GRADE_WORDS, JUDGEMENT_WORDS, percent, VERDICT_WORDS } from '../../ui/words';
import { asMultiples, subjectName } from '../worktable/view';

interface Choice {
  id: string;
  name: string;
  versions: { number: number; name: string }[];
}

export interface CompareData {
  left: ComparedSide;
  right: ComparedSide | null;
  choices: Choice[];
}

const sideKey = ({ product, version, number }: ComparedSide) =>
  version === null ? product.id : `${product.id}@${number}`;
const title = ({ product, version }: ComparedSide) =>
  version === null ? product.name : `${product.name}, ${version}`;

function Chooser({
  label,
  name,
  value,
  choices,
  other,
  shown,
}: {
  label: string;
  name: 'left' | 'right';
  value: string;
  choices: readonly Choice[];
  other: string | null;
  /** What is chosen, in words. */
  shown: string;
}) {
  // Hundreds of bars with their versions are listed once the page lives, not sent twice with it.
  const isAlive = useHydrated();
  const go = (next: string) => {
    const query = new URLSearchParams();
    query.set(name, next);
    if (other) query.set(name === 'left' ? 'right' : 'left', other);
    location.assign(`/compare?${query}`);
  };
  return (
    <label>
      <span className="eyebrow block">{label}</span>
      <select className="field w-full" value={value} onChange={(event) => go(event.target.value)}>
        {value === '' && <option value="">choose a bar</option>}
        {!isAlive && value !== '' && <option value={value}>{shown}</option>}
        {(isAlive ? choices : []).map(({ id, name: bar, versions }) => (
          <optgroup key={id} label={bar}>
            <option value={id}>{bar}, as it is</option>
            {versions.map((version) => (
              <option key={version.number} value={`${id}@${version.number}`}>
                {bar}, {version.name}
              </option>
            ))}
          </optgroup>
        ))}
      </select>
    </label>
  );
}

function assessmentOf(side: ComparedSide): Assessment | null {
  return side.result.ok ? side.result.assessment : null;
}

/** The limits of either side, each subject and source once, closest first. */
function limitsOf(sides: readonly Assessment[]): AssessedLimit[] {
  const seen = new Set<string>();
  return sides
    .flatMap(({ limits }) => limits.filter(({ force }) => binds(force)))
    .sort((a, b) => (a.headroomPct ?? -Infinity) - (b.headroomPct ?? -Infinity))
    .filter(({ subject, maxPct }) => {
      const key = `${subject.type} ${subject.id} ${maxPct}`;
      return !seen.has(key) && seen.add(key);
    });
}

const MOST_LIMITS = 8;

function LimitRow({
  row,
  sides,
  nameOf,
}: {
  row: AssessedLimit;
  sides: readonly Assessment[];
  nameOf: (id: string) => string;
}) {
  return (
    <tr>
      <th scope="row">
        {subjectName(row, nameOf)}
        <span className="block font-narrow font-normal text-soft">at most {percent(row.maxPct)}</span>
      </th>
      {sides.map((side, index) => {
        const found = side.limits.find(
          ({ subject, maxPct }) =>
            subject.type === row.subject.type && subject.id === row.subject.id && maxPct === row.maxPct,
        );
        return (
          <td key={index}>
            {found ? (
              <>
                <Straightedge load={asMultiples(found)} margin={0.1} label={VERDICT_WORDS[found.verdict]} />
                <span className="font-narrow text-soft">
                  {percent(found.highPct)}, {VERDICT_WORDS[found.verdict].toLowerCase()}
                </span>
              </>
            ) : (
              <span className="text-soft">holds none</span>
            )}
          </td>
        );
      })}
    </tr>
  );
}

function Figures({ sides }: { sides: readonly Assessment[] }) {
  const rows: [string, (side: Assessment) => string][] = [
    ['Fats', ({ masses }) => grams(masses.fatsG)],
    ['Sodium hydroxide', ({ masses }) => grams(masses.alkaliG)],
    ['Liquid', ({ masses }) => grams(masses.liquidG)],
    [
      'Superfat',
      ({ superfat }) => (superfat.effectivePct === null ? 'none' : percent(superfat.effectivePct)),
    ],
    ['Pour', ({ masses }) => grams(masses.pourG)],
    ['Cured', ({ masses }) => grams(masses.curedG)],
  ];
  return (
    <>
      {rows.map(([label, read]) => (
        <tr key={label}>
          <th scope="row">{label}</th>
          {sides.map((side, index) => (
            <td key={index} className="tabular-nums">
              {read(side)}
            </td>
          ))}
        </tr>
      ))}
    </>
  );
}

type NameOf = (id: string) => string;
/** A side that reckons. */
interface Reckoned {
  side: ComparedSide;
  assessment: Assessment;
}

function VerdictRow({ sides }: { sides: readonly Assessment[] }) {
  return (
    <tr>
      <th scope="row">Verdict</th>
      {sides.map((side, index) => (
        <td key={index}>
          <span className="flex items-center gap-2">
            <VerdictMark verdict={side.verdict} />
            <strong className="font-display text-lg">{VERDICT_WORDS[side.verdict]}</strong>
            <span className="text-soft">
              {side.markets
                .map(({ market, verdict }) => `${market} ${VERDICT_WORDS[verdict].toLowerCase()}`)
                .join(' · ')}
            </span>
          </span>
        </td>
      ))}
    </tr>
  );
}

function Amounts({ sides, nameOf }: { sides: readonly Reckoned[]; nameOf: NameOf }) {
  const materials = new Set(sides.flatMap(({ side }) => side.formula.lines.map(({ material }) => material)));
  const amount = ({ side }: Reckoned, material: string) =>
    side.formula.lines
      .filter((line) => line.material === material)
      .map((line) => writeAmount(line.amount))
      .join(' and ');
  return (
    <>
      {[...materials].map((material) => {
        const amounts = sides.map((side) => amount(side, material));
        return (
          <tr key={material} className={amounts[0] === amounts[1] ? 'text-soft' : ''}>
            <th scope="row">{nameOf(material)}</th>
            {amounts.map((one, index) => (
              <td key={index} className="tabular-nums">
                {one || 'none'}
              </td>
            ))}
          </tr>
        );
      })}
    </>
  );
}

function Outlooks({ sides }: { sides: readonly Reckoned[] }) {
  const [ones, others] = sides.map(({ side, assessment }) => {
    const byId = new Map(side.materials.map((material) => [material.id, material as TraitMaterial]));
    return outlookOn(side.formula, assessment, (id) => byId.get(id));
  });
  return (
    <>
      {ones!.map((judgement, index) => {
        const other = others![index]!;
        if (judgement.grade === 'calm' && other.grade === 'calm') return null;
        return (
          <tr key={judgement.id}>
            <th scope="row">{JUDGEMENT_WORDS[judgement.id]}</th>
            {[judgement, other].map(({ says, grade }, side) => (
              <td key={side}>
                {says} <span className="font-narrow text-soft">{GRADE_WORDS[grade]}</span>
              </td>
            ))}
          </tr>
        );
      })}
    </>
  );
}

function Lists({ sides }: { sides: readonly Assessment[] }) {
  return (
    <tr>
      <th scope="row">Ingredients, as added</th>
      {sides.map((side, index) => (
        <td key={index} className="leading-snug">
          {side.ingredients.find(({ school }) => school === 'added')?.text}
        </td>
      ))}
    </tr>
  );
}

function reckoned(...sides: readonly ComparedSide[]): Reckoned[] {
  return sides.flatMap((side) => {
    const assessment = assessmentOf(side);
    return assessment ? { side, assessment } : [];
  });
}

function Body({ left, right }: { left: ComparedSide; right: ComparedSide }) {
  const names = new Map([...left.materials, ...right.materials].map(({ id, name }) => [id, name]));
  const nameOf = (id: string) => names.get(id) ?? id;
  const differences = compareFormulas(left.formula, right.formula);
  const sides = reckoned(left, right);
  if (sides.length < 2)
    return <p role="alert">One of the two does not reckon. Put its formula right first.</p>;
  const assessments = sides.map(({ assessment }) => assessment);
  return (
    <>
      <p className="py-2">
        {differences.length === 0
          ? 'The two formulas are the same.'
          : `From left to right: ${differences.map((one) => differenceInWords(one, nameOf)).join('; ')}.`}
      </p>
      <table className="plain-table compare-table">
        <colgroup>
          <col className="w-44" />
          <col />
          <col />
        </colgroup>
        <thead className="sr-only">
          <tr>
            <th scope="col">What</th>
            <th scope="col">{title(left)}</th>
            <th scope="col">{title(right)}</th>
          </tr>
        </thead>
        <tbody>
          <VerdictRow sides={assessments} />
          {limitsOf(assessments)
            .slice(0, MOST_LIMITS)
            .map((row) => (
              <LimitRow key={`${row.id} ${row.market}`} row={row} sides={assessments} nameOf={nameOf} />
            ))}
          <Amounts sides={sides} nameOf={nameOf} />
          <Figures sides={assessments} />
          <Outlooks sides={sides} />
          <Lists sides={assessments} />
        </tbody>
      </table>
    </>
  );
}

/** Two bars, or two versions of one, side by side. */
function CompareIsland({ data }: { data: CompareData }) {
  const { left, right, choices } = data;
  return (
    <div className="sheet">
      <div className="grid grid-cols-[11rem_1fr_1fr] gap-4 max-md:grid-cols-2">
        <span className="max-md:hidden" />
        <Chooser
          label="On the left"
          name="left"
          value={sideKey(left)}
          choices={choices}
          other={right && sideKey(right)}
          shown={title(left)}
        />
        <Chooser
          label="On the right"
          name="right"
          value={right ? sideKey(right) : ''}
          choices={choices}
          other={sideKey(left)}
          shown={right ? title(right) : ''}
        />
      </div>
      {right ? (
        <Body left={left} right={right} />
      ) : (
        <p className="py-3">Choose what to put beside {title(left)}.</p>
      )}
    </div>
  );
}

export const Compare = guarded('The comparison', CompareIsland);
