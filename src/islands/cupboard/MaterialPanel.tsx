import { MOMENT_WORDS, momentsOf } from '../../core/making/moments';
import { FileInput, Pencil, Trash2 } from 'lucide-react';
import { useState } from 'react';
import type { Governing } from '../../core/paperwork/governing';
import type { MaterialDocument } from '../../core/records/papers';
import type { CupboardEntry, CupboardRow } from '../../core/records/cupboard';
import { address, send } from '../../ui/api';
import { dayInWords, ONE_OF_KIND_WORDS, percent, STANDING_WORDS } from '../../ui/words';
import { Conditions } from './Conditions';
import { LotsPanel } from './Lots';
import { MaterialForm } from './MaterialForm';
import { SupplierLetter } from './SupplierLetter';
import { MixForm } from './MixForm';
import { BarsUsing } from '../../ui/BarsUsing';
import { signsOf, type Minding } from '../../core/stock/signs';
import { inWords } from '../worktable/view';

interface Props {
  entry: CupboardEntry;
  rows: readonly CupboardRow[];
  minding: Minding;
  currency: string;
  /** The maker's name, who signs letters; null where none is set. */
  maker: string | null;
  onChanged: (entry: CupboardEntry) => void;
  onRemoved: () => void;
}

function paperTitle({ type, number, issuer, edition, issuedOn }: MaterialDocument): string {
  const what = type === 'certificate' ? 'Certificate' : 'Allergen declaration';
  return `${what} ${number}, ${issuer}${edition ? `, ${edition} edition` : ''}, ${dayInWords(issuedOn)}`;
}

function Paper({ paper, onWithdraw }: { paper: MaterialDocument; onWithdraw: () => void }) {
  const facts = [
    paper.maxPct !== undefined &&
      `at most ${percent(paper.maxPct)} of the bar, category ${paper.category ?? '9'}`,
    ...(paper.limits ?? []).map(
      ({ constituent, maxPct }) => `${inWords(constituent)} at most ${percent(maxPct)}`,
    ),
    paper.flashPointC !== undefined && `flash point ${paper.flashPointC} °C`,
    paper.vanillinPct !== undefined && `vanillin ${percent(paper.vanillinPct)}`,
    paper.constituents && `${paper.constituents.length} constituents`,
    paper.fileName && `read from ${paper.fileName}`,
  ].filter(Boolean);
  return (
    <div className="flex items-start justify-between gap-3">
      <span>
        {paperTitle(paper)}
        {facts.length > 0 && <span className="font-narrow text-soft"> · {facts.join(' · ')}</span>}
      </span>
      {paper.takenOn && (
        <button
          type="button"
          className="icon-action"
          aria-label={`Take ${paper.number} off the file`}
          onClick={onWithdraw}
        >
          <Trash2 size={15} aria-hidden="true" />
        </button>
      )}
    </div>
  );
}

function Papers({ entry, onChanged }: Pick<Props, 'entry' | 'onChanged'>) {
  const { material, papers } = entry;
  const told = [papers.certificate, papers.allergens].filter(
    (one): one is Governing<MaterialDocument> => one !== null,
  );
  const withdraw = async (id: string) => {
    const answer = await send<CupboardEntry>('DELETE', address('materials', material.id, 'papers', id));
    if (answer.ok) onChanged(answer.body);
  };
  return (
    <section aria-label="Papers" className="border-b border-line py-2">
      <div className="flex items-baseline justify-between">
        <h3 className="text-lg">Papers</h3>
        <a className="action py-0" href={`/cupboard/papers?material=${encodeURIComponent(material.id)}`}>
          <FileInput size={15} aria-hidden="true" /> Read a paper in
        </a>
      </div>
      {told.length === 0 && <p className="text-soft">None on file.</p>}
      <ul>
        {told.map(({ paper, others, reasons, ask }) => (
          <li key={paper.id} className="border-b border-hair py-1 last:border-0">
            <Paper paper={paper} onWithdraw={() => void withdraw(paper.id)} />
            <p className="font-narrow text-soft">It counts: {reasons.join('; ')}.</p>
            {ask && <p className="font-medium">{ask}</p>}
            {others.map((other) => (
              <div key={other.id} className="pl-4 text-soft">
                <Paper paper={other} onWithdraw={() => void withdraw(other.id)} />
              </div>
            ))}
          </li>
        ))}
      </ul>
    </section>
  );
}

const range = (low: number, typical: number, high: number) =>
  low === high ? percent(typical) : `${percent(low)} to ${percent(high)}`;

