import { Plus } from 'lucide-react';
import { useRef, useState } from 'react';
import { MARKETS, type Market } from '../../core/formula/types';
import {
  COMPLAINT_KINDS,
  GRAVITIES,
  GRAVITY_WORDS,
  KIND_WORDS,
  SERIOUS_MEANS,
  type Complaint,
  type ComplaintKind,
  type DueTerm,
  type Gravity,
} from '../../core/records/complaints';
import { address, send } from '../../ui/api';
import { ChoiceIn, DayIn, LinesIn, TextIn } from '../../ui/form/fields';
import { RecordFields, useRecordForm } from '../../ui/form/record-form';
import { guarded } from '../../ui/Guarded';
import { dayInWords, MARKET_WORDS } from '../../ui/words';

export type ToldComplaint = Complaint & { terms: DueTerm[] };

interface Draft {
  heardOn: string;
  code: string;
  product: string;
  market: string;
  kind: ComplaintKind;
  gravity: Gravity;
  what: string;
  who: string;
  done: string;
  closedOn: string;
}

/** What a new one begins with. */
export interface Begin {
  today: string;
  code: string;
  product: string;
}

function draftOf(complaint: ToldComplaint | null, { today, code, product }: Begin): Draft {
  return {
    heardOn: complaint?.heardOn ?? today,
    code: complaint?.code ?? code,
    product: complaint ? (complaint.batch ? '' : complaint.product) : product,
    market: complaint?.market ?? '',
    kind: complaint?.kind ?? 'quality',
    gravity: complaint?.gravity ?? 'slight',
    what: complaint?.what ?? '',
    who: complaint?.who ?? '',
    done: complaint?.done ?? '',
    closedOn: complaint?.closedOn ?? '',
  };
}

const bodyOf = ({ code, product, market, what, who, done, closedOn, ...draft }: Draft) => ({
  ...draft,
  code: code.trim() || null,
  product: product || null,
  market: (market || null) as Market | null,
  ...{ what: what.trim(), who: who.trim(), done: done.trim() },
  closedOn: closedOn || null,
});

const asOptions = <T extends string>(ids: readonly T[], words: Record<T, string>) =>
  ids.map((id) => [id, words[id]] as const);

interface FormProps {
  complaint: ToldComplaint | null;
  bars: readonly { id: string; name: string }[];
  begin: Begin;
  onDone: (complaint: ToldComplaint) => void;
  onClose: () => void;
}

function ComplaintForm({ complaint, bars, begin, onDone, onClose }: FormProps) {
  const revision = useRef(complaint?.revision ?? 0);
  const record = useRecordForm<Draft, { stale: ToldComplaint }>({
    defaults: draftOf(complaint, begin),
    onStale: ({ stale }) => (revision.current = stale.revision),
  });
  const { busy, keep } = record.keeping;
  const keepIt = async (draft: Draft) => {
    const body = bodyOf(draft);
    if (!complaint) {
      const made = await keep((key) => send<ToldComplaint>('POST', address('complaints'), body, key));
      if (made) onDone(made);
      return;
    }
    const changed = { ...body, revision: revision.current };
    const kept = await keep(() =>
      send<{ complaint: ToldComplaint }>('PUT', address('complaints', complaint.id), changed),
    );
    if (kept) onDone(kept.complaint);
  };
  return (
    <RecordFields record={record} onKeep={keepIt} label="A complaint" className="sheet grid gap-3">
      <div className="flex flex-wrap gap-4">
        <DayIn name="heardOn" label="Heard of on" needed="Say when you heard of it." />
        <TextIn name="code" label="Code on the bar" hint="as it stands there" />
        <ChoiceIn
          name="product"
          label="Bar, where the code is not known"
          options={[['', 'as the code says'], ...bars.map(({ id, name }) => [id, name] as const)]}
        />
        <ChoiceIn
          name="market"
          label="Where it happened"
          options={[['', 'not known'], ...asOptions(MARKETS, MARKET_WORDS)]}
        />
      </div>
      <div className="flex flex-wrap gap-4">
        <ChoiceIn name="kind" label="What it is about" options={asOptions(COMPLAINT_KINDS, KIND_WORDS)} />
        <ChoiceIn name="gravity" label="How grave" options={asOptions(GRAVITIES, GRAVITY_WORDS)} />
      </div>
      <LinesIn name="what" label="What was said" rows={3} />
      <div className="flex flex-wrap gap-4">
        <TextIn name="who" label="Who said it (as little as is needed)" width="w-72" />
        <DayIn name="closedOn" label="Closed on" />
      </div>
      <LinesIn name="done" label="What was done" rows={2} />
      <p className="text-soft">
        {SERIOUS_MEANS} A serious effect makes tasks with the terms of each market. Where skin or eyes burn:
        wash with water, leave the bar, see a doctor where it does not pass.
      </p>
      <div className="flex gap-3">
        <button type="submit" className="action action-strong" disabled={busy}>
          Keep
        </button>
        <button type="button" className="action" onClick={onClose}>
          Close, change nothing
        </button>
      </div>
    </RecordFields>
  );
}

