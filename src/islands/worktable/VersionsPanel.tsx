import { Bookmark } from 'lucide-react';
import { useCallback, useEffect, useState } from 'react';
import { compareFormulas, type Difference } from '../../core/formula/compare';
import type { WorkingVersion } from '../../server/repositories/products';
import { MEASURE_WORDS, STAGE_WORDS } from '../../ui/words';
import { useTable } from './context';

interface Props {
  productId: string;
  /** Makes sure what is on the table is on file; answers its revision, or null where it could not be saved. */
  flush: () => Promise<number | null>;
  onKept: (version: WorkingVersion) => void;
}

function inWords(part: string): string {
  return { ...STAGE_WORDS, ...MEASURE_WORDS, '': 'none' }[part as 'fats'] ?? part;
}

function sentence(difference: Difference, materialName: (id: string) => string): string {
  switch (difference.kind) {
    case 'added':
      return `with ${materialName(difference.material)} ${difference.amount}`;
    case 'removed':
      return `without ${materialName(difference.material)} (${difference.amount})`;
    case 'amount':
      return `${materialName(difference.material)} ${difference.from} → ${difference.to}`;
    case 'line':
      return `${materialName(difference.material)}: ${inWords(difference.from)} → ${inWords(difference.to)}`;
    case 'setting':
      return `${difference.what}: ${difference.from || 'none'} → ${difference.to || 'none'}`;
  }
}

function useVersions(productId: string) {
  const [versions, setVersions] = useState<WorkingVersion[]>([]);
  const load = useCallback(async () => {
    const answer = await fetch(`/api/v1/products/${encodeURIComponent(productId)}/versions`).catch(
      () => null,
    );
    if (answer?.ok) setVersions(((await answer.json()) as { versions: WorkingVersion[] }).versions);
  }, [productId]);
  useEffect(() => void load(), [load]);
  return { versions, load };
}

/** Versions kept under a name: what changed since, and the way back to one. */
export function VersionsPanel({ productId, flush, onKept }: Props) {
  const { formula, materialName, change } = useTable();
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
    const answer = await fetch(`/api/v1/products/${encodeURIComponent(productId)}/versions`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ revision, name }),
    }).catch(() => null);
    const body = (await answer?.json()) as
      { version?: WorkingVersion; errors?: { message: string }[] } | undefined;
    if (body?.version) {
      onKept(body.version);
      setName('');
      await load();
    } else setFault(body?.errors?.[0]?.message ?? 'The version was not kept. Try again.');
  };

  return (
    <section aria-label="Versions" className="sheet mt-3">
      <h2 className="text-lg">Versions</h2>
      <div className="mt-1 flex flex-wrap items-end gap-3">
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
      <ul className="mt-1">
        {versions.map((version) => {
          const differences = compareFormulas(version.formula, formula);
          return (
            <li
              key={version.number}
              className="flex items-baseline justify-between gap-4 border-b border-hair py-1 last:border-0"
            >
              <span>
                <span className="font-medium">{version.name}</span>{' '}
                <span className="font-narrow text-soft">
                  {version.savedAt.slice(0, 10)} ·{' '}
                  {differences.length === 0
                    ? 'the same as on the table'
                    : `since then ${differences.map((difference) => sentence(difference, materialName)).join('; ')}`}
                </span>
              </span>
              {differences.length > 0 && (
                <button
                  type="button"
                  className="action shrink-0 py-0"
                  aria-label={`Back to ${version.name}`}
                  onClick={() => change(version.formula, `version ${version.number} ${Date.now()}`)}
                >
                  Back to this
                </button>
              )}
            </li>
          );
        })}
      </ul>
    </section>
  );
}
