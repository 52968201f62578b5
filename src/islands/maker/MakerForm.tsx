import { useState } from 'react';
import type { Maker } from '../../core/records/wrap';
import { address, send } from '../../ui/api';
import { LinesIn, TextIn } from '../../ui/form/fields';
import { RecordFields, useRecordForm } from '../../ui/form/record-form';
import { guarded } from '../../ui/Guarded';

export interface StoredMaker {
  maker: Maker | null;
  revision: number;
}

interface Draft {
  name: string;
  /** One line of the address a line. */
  lines: string;
}

const fieldOf = (path: string) =>
  path === 'name' ? 'name' : path.startsWith('addressLines') ? 'lines' : null;

/** Who answers for the bars, as every label names them. */
function MakerFormIsland({ stored }: { stored: StoredMaker }) {
  const [revision, setRevision] = useState(stored.revision);
  const [isKept, setKept] = useState(false);
  const record = useRecordForm<Draft, StoredMaker>({
    defaults: { name: stored.maker?.name ?? '', lines: (stored.maker?.addressLines ?? []).join('\n') },
    fieldOf,
    onStale: (newer) => setRevision(newer.revision),
  });
  const { busy, keep } = record.keeping;
  const keepIt = async ({ name, lines }: Draft) => {
    setKept(false);
    const addressLines = lines
      .split('\n')
      .map((line) => line.trim())
      .filter(Boolean);
    const kept = await keep(() =>
      send<StoredMaker>('PUT', address('maker'), { revision, name, addressLines }),
    );
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
