import { useMemo, useState } from 'react';
import { deliveredG, readDelivery, type DeliveredLine } from '../../core/sheets/delivery';
import { address, send } from '../../ui/api';
import { DayField } from '../../ui/DayField';
import { Faults } from '../../ui/Faults';
import { guarded } from '../../ui/Guarded';
import { useKeeping } from '../../ui/keeping';
import { Names, useMatches } from '../../ui/MaterialNames';
import { TextField } from '../../ui/TextField';
import { dayInWords, stock } from '../../ui/words';

const EXAMPLE =
  'olive oil; 5 kg; lot X12; 10/2027; 45.00\nshea butter; 1 kg; 18.50\n30 g lavender oil; L 8841';

interface Written {
  lots: { material: string; name: string; code: string; quantityG: number }[];
}

/** What was written down, with the code for each can. */
function Done({ lots, onAgain }: Written & { onAgain: () => void }) {
  return (
    <section aria-label="Written down">
      <p role="status">{lots.length} lots are written down. These codes go onto the cans:</p>
      <ul>
        {lots.map(({ material, name, code, quantityG }) => (
          <li key={code} className="border-b border-hair py-1">
            <strong className="font-medium">{code}</strong>{' '}
            <a className="text-ultra underline" href={`/cupboard?material=${encodeURIComponent(material)}`}>
              {name}
            </a>
            , {stock(quantityG)}
          </li>
        ))}
      </ul>
      <button type="button" className="action mt-2" onClick={onAgain}>
        Another delivery
      </button>
    </section>
  );
}

interface Row {
  line: DeliveredLine;
  title: string | null;
  id: string | null;
  massG: number;
  fault: string | null;
}

/** Lines as typed, with what each is and weighs. */
function useRows(text: string) {
  const [chosen, setChosen] = useState<Record<string, { id: string; title: string; gPerMl: number | null }>>(
    {},
  );
  const lines = useMemo(() => readDelivery(text), [text]);
  const names = useMemo(() => [...new Set(lines.map(({ name }) => name))], [lines]);
  const { matches, isMatching } = useMatches(names);
  const rows = lines.map((line): Row => {
    const found = chosen[line.name] ?? matches.get(line.name) ?? null;
    const massG = deliveredG(line, found?.gPerMl ?? null);
    const unweighed =
      line.held && Number.isNaN(massG) ? 'Say its weight: what a millilitre weighs is not on file.' : null;
    const unknown = found ? null : 'Which material is it?';
    return {
      line,
      title: found?.title ?? null,
      id: found?.id ?? null,
      massG,
      fault: line.fault ?? unknown ?? unweighed,
    };
  });
  return { rows, names, matches, isMatching, chosen, setChosen };
}

function Table({ rows }: { rows: readonly Row[] }) {
  return (
    <table className="plain-table" aria-label="It reads as">
      <thead>
        <tr>
          {['Material', 'Came', 'Lot', 'Best before', 'Price'].map((head) => (
            <th key={head} scope="col">
              {head}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {rows.map(({ line, title, massG, fault }) => (
          <tr key={line.row}>
            <th scope="row">
              {title ?? line.name}
              {fault && (
                <span role="alert" className="block font-normal text-madder">
                  {fault}
                </span>
              )}
            </th>
            <td>{massG > 0 ? stock(massG) : ''}</td>
            <td>{line.code ?? <span className="text-soft">numbered on</span>}</td>
            <td>{line.bestBefore ? dayInWords(line.bestBefore) : ''}</td>
            <td className="tabular-nums">{line.price?.toFixed(2) ?? ''}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** A delivery of many things at once: typed or pasted, matched to materials, taken down in one go. */
function DeliveryIsland({ today }: { today: string }) {
  const [text, setText] = useState('');
  const [supplier, setSupplier] = useState('');
  const [receivedOn, setReceivedOn] = useState(today);
  const [written, setWritten] = useState<Written | null>(null);
  const { rows, names, matches, isMatching, chosen, setChosen } = useRows(text);
  const { busy, faults, keep } = useKeeping();
  const isHeld = rows.length === 0 || isMatching || rows.some(({ fault }) => fault !== null);
  const take = async () => {
    const body = {
      supplier: supplier.trim(),
      receivedOn,
      rows: rows.map(({ id, massG, line: { code, bestBefore, price } }) => ({
        ...{ material: id, quantityG: massG, code, bestBefore, price },
      })),
    };
    const done = await keep((key) => send<Written>('POST', address('lots', 'delivery'), body, key));
    if (done) setWritten(done);
  };
  if (written)
    return (
      <Done
        {...written}
        onAgain={() => {
          setText('');
          setWritten(null);
        }}
      />
    );
  return (
    <form
      className="sheet grid gap-3"
      aria-label="A delivery"
      onSubmit={(event) => {
        event.preventDefault();
        if (!isHeld && !busy) void take();
      }}
    >
      <div className="flex flex-wrap items-end gap-4">
        <TextField label="From" value={supplier} onChange={setSupplier} />
        <DayField label="Came on" value={receivedOn} onChange={setReceivedOn} />
      </div>
      <label>
        <span className="eyebrow block">
          What came, a line each: name, how much, and in any order lot, best before, price of it all
        </span>
        <textarea
          className="field w-full border border-line"
          rows={6}
          value={text}
          placeholder={EXAMPLE}
          onChange={(event) => setText(event.target.value)}
        />
      </label>
      {rows.length > 0 && <Table rows={rows} />}
      {isMatching && <p role="status">Looking up the names…</p>}
      <Names
        names={names}
        matches={matches}
        taken={(name) => {
          const title = chosen[name]?.title ?? matches.get(name)?.title;
          return title ? `taken for ${title}` : null;
        }}
        onFound={(name, { id, name: title, density, bulkDensity }) =>
          setChosen({ ...chosen, [name]: { id, title, gPerMl: density ?? bulkDensity ?? null } })
        }
      />
      <Faults faults={faults} />
      <button type="submit" className="action action-strong justify-self-start" disabled={isHeld || busy}>
        {rows.length > 1 ? `Write ${rows.length} lots down` : 'Write it down'}
      </button>
    </form>
  );
}

export const Delivery = guarded('The delivery', DeliveryIsland);
