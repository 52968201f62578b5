import type { AssessedLine, Assessment } from '../../core/formula/answer';
import type { Amount, Line } from '../../core/formula/types';
import { writeAmount } from '../../core/quantities/amount';
import { Straightedge } from '../../ui/Straightedge';
import { VerdictMark } from '../../ui/VerdictMark';
import { grams, percent, VERDICT_WORDS } from '../../ui/words';
import { AmountField } from './AmountField';
import { againstLimit, asMultiples, governingLimit, othersShare, sourceOf, subjectName } from './view';

interface Props {
  line: Line;
  assessment: Assessment;
  margin: number;
  materialName: (id: string) => string;
  fault?: string;
  onChange: (amount: Amount) => void;
  onFault: (message: string | null) => void;
  onLargest: (amount: Amount) => void;
}

/** Largest loads are put in rounded down to this many decimals, so that rounding never lifts them over. */
const LARGEST_DECIMALS = 2;

/** The largest load in the line's unit, rounded down; null where nothing binds. */
function roundedLargest(assessed: AssessedLine): Amount | null {
  if (!assessed.maxInUnit) return null;
  const step = 10 ** LARGEST_DECIMALS;
  return { value: Math.floor(assessed.maxInUnit.value * step) / step, unit: assessed.maxInUnit.unit };
}

function Masses({ assessed }: { assessed: AssessedLine }) {
  return (
    <p className="font-narrow text-[0.9rem] leading-tight text-soft tabular-nums">
      {grams(assessed.massG)} · {percent(assessed.pctCured)} cured
      <br />
      {percent(assessed.pctFats)} fats
    </p>
  );
}

function Room({ assessed, onLargest }: { assessed: AssessedLine; onLargest: Props['onLargest'] }) {
  const largest = roundedLargest(assessed);
  if (!largest || assessed.maxG === null) return <span className="text-soft">no limit on file</span>;
  const roomG = assessed.maxG - assessed.massG;
  return (
    <div className="leading-tight">
      <p className="tabular-nums">{roomG >= 0 ? `room ${grams(roomG)}` : `past by ${grams(-roomG)}`}</p>
      <button
        type="button"
        className="cursor-pointer text-left text-ultra underline underline-offset-2"
        onClick={() => onLargest(largest)}
      >
        Set to {writeAmount(largest)}
      </button>
    </div>
  );
}

/** A line with something to hold it against: amount, masses, the straightedge and the room left. */
export function LoadRow(props: Props) {
  const { line, assessment, margin, materialName, fault, onChange, onFault, onLargest } = props;
  const assessed = assessment.lines.find(({ id }) => id === line.id)!;
  const limit = governingLimit(assessment, line.id);
  const unproven = assessment.unproven.some((entry) => entry.line === line.id);
  const name = materialName(line.material);
  const verdict = unproven && limit?.verdict !== 'over' ? 'unproven' : limit?.verdict;
  const said = limit ? `${subjectName(limit, materialName)}: ${againstLimit(limit)}` : 'No limit on file';
  return (
    <li className="load-row">
      <div className="py-1.5">
        <p className="leading-tight font-medium">{name}</p>
        {verdict && (
          <p className="flex items-center gap-1.5 text-[0.87rem]">
            <VerdictMark verdict={verdict} size={13} />
            {VERDICT_WORDS[verdict]}
            {limit?.portion && ` in portion ${limit.portion}`}
          </p>
        )}
      </div>
      <div className="py-1.5">
        <AmountField
          label={`Amount of ${name}`}
          amount={line.amount}
          fault={fault}
          onChange={onChange}
          onFault={onFault}
        />
      </div>
      <div className="py-1.5">
        <Masses assessed={assessed} />
      </div>
      <div className="load-track">
        {verdict && (
          <Straightedge
            load={limit ? asMultiples(limit) : undefined}
            othersShare={limit ? othersShare(limit, line.id) : 0}
            margin={margin}
            label={`${said}. ${VERDICT_WORDS[verdict]}.`}
          />
        )}
      </div>
      <div className="load-room self-center py-1.5 text-[0.93rem]">
        <Room assessed={assessed} onLargest={onLargest} />
      </div>
      {limit && (
        <p className="load-against pb-2 font-narrow text-[0.93rem] leading-tight">
          {said}
          <br />
          <span className="text-soft">{sourceOf(limit)}</span>
        </p>
      )}
    </li>
  );
}

/** A line that makes the batter and has no ceiling of its own. */
export function BaseRow({
  line,
  assessment,
  materialName,
  fault,
  onChange,
  onFault,
}: Omit<Props, 'onLargest' | 'margin'>) {
  const assessed = assessment.lines.find(({ id }) => id === line.id)!;
  const name = materialName(line.material);
  return (
    <li className="base-row">
      <span className="leading-tight font-medium">{name}</span>
      <AmountField
        label={`Amount of ${name}`}
        amount={line.amount}
        fault={fault}
        onChange={onChange}
        onFault={onFault}
      />
      <span className="text-right font-narrow text-soft tabular-nums">{grams(assessed.massG)}</span>
    </li>
  );
}