function Holds({ entry: { material } }: Pick<Props, 'entry'>) {
  const constituents = material.constituents ?? [];
  return (
    <section aria-label="What it holds" className="border-b border-line py-2">
      <h3 className="text-lg">What it holds</h3>
      <p>
        {(material.inci ?? [])
          .map(({ name, sharePct }) => (sharePct < 100 ? `${name} ${percent(sharePct)}` : name))
          .join(', ') || 'No ingredient name on file.'}
      </p>
      {constituents.length > 0 && (
        <p className="mt-1 font-narrow tabular-nums">
          {constituents
            .map(
              ({ id, lowPct, typicalPct, highPct }) => `${inWords(id)} ${range(lowPct, typicalPct, highPct)}`,
            )
            .join(' · ')}
        </p>
      )}
      <p className="eyebrow mt-1">
        {[
          material.saponification && `${material.saponification.naohPerGram} g of sodium hydroxide a gram`,
          material.waterPct ? `water ${percent(material.waterPct)}` : null,
          material.density && `${Number(material.density.toFixed(3))} g/mL in batter`,
          material.bulkDensity && `${Number(material.bulkDensity.toFixed(3))} g/mL spooned`,
        ]
          .filter(Boolean)
          .join(' · ')}
      </p>
      {(material.cautions ?? []).map((caution) => (
        <p key={caution} className="mt-1">
          {caution}
          {whenOf(caution)}
        </p>
      ))}
    </section>
  );
}

function UsedIn({ entry }: Pick<Props, 'entry'>) {
  return (
    <section aria-label="Used in" className="py-2">
      <h3 className="text-lg">Used in</h3>
      {entry.usedIn === 0 ? <p className="text-soft">No bar yet.</p> : <BarsUsing id={entry.material.id} />}
    </section>
  );
}

function Provenance({ entry }: Pick<Props, 'entry'>) {
  const { material, supplier, mix } = entry;
  const { provenance } = material;
  const from = supplier ? `from ${supplier}` : mix ? 'mixed here' : 'your own';
  return (
    <p className="text-soft">
      {mix ? 'Mix' : ONE_OF_KIND_WORDS[material.kind]}, {from}
      {provenance &&
        ` · figures ${STANDING_WORDS[provenance.standing]}, ${dayInWords(provenance.asOf)}: ${provenance.source}`}
      {material.origin && ` · ${material.origin} origin`}
    </p>
  );
}

/** When a caution bites besides its choice, in words; empty where it does at the choice alone. */
function whenOf(caution: string): string {
  const moments = momentsOf(caution).filter((moment) => moment !== 'choice');
  return moments.length > 0 ? ` Shown ${moments.map((moment) => MOMENT_WORDS[moment]).join(' and ')}.` : '';
}

/** What a mix is made of. */
function MadeOf({ material, rows }: Pick<Props, 'rows'> & Pick<CupboardEntry, 'material'>) {
  return (
    <p className="border-b border-line py-2">
      {(material.madeOf ?? [])
        .map(
          (part) =>
            `${rows.find(({ id }) => id === part.material)?.name ?? inWords(part.material)} ${percent(part.sharePct)}`,
        )
        .join(', ')}
      <span className="text-soft"> · its limits are those of its parts</span>
    </p>
  );
}

/** One material: its standing, papers, what it holds, lots, uses; and changing it. */
export function MaterialPanel({ entry, rows, minding, currency, maker, onChanged, onRemoved }: Props) {
  const [isEditing, setEditing] = useState(false);
  const [fault, setFault] = useState<string | null>(null);
  const { material, mix } = entry;
  const remove = async () => {
    const answer = await send('DELETE', address('materials', material.id));
    if (answer.ok) onRemoved();
    else setFault(answer.faults[0]!.message);
  };
  const done = (changed: CupboardEntry) => {
    setEditing(false);
    onChanged(changed);
  };
  const isBlend =
    mix && (material.madeOf ?? []).every(({ kind }) => /fragrance|essentialOil|isolate/.test(kind));
  return (
    <section aria-label={material.name} className="sheet">
      <div className="flex items-baseline justify-between gap-3">
        <h2 className="text-xl">{material.name}</h2>
        <span className="flex gap-2">
          {isBlend && (
            <a className="action py-0" href={`/scent?blend=${encodeURIComponent(material.id)}`}>
              Scent desk
            </a>
          )}
          <button type="button" className="action py-0" onClick={() => setEditing((was) => !was)}>
            <Pencil size={14} aria-hidden="true" /> {isEditing ? 'Close, change nothing' : 'Change'}
          </button>
          <button
            type="button"
            className="icon-action"
            aria-label={`Remove ${material.name}`}
            onClick={() => void remove()}
          >
            <Trash2 size={16} aria-hidden="true" />
          </button>
        </span>
      </div>
      <Provenance entry={entry} />
      {fault && (
        <p role="alert" className="text-madder">
          {fault}
        </p>
      )}
      <ul>
        {signsOf(entry, minding).map(({ full, grave }) => (
          <li key={full} className={grave ? 'font-medium' : ''}>
            {full}
          </li>
        ))}
      </ul>
      {isEditing &&
        (mix ? (
          <MixForm rows={rows} entry={entry} onDone={done} />
        ) : (
          <MaterialForm entry={entry} onDone={done} />
        ))}
      {!isEditing && (
        <>
          {mix && <MadeOf material={material} rows={rows} />}
          {!mix && <Papers entry={entry} onChanged={onChanged} />}
          <Conditions entry={entry} today={minding.today} onChanged={onChanged} />
          <SupplierLetter
            key={material.id}
            entry={entry}
            maker={maker}
            today={minding.today}
            onChanged={onChanged}
          />
          <Holds entry={entry} />
          <LotsPanel entry={entry} today={minding.today} currency={currency} onChanged={onChanged} />
          <UsedIn entry={entry} />
        </>
      )}
    </section>
  );
}
