import { netFromBars, netText } from '../../core/labels/heights';
import { grams } from '../../ui/words';
import { useDesk } from './context';

const numberOrNull = (text: string) => {
  const value = Number(text.trim().replace(',', '.') || NaN);
  return Number.isFinite(value) && value >= 1 && value <= 5000 ? value : null;
};

/** Weights as typed: separated by blanks, semicolons or lines; decimal commas are read. */
function readWeights(text: string): number[] {
  return text
    .split(/[\s;]+/)
    .map((one) => Number(one.replace(',', '.')))
    .filter((one) => Number.isFinite(one) && one > 0 && one <= 5000);
}

/** Net content from weighed bars or from what is predicted; batch, durability and barcode. */
export function MeasuresPanel() {
  const { wrap, data, market, change } = useDesk();
  const weighed = netFromBars(wrap.weighedG);
  const net = weighed ?? wrap.netMassG ?? Math.floor(data.predictedBarG);
  const isOptimistic = weighed === null && net > data.predictedBarG;
  const { durability } = wrap;
  return (
    <section aria-label="Measures" className="grid gap-3 py-2">
      <label>
        <span className="font-medium">Weights of cured bars, g</span>
        <textarea
          className="field w-full border border-line tabular-nums"
          rows={2}
          placeholder="88.4 90.1 87.9"
          defaultValue={wrap.weighedG.join(' ')}
          onChange={(event) => change({ weighedG: readWeights(event.target.value) }, 'weighed')}
        />
      </label>
      <div className="flex flex-wrap items-end gap-4">
        <label>
          <span className="eyebrow block">Net weight to state, g</span>
          <input
            className="field w-24"
            inputMode="decimal"
            disabled={weighed !== null}
            defaultValue={wrap.netMassG ?? ''}
            onChange={(event) => change({ netMassG: numberOrNull(event.target.value) }, 'net')}
          />
        </label>
        <p className="leading-snug">
          On the label: {netText(market, net)}.{' '}
          {weighed !== null
            ? `The lightest of ${wrap.weighedG.length} weighed bars counts.`
            : `Predicted ${grams(data.predictedBarG)} a cured bar; nothing weighed yet, so weigh the lightest before sale.`}
          {isOptimistic && <strong className="font-semibold"> That is more than is predicted.</strong>}
        </p>
      </div>
      <div className="flex flex-wrap items-end gap-4">
        <label>
          <span className="eyebrow block">Batch</span>
          <input
            className="field w-32"
            value={wrap.batchCode}
            onChange={(event) => change({ batchCode: event.target.value }, 'batch')}
          />
        </label>
        <label>
          <span className="eyebrow block">Keeps, months</span>
          <input
            className="field w-20"
            inputMode="numeric"
            defaultValue={durability?.months ?? ''}
            onChange={(event) => {
              const months = Math.round(Number(event.target.value));
              const isMonths = months >= 1 && months <= 240;
              change(
                { durability: isMonths ? { months, endsOn: durability?.endsOn ?? null } : null },
                'months',
              );
            }}
          />
        </label>
        {durability && durability.months <= 30 && (
          <label>
            <span className="eyebrow block">Best before end of</span>
            <input
              type="month"
              className="field"
              value={durability.endsOn ?? ''}
              onChange={(event) =>
                change({ durability: { ...durability, endsOn: event.target.value || null } }, 'ends')
              }
            />
          </label>
        )}
      </div>
      <div className="flex flex-wrap items-end gap-4">
        <label>
          <span className="eyebrow block">Barcode</span>
          <select
            className="field"
            value={wrap.barcode}
            onChange={(event) => change({ barcode: event.target.value as typeof wrap.barcode }, 'barcode')}
          >
            <option value="none">none</option>
            <option value="gtin">GTIN</option>
            <option value="batch">batch code</option>
          </select>
        </label>
        {wrap.barcode === 'gtin' && (
          <label>
            <span className="eyebrow block">GTIN, thirteen digits</span>
            <input
              className="field w-40 tabular-nums"
              value={wrap.gtin}
              onChange={(event) => change({ gtin: event.target.value.replace(/\s/g, '') }, 'gtin')}
            />
          </label>
        )}
      </div>
    </section>
  );
}
