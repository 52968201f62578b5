import { Download } from 'lucide-react';
import { useState } from 'react';
import type { School } from '../../core/formula/answer';
import type { Fault } from '../../ui/api';
import { useTable } from './context';

function saveFile(blob: Blob, name: string): void {
  const link = document.createElement('a');
  link.href = URL.createObjectURL(blob);
  link.download = name;
  link.click();
  setTimeout(() => URL.revokeObjectURL(link.href), 10_000);
}

/** Net weight and batch, and the EU band as PDF. */
export function LabelPanel({ school }: { school: School }) {
  const { data, formula, assessment, flush } = useTable();
  const { product } = data;
  const predictedBarG = assessment.masses.curedG / (formula.bars || 1);
  const [net, setNet] = useState(String(product.netMassG ?? ''));
  const [batch, setBatch] = useState(product.batchCode);
  const [faults, setFaults] = useState<Fault[]>([]);
  const [busy, setBusy] = useState(false);

  const download = async () => {
    setBusy(true);
    setFaults([]);
    const query = new URLSearchParams({
      market: 'EU',
      school,
      netMassG: net.replace(',', '.'),
      batchCode: batch,
    });
    try {
      if ((await flush()) === null) {
        setFaults([
          { path: '', message: 'Save the formula first: see the field or message that holds it up.' },
        ]);
        return;
      }
      const answer = await fetch(`/api/v1/products/${encodeURIComponent(product.id)}/label.pdf?${query}`);
      if (answer.ok) saveFile(await answer.blob(), `${product.id}-EU-label.pdf`);
      else setFaults(((await answer.json()) as { errors: Fault[] }).errors);
    } catch {
      setFaults([{ path: '', message: 'The application does not answer. Try again.' }]);
    } finally {
      setBusy(false);
    }
  };

  const faultOf = (path: string) => faults.find((fault) => fault.path === path)?.message;
  const netTooHigh = Number(net.replace(',', '.')) > predictedBarG;
  return (
    <section aria-label="Label" className="py-2">
      <div className="mt-1 flex flex-wrap items-end gap-4">
        <label>
          <span className="eyebrow block">Net weight, g</span>
          <input
            className="field w-20"
            inputMode="decimal"
            value={net}
            aria-invalid={faultOf('netMassG') ? true : undefined}
            onChange={(event) => setNet(event.target.value)}
          />
        </label>
        <label>
          <span className="eyebrow block">Batch</span>
          <input
            className="field w-28"
            value={batch}
            aria-invalid={faultOf('batchCode') ? true : undefined}
            onChange={(event) => setBatch(event.target.value)}
          />
        </label>
        <button type="button" className="action" disabled={busy} onClick={() => void download()}>
          <Download size={16} aria-hidden="true" /> EU band 200 × 45 mm, PDF
        </button>
      </div>
      <div role="alert" className="text-madder">
        {faults.map((fault) => (
          <p key={fault.path + fault.message}>{fault.message}</p>
        ))}
      </div>
      <p className="eyebrow mt-1">
        Predicted {predictedBarG.toFixed(1)} g a cured bar.
        {netTooHigh && ' The stated net weight is above that: weigh the lightest bar.'}
      </p>
    </section>
  );
}
