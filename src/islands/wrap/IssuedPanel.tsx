import { download as saveFile } from '../../ui/download';
import { useState } from 'react';
import { readNumber } from '../../core/quantities/number';
import type { IssuedLabel, WrapData } from '../../core/records/wrap';
import { address, send, type Fault } from '../../ui/api';
import { Faults } from '../../ui/Faults';
import { useKeeping } from '../../ui/keeping';
import { dayInWords, MARKET_WORDS, VERDICT_WORDS, grams } from '../../ui/words';
import { CardPanel } from './CardPanel';
import { useDesk } from './context';

type Listed = IssuedLabel & { differs: string[] };

const OUTS = [
  ['pdf', 'PDF with trim and bleed'],
  ['a4', 'PDF, A4 full'],
  ['letter', 'PDF, Letter full'],
  ['svg', 'SVG'],
  ['text', 'Text'],
  ['html', 'HTML'],
  ['sheet', 'Product sheet'],
  ['sheet-ranges', 'Sheet in ranges'],
] as const;

function elements(label: Listed): Map<string, string> {
  const { front, info } = label.content;
  return new Map([
    ['name', front.name],
    ['what it is', front.identity],
    ['net content', front.net],
    ...info.map(({ id, text }) => [id, text] as const),
    [
      'papers',
      label.papers.map(({ material, number, issuedOn }) => `${material} ${number} ${issuedOn}`).join('; '),
    ],
    ['rulebook', label.rulebookEdition],
    ['verdict', VERDICT_WORDS[label.verdict]],
  ]);
}