/** What has to be told of it, with the terms. */
function Terms({ terms }: Pick<ToldComplaint, 'terms'>) {
  if (terms.length === 0) return null;
  return (
    <ul aria-label="To be told" className="border-l-4 border-madder pl-3">
      {terms.map(({ market, words, dueOn, source }) => (
        <li key={source}>
          {MARKET_WORDS[market]}
          {dueOn && <strong className="font-medium">, by {dayInWords(dueOn)}</strong>}: {words}{' '}
          <span className="text-soft">({source})</span>
        </li>
      ))}
    </ul>
  );
}

function Row({ complaint, onChange }: { complaint: ToldComplaint; onChange: () => void }) {
  const { heardOn, productName, batch, batchCode, code, kind, gravity, what, who, done, closedOn } =
    complaint;
  return (
    <li className="grid gap-1 border-b border-hair py-2">
      <p>
        <span className="font-medium">{productName}</span>,{' '}
        {batch ? (
          <a className="text-ultra underline" href={`/rack/${encodeURIComponent(batch)}`}>
            {batchCode}
          </a>
        ) : (
          (code ?? 'no code known')
        )}
        , {dayInWords(heardOn)}: {KIND_WORDS[kind]}; {GRAVITY_WORDS[gravity]}
        {who && <span className="text-soft"> ({who})</span>}
      </p>
      <p>{what}</p>
      {done && <p className="text-soft">Done: {done}</p>}
      <Terms terms={complaint.terms} />
      <p className="flex gap-4">
        <span className="text-soft">{closedOn ? `Closed ${dayInWords(closedOn)}` : 'Open'}</span>
        <button type="button" className="action py-0" onClick={onChange}>
          Change
        </button>
      </p>
    </li>
  );
}

interface Props {
  first: readonly ToldComplaint[];
  bars: readonly { id: string; name: string }[];
  begin: Begin;
  /** Whether a new one is begun at once. */
  isNew: boolean;
}

const NEW = '';

/** Complaints and unwanted effects: those that are open first. */
function ComplaintsIsland({ first, bars, begin, isNew }: Props) {
  const [all, setAll] = useState(first);
  const [edited, setEdited] = useState<string | null>(isNew ? NEW : null);
  const done = (complaint: ToldComplaint) => {
    setAll((rows) => [complaint, ...rows.filter(({ id }) => id !== complaint.id)]);
    setEdited(null);
  };
  const rows = [...all].sort(
    (a, b) => Number(a.closedOn !== null) - Number(b.closedOn !== null) || b.heardOn.localeCompare(a.heardOn),
  );
  const form = (complaint: ToldComplaint | null) => (
    <ComplaintForm
      key={edited}
      complaint={complaint}
      bars={bars}
      begin={begin}
      onDone={done}
      onClose={() => setEdited(null)}
    />
  );
  return (
    <div className="grid max-w-4xl gap-3">
      {edited === NEW ? (
        form(null)
      ) : (
        <button type="button" className="action justify-self-start" onClick={() => setEdited(NEW)}>
          <Plus size={16} aria-hidden="true" /> Write one down
        </button>
      )}
      {rows.length === 0 && (
        <p className="text-soft">
          None on file. What buyers tell goes here, with the code on their bar: it is seen at the batch, at
          the bar and in the product&rsquo;s file.
        </p>
      )}
      <ul aria-label="Complaints on file">
        {rows.map((row) =>
          row.id === edited ? (
            <li key={row.id}>{form(row)}</li>
          ) : (
            <Row key={row.id} complaint={row} onChange={() => setEdited(row.id)} />
          ),
        )}
      </ul>
    </div>
  );
}

export const Complaints = guarded('Complaints', ComplaintsIsland);
