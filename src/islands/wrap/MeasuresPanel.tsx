import { LONGEST_BEST_BEFORE_MONTHS } from '../../core/labels/content';
import { netFromBars, netText } from '../../core/labels/heights';
import { readNumber } from '../../core/quantities/number';
import type { Wrap, WrapData } from '../../core/records/wrap';
import { OptionalNumberField, ReadField } from '../../ui/ReadField';
import { Select } from '../../ui/Select';
import { grams, monthInFigures } from '../../ui/words';
import { useDesk } from './context';
import { MonthField } from './MonthField';

const HEAVIEST_G = 5000;
const LONGEST_MONTHS = 240;

/** Weights as typed: separated by blanks, semicolons or lines. What is no weight is told, and nothing is taken. */
function readWeights(text: string) {
  const words = text.split(/[\s;]+/).filter(Boolean);
  const wrong = words.find((word) => !(readNumber(word) > 0 && readNumber(word) <= HEAVIEST_G));
  if (wrong) return { ok: false as const, message: `“${wrong}” is no weight of a bar in grams.` };
  return { ok: true as const, value: words.map((word) => readNumber(word)) };
}
const writeWeights = (weights: readonly number[]) => weights.join(' ');
const sameWeights = (a: readonly number[], b: readonly number[]) => a.join(' ') === b.join(' ');

/** A field with a fault says so itself; the wrap goes on with the last that was read. */
const onFault = () => undefined;

function Net() {
  const { wrap, data, market, change } = useDesk();
  const weighed = netFromBars(wrap.weighedG);
  const net = weighed ?? wrap.netMassG ?? Math.floor(data.predictedBarG);
  const isOptimistic = weighed === null && net > data.predictedBarG;
  return (
    <>
      <div>
        <span className="font-medium" aria-hidden="true">
          Weights of cured bars, g
        </span>
        <ReadField<number[]>
          label="Weights of cured bars, g"
          value={wrap.weighedG}
          read={readWeights}
          write={writeWeights}
          isSame={sameWeights}
          onChange={(weighedG) => change({ weighedG }, 'weighed')}
          onFault={onFault}
        />
      </div>
      <div className="flex flex-wrap items-end gap-4">
        <OptionalNumberField
          label="Net weight to state, g"
          unit=""
          value={wrap.netMassG}
          least={1}
          most={HEAVIEST_G}
          isDisabled={weighed !== null}
          onChange={(netMassG) => change({ netMassG }, 'net')}
          onFault={onFault}
        />
        <p className="leading-snug">
          On the label: {netText(market, net)}.{' '}
          {weighed !== null
            ? `The lightest of ${wrap.weighedG.length} weighed bars counts.`
            : `Predicted ${grams(data.predictedBarG)} a cured bar; nothing weighed yet, so weigh the lightest before sale.`}
          {isOptimistic && <strong className="font-semibold"> That is more than is predicted.</strong>}
        </p>
      </div>
    </>
  );
}

/** What a batch says itself: nothing of it is typed. */
function OfBatch({ batch: { code, netMassG, endsOn } }: { batch: NonNullable<WrapData['batch']> }) {
  const { market } = useDesk();
  return (
    <p>
      On the label: {netText(market, netMassG)}, batch {code}
      {endsOn && `, best used before the end of ${monthInFigures(endsOn)}`}. All of it comes from the batch.
    </p>
  );
}

function Durability() {
  const { wrap, data, change } = useDesk();
  const { durability } = wrap;
  return (
    <>
      <OptionalNumberField
        label="Keeps, months"
        unit=""
        value={durability?.months ?? null}
        least={1}
        most={LONGEST_MONTHS}
        onChange={(months) =>
          change(
            {
              durability:
                months === null
                  ? null
                  : {
                      openMonths: null,
                      ...durability,
                      months: Math.round(months),
                      endsOn: durability?.endsOn ?? null,
                    },
            },
            'months',
          )
        }
        onFault={onFault}
      />
      {!data.batch && durability && durability.months <= LONGEST_BEST_BEFORE_MONTHS && (
        <MonthField
          label="Best used before the end of"
          value={durability.endsOn}
          onChange={(endsOn) => change({ durability: { ...durability, endsOn } }, 'ends')}
        />
      )}
      {durability && durability.months > LONGEST_BEST_BEFORE_MONTHS && (
        <OptionalNumberField
          label="Months after opening, if it means anything"
          unit=""
          value={durability.openMonths ?? null}
          least={1}
          most={LONGEST_MONTHS}
          onChange={(months) =>
            change({ durability: { ...durability, openMonths: months && Math.round(months) } }, 'open')
          }
          onFault={onFault}
        />
      )}
    </>
  );
}

const BARCODES: readonly (readonly [Wrap['barcode'], string])[] = [
  ['none', 'none'],
  ['gtin', 'GTIN'],
  ['batch', 'batch code'],
  ['page', 'code to the batch’s page'],
];

function Barcode() {
  const { wrap, change } = useDesk();
  return (
    <div className="flex flex-wrap items-end gap-4">
      <Select
        label="Barcode"
        value={wrap.barcode}
        options={BARCODES}
        onChange={(barcode) => change({ barcode }, 'barcode')}
      />
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
  );
}

/** Net content from weighed bars or from what is predicted; batch, durability and barcode. */
export function MeasuresPanel() {
  const { wrap, data, change } = useDesk();
  return (
    <section aria-label="Measures" className="grid gap-3 py-2">
      {data.batch ? <OfBatch batch={data.batch} /> : <Net />}
      <div className="flex flex-wrap items-end gap-4">
        {!data.batch && (
          <label>
            <span className="eyebrow block">Batch</span>
            <input
              className="field w-32"
              value={wrap.batchCode}
              onChange={(event) => change({ batchCode: event.target.value }, 'batch')}
            />
          </label>
        )}
        <Durability />
      </div>
      <Barcode />
    </section>
  );
}
