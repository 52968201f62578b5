import { Bookmark } from 'lucide-react';
import { useCallback, useEffect, useState } from 'react';
import { compareFormulas } from '../../core/formula/compare';
import type { WorkingVersion } from '../../core/records/product';
import { address, send } from '../../ui/api';
import { differenceInWords } from '../../ui/differences';
import { dayInWords } from '../../ui/words';
import { useTable } from './context';

function useVersions(productId: string) {
  const [versions, setVersions] = useState<WorkingVersion[]>([]);
  const load = useCallback(async () => {
    const answer = await send<{ versions: WorkingVersion[] }>(
      'GET',
      address('products', productId, 'versions'),
    );
    if (answer.ok) setVersions(answer.body.versions);
  }, [productId]);
  useEffect(() => void load(), [load]);
  return { versions, load };
}

/** Versions kept under a name: what changed since, the way back to one, and one beside another. */
export function VersionsPanel({ onKept }: { onKept: (version: WorkingVersion) => void }) {
  const { data, formula, materialName, change, flush } = useTable();
  const productId = data.product.id;
  const { versions, load } = useVersions(productId);
  const [name, setName] = useState('');
  const [fault, setFault] = useState<string | null>(null);

  const keep = async () => {
    setFault(null);
    const revision = await flush();
    if (revision === null) {
      setFault('Save the formula first: see the field or message that holds it up.');
      return;
    }
    const answer = await send<{ version?: WorkingVersion }>(
      'POST',
      address('products', productId, 'versions'),
      {
        revision,
        name,
      },
    );
    if (answer.ok && answer.body.version) {
      onKept(answer.body.version);
      setName('');
      await load();
    } else setFault(answer.ok ? 'The version was not kept. Try again.' : answer.faults[0]!.message);
  };

  return (
    <section aria-label="Versions" className="py-2">
      <div className="flex flex-wrap items-end gap-3">
        <label>
          <span className="eyebrow block">Keep this one as</span>
          <input
            className="field w-52"
            value={name}
            aria-invalid={fault ? true : undefined}
            onChange={(event) => setName(event.target.value)}
          />
        </label>
        <button type="button" className="action" onClick={() => void keep()}>
          <Bookmark size={16} aria-hidden="true" /> Keep
        </button>
        {fault && (
          <p role="alert" className="text-madder">
            {fault}
          </p>
        )}
      </div>
      {versions.length === 0 && (
        <p className="mt-2 text-soft">None kept yet. Keep one before a larger change.</p>
      )}
      <ul className="mt-1">
        {versions.map((version) => {
          const differences = compareFormulas(version.formula, formula);
          const side = `${productId}@${version.number}`;
          return (
            <li key={version.number} className="border-b border-hair py-1 last:border-0">
              <span className="font-medium">{version.name}</span>{' '}
              <span className="font-narrow text-soft">
                {dayInWords(version.savedAt.slice(0, 10))} ·{' '}
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
                    onClick={() => change(version.formula, `version ${version.number} ${Date.now()}`)}
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
        })}
      </ul>
    </section>
  );
}
