import { guarded } from '../../ui/Guarded';
import { Plus } from 'lucide-react';
import type { Product } from '../../core/records/product';
import { address, send } from '../../ui/api';
import { TextIn } from '../../ui/form/fields';
import { RecordFields, useRecordForm } from '../../ui/form/record-form';

/** Starts a bar by its name and goes to its worktable. */
function NewBarIsland() {
  const record = useRecordForm<{ name: string }>({ defaults: { name: '' } });
  const { busy, keep } = record.keeping;
  const start = async ({ name }: { name: string }) => {
    const made = await keep((key) => send<Product>('POST', address('products'), { name }, key));
    if (made) location.assign(`/bars/${made.id}`);
  };
  return (
    <RecordFields record={record} onKeep={start} className="flex flex-wrap items-end gap-3">
      <TextIn name="name" label="A new bar" width="w-56" hint="its name" />
      <button type="submit" className="action" disabled={busy}>
        <Plus size={16} aria-hidden="true" /> Start
      </button>
    </RecordFields>
  );
}

export const NewBar = guarded('The new bar', NewBarIsland);
