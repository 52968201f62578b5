import { Trash2 } from 'lucide-react';
import type { MixPart } from '../../core/formula/mix';
import type { AssessedLimit } from '../../core/formula/answer';
import type { ScentDeskData, TryBar } from '../../core/records/scent';
import { NumberField } from '../../ui/ReadField';
import { Select } from '../../ui/Select';
import { Straightedge } from '../../ui/Straightedge';
import { VerdictMark } from '../../ui/VerdictMark';
import { grams, percent, VERDICT_WORDS } from '../../ui/words';
import { asMultiples, governingLimit, othersShare, subjectName } from '../worktable/view';
import type { Tried } from './reckoning';
import blendStyles from './blend.module.css';

interface Props {
  data: ScentDeskData;
  parts: MixPart[];
  tried: Tried | null;
  bars: readonly Pick<TryBar, 'id' | 'name'>[];
  barId: string;
  totalPct: number;
  nameOf: (id: string) => string;
  onParts: (parts: MixPart[], key: string) => void;
  onBar: (id: string) => void;
  onTotal: (pct: number) => void;
}

const ignore = () => undefined;

function said(limit: AssessedLimit | null, nameOf: (id: string) => string): string {
  if (!limit) return 'No certificate on file';
  return `${subjectName(limit, nameOf)} ${percent(limit.highPct)} of ${percent(limit.maxPct)}`;
}

interface OilRowProps {
  part: MixPart;
  total: number;
  tried: Tried | null;
  nameOf: (id: string) => string;
  onParts: (parts: number) => void;
  onRemove: () => void;
}

/** What an oil holds of the blend and of the bar, and what binds it closest. */
function Holds({ part, total, tried, nameOf }: Pick<OilRowProps, 'part' | 'total' | 'tried' | 'nameOf'>) {
  const line = `oil ${part.material}`;
  const assessed = tried?.assessment.lines.find(({ id }) => id === line);
  const limit = tried && assessed ? governingLimit(tried.assessment, line) : null;
  return (
    <>
      <span className="font-narrow leading-tight text-soft tabular-nums">
        {total > 0 && percent((100 * part.parts) / total)}
        {assessed && ` · ${grams(assessed.massG)} · ${percent(assessed.pctCured)} cured`}
        <br />
        <span className="text-ink">{assessed && said(limit, nameOf)}</span>
      </span>
      <Straightedge
        load={limit ? asMultiples(limit) : undefined}
        othersShare={limit ? othersShare(limit, line) : 0}
        margin={(tried?.request.formula.marginPct ?? 10) / 100}
        label={said(limit, nameOf)}
      />
    </>
  );
}

function OilRow({ part, total, tried, nameOf, onParts, onRemove }: OilRowProps) {
  const name = nameOf(part.material);
  return (
    <li className={blendStyles.blendRow}>
      <span className="font-medium">{name}</span>
      <NumberField
        label={`Parts of ${name}`}
        unit=""
        isLabelHidden
        value={part.parts}
        least={0}
        most={100_000}
        onChange={onParts}
        onFault={ignore}
      />
      <Holds part={part} total={total} tried={tried} nameOf={nameOf} />
      <button type="button" className="icon-action" aria-label={`Leave out ${name}`} onClick={onRemove}>
        <Trash2 size={15} aria-hidden="true" />
      </button>
    </li>
  );
}

function TriedIn({
  tried,
  bars,
  barId,
  totalPct,
  onBar,
  onTotal,
}: Omit<Props, 'data' | 'parts' | 'nameOf' | 'onParts'>) {
  return (
    <div className="flex flex-wrap items-end gap-x-5 gap-y-1 pb-1">
      <Select
        label="Tried in"
        value={barId}
        options={bars.map(({ id, name }) => [id, name] as const)}
        onChange={onBar}
      />
      <NumberField
        label="In all"
        unit="% of fats"
        value={totalPct}
        least={0.01}
        most={20}
        onChange={onTotal}
        onFault={ignore}
      />
      {tried && (
        <p role="status" className="ml-auto flex items-center gap-2">
          <VerdictMark verdict={tried.assessment.verdict} size={20} />
          <strong className="font-display text-lg">{VERDICT_WORDS[tried.assessment.verdict]}</strong>
        </p>
      )}
    </div>
  );
}

function AddOil({ data, parts, onParts }: Pick<Props, 'data' | 'parts' | 'onParts'>) {
  const free = data.scents.filter(({ id }) => !parts.some((part) => part.material === id));
  return (
    <label className="mt-2 block">
      <span className="sr-only">Add an oil</span>
      <select
        className="field w-64"
        value=""
        onChange={(event) =>
          onParts([...parts, { material: event.target.value, parts: 1 }], `with ${event.target.value}`)
        }
      >
        <option value="">add an oil from the cupboard</option>
        {free.map(({ id, name }) => (
          <option key={id} value={id}>
            {name}
          </option>
        ))}
      </select>
    </label>
  );
}

/** The oils by parts, each against the limit that governs it in the bar it is tried in. */
export function BlendParts({ data, parts, nameOf, onParts, ...trying }: Props) {
  const total = parts.reduce((sum, part) => sum + part.parts, 0);
  const put = (material: string, value: number) =>
    onParts(
      parts.map((part) => (part.material === material ? { ...part, parts: value } : part)),
      `parts ${material}`,
    );
  const leaveOut = (material: string) =>
    onParts(
      parts.filter((part) => part.material !== material),
      `without ${material}`,
    );
  return (
    <section aria-label="Parts" className="sheet">
      <TriedIn {...trying} />
      <div className={`${blendStyles.blendRow} load-head`} aria-hidden="true">
        <span>Oil</span>
        <span>Parts</span>
        <span>Holds</span>
        <span>Against what binds it closest, the upright rule</span>
      </div>
      <ul>
        {parts.map((part) => (
          <OilRow
            key={part.material}
            part={part}
            total={total}
            tried={trying.tried}
            nameOf={nameOf}
            onParts={(value) => put(part.material, value)}
            onRemove={() => leaveOut(part.material)}
          />
        ))}
      </ul>
      <AddOil data={data} parts={parts} onParts={onParts} />
    </section>
  );
}
