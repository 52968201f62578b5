import { Bookmark } from 'lucide-react';
import { useEffect, useState } from 'react';
import { compareFormulas } from '../../core/formula/compare';
import type { WorkingVersion } from '../../core/records/product';
import { address, send } from '../../ui/api';
import { differenceInWords } from '../../ui/differences';
import { TextIn } from '../../ui/form/fields';
import { RecordFields, useRecordForm } from '../../ui/form/record-form';
import { dayAt } from '../../ui/words';
import { newStep } from '../../ui/step';
import { HELD, useTable } from './context';

type Versions = { versions: WorkingVersion[] };

/** The versions on file; asked for again whenever one was kept. */
function useVersions(productId: string) {
  const [versions, setVersions] = useState<WorkingVersion[]>([]);
  const [kept, setKept] = useState(0);
  useEffect(() => {
    let isWanted = true;
    void send<Versions>('GET', address('products', productId, 'versions')).then((answer) => {
      if (isWanted && answer.ok) setVersions(answer.body.versions);
    });
    return () => {
      isWanted = false;
    };
  }, [productId, kept]);
  return { versions, reload: () => setKept((count) => count + 1) };
}

const NOT_KEPT = { path: '', message: 'The version was not kept. Try again.' };

function KeepVersion({ onKept }: { onKept: (version: WorkingVersion) => void }) {
  const { data, flush } = useTable();
  const record = useRecordForm<{ name: string }>({ defaults: { name: '' } });
  const { busy, setFaults, keep } = record.keeping;
  const keepIt = async ({ name }: { name: string }) => {
    const revision = await flush();
    if (revision === null) return setFaults([HELD]);
    const url = address('products', data.product.id, 'versions');
    const kept = await keep((key) =>
      send<{ version?: WorkingVersion }>('POST', url, { revision, name }, key),
    );
    if (!kept) return;
    if (!kept.version) return setFaults([NOT_KEPT]);
    onKept(kept.version);
    record.form.reset();
  };
  return (
    <RecordFields
      record={record}
      onKeep={keepIt}
      label="Keep a version"
      className="flex flex-wrap items-end gap-3"
    >
      <TextIn name="name" label="Keep this one as" width="w-52" />
      <button type="submit" className="action" disabled={busy}>
        <Bookmark size={16} aria-hidden="true" /> Keep
      </button>
    </RecordFields>
  );
}

function Version({ version }: { version: WorkingVersion }) {
  const { data, formula, materialName, change } = useTable();
  const productId = data.product.id;
  const differences = compareFormulas(version.formula, formula);
  const side = `${productId}@${version.number}`;
  return (
    <li className="border-b border-hair py-1 last:border-0">
      <span className="font-medium">{version.name}</span>{' '}
      <span className="font-narrow text-soft">
        {dayAt(version.savedAt)} ·{' '}
        {differences.length === 0
          ? 'the same as on the table'
          : `since then ${differences.map((one) => differenceInWords(one, materialName)).join('; ')}`}
      </span>
      {differences.length > 0 && (
        <span className="mt-0.5 flex gap-3">
          <button
            type="button"
            className="action py-0"
            aria-label={`Back to ${version.name}`}
            onClick={() => change(version.formula, newStep(`version ${version.number}`))}
          >
            Back to this
          </button>
          <a
            className="action py-0"
            href={`/compare?left=${encodeURIComponent(side)}&right=${encodeURIComponent(productId)}`}
          >
            Side by side
          </a>
        </span>
      )}
    </li>
  );
}

/** Versions kept under a name: what changed since, the way back to one, and one beside another. */
export function VersionsPanel({ onKept }: { onKept: (version: WorkingVersion) => void }) {
  const { versions, reload } = useVersions(useTable().data.product.id);
  return (
    <section aria-label="Versions" className="py-2">
      <KeepVersion
        onKept={(version) => {
          onKept(version);
          reload();
        }}
      />
      {versions.length === 0 && (
        <p className="mt-2 text-soft">None kept yet. Keep one before a larger change.</p>
      )}
      <ul className="mt-1">
        {versions.map((version) => (
          <Version key={version.number} version={version} />
        ))}
      </ul>
    </section>
  );
}