function Comparison({ one, two }: { one: Listed; two: Listed }) {
  const [a, b] = [elements(one), elements(two)];
  const keys = [...new Set([...a.keys(), ...b.keys()])].filter((key) => a.get(key) !== b.get(key));
  if (keys.length === 0) return <p>These two read the same.</p>;
  return (
    <table className="plain-table mt-1">
      <thead>
        <tr>
          <th scope="col">Differs in</th>
          <th scope="col">{one.id}</th>
          <th scope="col">{two.id}</th>
        </tr>
      </thead>
      <tbody>
        {keys.map((key) => (
          <tr key={key}>
            <th scope="row">{key}</th>
            <td>{a.get(key) ?? 'none'}</td>
            <td>{b.get(key) ?? 'none'}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** Downloading a label and issuing it, once what is typed is on file. */
function useOut() {
  const { data, market, country, flush } = useDesk();
  const [issued, setIssued] = useState<Listed[]>(data.issued);
  const [count, setCount] = useState(data.issuedCount);
  const { busy, faults, setFaults, keep } = useKeeping();
  const url = address('products', data.product.id, 'label');
  const held = { path: '', message: 'Save first: see what holds it up above.' };
  const download = async (as: string) => {
    if (!(await flush())) return setFaults([held]);
    const answer = await fetch(
      `${url}?market=${market}&as=${as}${data.batch ? `&batch=${encodeURIComponent(data.batch.id)}` : ''}${country === null ? '' : `&country=${country}`}`,
    ).catch(() => null);
    if (answer?.ok) {
      setFaults([]);
      const name = /filename="([^"]+)"/.exec(answer.headers.get('content-disposition') ?? '')?.[1] ?? 'label';
      return saveFile(await answer.blob(), name);
    }
    const body = (await answer?.json().catch(() => null)) as { errors?: Fault[] } | null;
    setFaults(body?.errors ?? [{ path: '', message: 'The application does not answer. Try again.' }]);
  };
  const issue = async () => {
    if (!(await flush())) return setFaults([held]);
    const issuing = address('products', data.product.id, 'issued');
    const label = await keep((key) =>
      send<IssuedLabel>(
        'POST',
        issuing,
        {
          ...{ market, batch: data.batch?.id ?? null },
          ...(country === null ? {} : { country }),
        },
        key,
      ),
    );
    if (!label) return;
    setIssued((all) => [{ ...label, differs: [] }, ...all]);
    setCount((all) => all + 1);
  };
  const older = async () => {
    const path = `${address('products', data.product.id, 'issued')}?from=${issued.length}`;
    const answer = await send<Pick<WrapData, 'issued' | 'issuedCount'>>('GET', path);
    if (!answer.ok) return setFaults(answer.faults);
    const here = new Set(issued.map(({ id }) => id));
    setIssued((all) => [...all, ...answer.body.issued.filter(({ id }) => !here.has(id))]);
    setCount(answer.body.issuedCount);
  };
  return { issued, count, busy, faults, download, issue, older };
}

const SHEETS = [
  ['a4', 'A4 sheets'],
  ['letter', 'Letter sheets'],
] as const;

/** So many of an issued label: on sheets, and where a label printer is at hand by it. At first as many as its batch has bars. */
function Copies({ label, bars }: { label: string; bars: number }) {
  const { hasPrinter } = useDesk().data;
  const [copies, setCopies] = useState(String(bars));
  const [said, setSaid] = useState('');
  const count = readNumber(copies);
  const isCount = Number.isInteger(count) && count > 0;
  const print = async () => {
    const answer = await send('POST', address('printer', 'jobs'), { label, copies: count });
    setSaid(answer.ok ? 'sent' : answer.faults[0]!.message);
  };
  return (
    <span className="flex items-baseline gap-1.5">
      <input
        className="field w-12"
        inputMode="numeric"
        aria-label={`Copies of ${label}`}
        value={copies}
        onChange={(event) => setCopies(event.target.value)}
      />
      {isCount ? (
        SHEETS.map(([as, words]) => (
          <a
            key={as}
            className="text-ultra underline"
            href={`${address('labels', label)}?as=${as}&copies=${count}`}
          >
            {words}
          </a>
        ))
      ) : (
        <span role="alert">A whole number of labels.</span>
      )}
      {hasPrinter && (
        <button type="button" className="action py-0" disabled={!isCount} onClick={() => void print()}>
          To the label printer
        </button>
      )}
      <span role="status">
        {said}{' '}
        {said === 'sent' && (
          <a className="text-ultra underline" href="/wrap/spool">
            see its spool
          </a>
        )}
      </span>
    </span>
  );
}

interface IssuedRowProps {
  label: Listed;
  /** Its batch; undefined where it is of none that is known. */
  batch: WrapData['batches'][number] | undefined;
  isPicked: boolean;
  onPick: () => void;
}

function IssuedRow({ label, batch, isPicked, onPick }: IssuedRowProps) {
  return (
    <li className="flex flex-wrap items-baseline gap-x-3 border-b border-hair py-1">
      <label className="flex cursor-pointer items-center gap-1.5">
        <input type="checkbox" className="accent-ultra" checked={isPicked} onChange={onPick} />
        <span className="font-medium">
          {label.market}, {dayInWords(label.issuedOn)}, batch {label.batchCode}
        </span>
      </label>
      <span className="font-narrow text-soft">
        {grams(label.netMassG)}, rulebook {label.rulebookEdition},{' '}
        {VERDICT_WORDS[label.verdict].toLowerCase()} then
      </span>
      <a className="text-ultra underline" href={address('labels', label.id)}>
        Print again
      </a>
      {batch?.isQuarantined ? (
        <strong className="text-madder">
          Batch {batch.code} is in quarantine: keep these labels off bars until it is{' '}
          <a className="underline" href={`/rack/${batch.id}`}>
            decided
          </a>
          .
        </strong>
      ) : (
        <Copies label={label.id} bars={batch?.bars || 1} />
      )}
      {label.differs.length > 0 && (
        <span className="font-medium">Would read differently today: {label.differs.join(', ')}.</span>
      )}
    </li>
  );
}

function IssuedLabels({ issued }: { issued: readonly Listed[] }) {
  const { batches } = useDesk().data;
  const [picked, setPicked] = useState<readonly string[]>([]);
  const pick = (id: string) =>
    setPicked((all) => (all.includes(id) ? all.filter((one) => one !== id) : [...all, id].slice(-2)));
  const [one, two] = picked.map((id) => issued.find((label) => label.id === id));
  if (issued.length === 0)
    return (
      <p className="text-soft">
        None yet. An issued label is frozen with its formula, papers and rulebook, and reprints the same for
        years.
      </p>
    );
  return (
    <>
      <ul>
        {issued.map((label) => (
          <IssuedRow
            key={label.id}
            label={label}
            batch={batches.find(({ code }) => code === label.batchCode)}
            isPicked={picked.includes(label.id)}
            onPick={() => pick(label.id)}
          />
        ))}
      </ul>
      {issued.length > 1 && !(one && two) && <p className="eyebrow">Tick two to compare them.</p>}
      {one && two && <Comparison one={one} two={two} />}
    </>
  );
}

/** What leaves the house: downloads, and labels issued and frozen. */
export function IssuedPanel() {
  const { market } = useDesk();
  const { issued, count, busy, faults, download, issue, older } = useOut();
  return (
    <section aria-label="Out and issued" className="py-2">
      <div className="flex flex-wrap gap-2">
        {OUTS.map(([as, words]) => (
          <button key={as} type="button" className="action py-0" onClick={() => void download(as)}>
            {words}
          </button>
        ))}
      </div>
      <Faults faults={faults} />
      <div className="mt-2 flex items-baseline justify-between">
        <h2 className="text-lg">Issued labels</h2>
        <button type="button" className="action" disabled={busy} onClick={() => void issue()}>
          Issue for {MARKET_WORDS[market]}
        </button>
      </div>
      <IssuedLabels issued={issued} />
      {count > issued.length && (
        <button type="button" className="action mt-2" onClick={() => void older()}>
          Older labels: {count - issued.length} more
        </button>
      )}
      <CardPanel download={(as) => void download(as)} />
    </section>
  );
}
