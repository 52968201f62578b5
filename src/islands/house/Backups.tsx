import { useState } from 'react';
import type { Backup, BackupReason, BackupsData, ListedBackup } from '../../core/records/house';
import { readNumberOrNull } from '../../core/quantities/number';
import { address, send } from '../../ui/api';
import { useAsking } from '../../ui/asking';
import { Faults } from '../../ui/Faults';
import { RecordTable, type Column } from '../../ui/RecordTable';
import { TextField } from '../../ui/TextField';
import { momentInWords } from '../../ui/words';
import { sizeInWords } from './words';

const REASON_WORDS: Record<BackupReason, string> = {
  byTime: 'by time',
  byHand: 'by hand',
  beforeRestore: 'before one was taken back',
  beforeMigration: 'before a new version',
  beforeImport: 'before something was taken in or out',
};

function useBackups(first: BackupsData) {
  const [data, setData] = useState(first);
  const { faults, busy, during } = useAsking();
  const refresh = async () => {
    const newer = await during(() => send<BackupsData>('GET', address('backups')));
    if (newer) setData(newer);
  };
  const make = async () => {
    if (await during(() => send('POST', address('backups')))) await refresh();
  };
  const put = async (everyHours: number, copyTo: string) => {
    const body = { revision: data.revision, everyHours, copyTo };
    const newer = await during(() => send<BackupsData>('PUT', address('backups'), body));
    if (newer) setData(newer);
  };
  const restore = async (id: string) => {
    if (await during(() => send('POST', address('backups', id, 'restore')))) location.reload();
  };
  return { data, faults, busy, make, put, restore };
}

function Settings({
  data,
  busy,
  onPut,
}: {
  data: BackupsData;
  busy: boolean;
  onPut: (hours: number, copyTo: string) => void;
}) {
  const [hours, setHours] = useState(String(data.settings.everyHours));
  const [copyTo, setCopyTo] = useState(data.settings.copyTo);
  const read = readNumberOrNull(hours);
  return (
    <div className="flex flex-wrap items-end gap-3">
      <TextField label="At least every so many hours" value={hours} onChange={setHours} isNumber />
      <TextField label="A copy into this folder as well" value={copyTo} onChange={setCopyTo} />
      <button
        type="button"
        className="action"
        disabled={busy || read === null}
        onClick={() => onPut(read!, copyTo.trim())}
      >
        Keep
      </button>
    </div>
  );
}

/** One backup taken back: asked once more, since everything since then stands aside. */
function Restore({
  backup,
  busy,
  onRestore,
}: {
  backup: Backup;
  busy: boolean;
  onRestore: (id: string) => void;
}) {
  const [isSure, setSure] = useState(false);
  if (backup.fault !== null) return <span className="text-madder">does not hold together</span>;
  return (
    <span className="flex flex-wrap gap-2">
      <a className="action py-0" href={address('backups', backup.id)} download>
        Take along
      </a>
      {isSure ? (
        <>
          <button
            type="button"
            className="action action-strong py-0"
            disabled={busy}
            onClick={() => onRestore(backup.id)}
          >
            Go back to it; one more is made first
          </button>
          <button type="button" className="action py-0" onClick={() => setSure(false)}>
            Close, change nothing
          </button>
        </>
      ) : (
        <button type="button" className="action py-0" onClick={() => setSure(true)}>
          Go back to it
        </button>
      )}
    </span>
  );
}

function columns(busy: boolean, onRestore: (id: string) => void): Column<ListedBackup>[] {
  return [
    {
      id: 'at',
      header: 'Made',
      cell: ({ at, isAhead }) =>
        momentInWords(at) + (isAhead ? ', says a clock that was ahead; how old it is nobody knows' : ''),
      sort: ({ at }) => at,
    },
    { id: 'reason', header: 'Why', cell: ({ reason }) => REASON_WORDS[reason], className: 'max-md:hidden' },
    {
      id: 'size',
      header: 'Size',
      cell: ({ bytes }) => sizeInWords(bytes),
      isNumber: true,
      className: 'max-md:hidden',
    },
    { id: 'do', header: '', cell: (backup) => <Restore backup={backup} busy={busy} onRestore={onRestore} /> },
  ];
}

/** Backups: how old the last good one is, all there are, and the way back. */
export function Backups({ first }: { first: BackupsData }) {
  const { data, faults, busy, make, put, restore } = useBackups(first);
  const { backups, lastGood, isOld, copyFault, folder } = data;
  return (
    <section aria-label="Backups" id="backups" className="sheet">
      <h2 className="text-lg">Backups</h2>
      <p className={isOld ? 'text-madder' : ''}>
        {lastGood
          ? `The last one that holds together is of ${momentInWords(lastGood)}.`
          : 'There is none yet.'}
        {isOld && ' Make one now, and look whether the disk has room.'}
      </p>
      {copyFault && <p className="text-madder">{copyFault}</p>}
      <p className="text-soft">
        Each is opened and looked over before it counts. Kept: one an hour for a day, one a day for two weeks,
        one a week for ten, one a month for three years, as far as half of what the disk has free allows. They
        take {sizeInWords(backups.reduce((sum, { bytes }) => sum + bytes, 0))} and lie in {folder}.
      </p>
      <div className="flex flex-wrap items-end gap-6 py-2">
        <button type="button" className="action action-strong" disabled={busy} onClick={() => void make()}>
          Make one now
        </button>
        <Settings
          key={data.revision}
          data={data}
          busy={busy}
          onPut={(hours, copyTo) => void put(hours, copyTo)}
        />
      </div>
      <Faults faults={faults} />
      {backups.length > 0 && (
        <RecordTable
          label="Backups made"
          rows={backups}
          columns={columns(busy, (id) => void restore(id))}
          keyOf={({ id }) => id}
          window={backups.length > 12 ? 'max-h-80 overflow-y-auto' : undefined}
        />
      )}
    </section>
  );
}
