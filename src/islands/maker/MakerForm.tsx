import { useState } from 'react';
import { MARKETS, type Market } from '../../core/formula/types';
import type { Maker } from '../../core/records/wrap';
import { address, send } from '../../ui/api';
import { LinesIn, TextIn } from '../../ui/form/fields';
import { RecordFields, useRecordForm } from '../../ui/form/record-form';
import { guarded } from '../../ui/Guarded';
import { MARKET_WORDS } from '../../ui/words';

export interface StoredMaker {
  maker: Maker | null;
  revision: number;
}

interface Draft {
  name: string;
  /** One line of the address a line. */
  lines: string;
  /** Who answers in single markets; empty where the maker does. */
  there: Record<Market, { name: string; lines: string }>;
}

const linesOf = (text: string) =>
  text
    .split('\n')
    .map((line) => line.trim())
    .filter(Boolean);

function draftOf(maker: Maker | null): Draft {
  const there = Object.fromEntries(
    MARKETS.map((market) => {
      const one = maker?.elsewhere?.find((other) => other.market === market);
      return [market, { name: one?.name ?? '', lines: (one?.addressLines ?? []).join('\n') }];
    }),
  ) as Draft['there'];
  return { name: maker?.name ?? '', lines: (maker?.addressLines ?? []).join('\n'), there };
}

function Elsewhere({ named }: { named: readonly Market[] }) {
  return (
    <details open={named.length > 0}>
      <summary className="cursor-pointer">
        Somebody else answers in a market{' '}
        <span className="text-soft">
          {named.length > 0 ? named.join(', ') : 'where it asks for a person established there'}
        </span>
      </summary>
      <div className="grid gap-3 pt-2 sm:grid-cols-2">
        {MARKETS.map((market) => (
          <fieldset key={market} className="grid gap-1">
            <legend className="font-medium">{MARKET_WORDS[market]}</legend>
            <TextIn name={`there.${market}.name`} label={`Name for ${market}`} width="w-full" />
            <LinesIn name={`there.${market}.lines`} label={`Address for ${market}, a line each`} rows={3} />
          </fieldset>
        ))}
      </div>
    </details>
  );
}

const fieldOf = (path: string) =>
  path === 'name' ? 'name' : path.startsWith('addressLines') ? 'lines' : null;

/** Who answers for the bars, as every label names them. */
function MakerFormIsland({ stored }: { stored: StoredMaker }) {
  const [revision, setRevision] = useState(stored.revision);
  const [isKept, setKept] = useState(false);
  const record = useRecordForm<Draft, StoredMaker>({
    defaults: draftOf(stored.maker),
    fieldOf,
    onStale: (newer) => setRevision(newer.revision),
  });
  const { busy, keep } = record.keeping;
  const keepIt = async ({ name, lines, there }: Draft) => {
    setKept(false);
    const elsewhere = MARKETS.flatMap((market) => {
      const one = there[market];
      return one.name.trim() === ''
        ? []
        : [{ market, name: one.name.trim(), addressLines: linesOf(one.lines) }];
    });
    const body = { revision, name, addressLines: linesOf(lines), elsewhere };
    const kept = await keep(() => send<StoredMaker>('PUT', address('maker'), body));
    if (!kept) return;
    setRevision(kept.revision);
    setKept(true);
  };
  return (
    <RecordFields
      record={record}
      onKeep={keepIt}
      label="Who answers for the bars"
      className="grid max-w-xl gap-3"
    >
      <TextIn name="name" label="Name" width="w-full" needed="Give the name that labels carry." />
      <LinesIn name="lines" label="Address, a line each" rows={4} />
      <Elsewhere named={(stored.maker?.elsewhere ?? []).map(({ market }) => market)} />
      <div className="flex items-baseline gap-3">
        <button type="submit" className="action" disabled={busy}>
          Keep
        </button>
        <p role="status" className="text-soft">
          {isKept && 'Kept. Labels already issued stay as they were.'}
        </p>
      </div>
    </RecordFields>
  );
}

export const MakerForm = guarded('The maker', MakerFormIsland);
