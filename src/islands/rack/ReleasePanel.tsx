import { massUnit, toType, typedGramsOrNull } from '../../ui/masses';
import { useState } from 'react';
import { OUTCOMES } from '../../core/batch/types';
import type { ReleaseCheck } from '../../core/curing/batch-cure';
import { proposedNetG } from '../../core/curing/net';
import type { CureData } from '../../core/records/rack';
import type { Market } from '../../core/formula/types';
import { dayAt, dayInWords, grams, MARKET_WORDS } from '../../ui/words';
import type { Writing } from '../../ui/writing';
import { TextField } from '../../ui/TextField';

const OUTCOME_WORDS: Record<(typeof OUTCOMES)[number], string> = {
  good: 'good',
  doubtful: 'doubtful',
  bad: 'bad',
};

function Check({ check, writing: { batch, write } }: { check: ReleaseCheck; writing: Writing }) {
  const [value, setValue] = useState('');
  const done = batch.checks.filter((one) => one.check === check.id).at(-1);
  return (
    <li className="border-b border-hair py-1">
      <div className="flex flex-wrap items-baseline gap-x-3">
        <span className="font-medium">{check.name}</span>
        <span className="text-soft">
          {done
            ? `${OUTCOME_WORDS[done.outcome as (typeof OUTCOMES)[number]]}${done.value ? `, ${done.value}` : ''}, ${dayAt(done.at)}`
            : check.how}
        </span>
      </div>
      {check.caution && !done && <p className="border-l-4 border-madder bg-wash px-2">{check.caution}</p>}
      <div className="flex flex-wrap items-end gap-2">
        <input
          className="field w-32"
          aria-label={`What was found: ${check.name}`}
          placeholder="what was found"
          value={value}
          onChange={(event) => setValue(event.target.value)}
        />
        {OUTCOMES.map((outcome) => (
          <button
            key={outcome}
            type="button"
            className="action py-0"
            onClick={() => {
              write('checked', {
                check: check.id,
                outcome,
                ...(value.trim() ? { value: value.trim() } : {}),
              });
              setValue('');
            }}
            aria-label={`${check.name}: ${OUTCOME_WORDS[outcome]}`}
          >
            {OUTCOME_WORDS[outcome]}
          </button>
        ))}
      </div>
    </li>
  );
}

/** The checks that are usual for a bar like this. */
export function ChecksPanel({ data, writing }: { data: CureData; writing: Writing }) {
  if (!writing.batch.cut) return null;
  return (
    <section id="check" aria-label="Checks" className="sheet">
      <h2 className="text-lg">Looked over before sale</h2>
      <ul>
        {data.checks.map((check) => (
          <Check key={check.id} check={check} writing={writing} />
        ))}
      </ul>
    </section>
  );
}

function Labels({ data }: { data: CureData }) {
  const { labels, detail } = data;
  const { good } = detail.batch.bars;
  if (labels.length === 0)
    return (
      <p>
        No label is issued for this batch yet.{' '}
        <a className="text-ultra underline" href={`/wrap/${detail.batch.product}?batch=${detail.id}`}>
          Issue one from what was weighed
        </a>
      </p>
    );
  return (
    <ul>
      {labels.map(({ id, market, issuedOn, netMassG, printed }) => (
        <li key={id}>
          Label {id} for {market}, {grams(netMassG)}, {dayInWords(issuedOn)}
          {printed > 0 && `, ${printed} printed`}
          {printed > good && <strong>: more than the {good} bars there are</strong>}
        </li>
      ))}
    </ul>
  );
}

function Markets({
  all,
  chosen,
  onChange,
}: {
  all: Market[];
  chosen: Market[];
  onChange: (chosen: Market[]) => void;
}) {
  return (
    <fieldset className="flex flex-wrap gap-3">
      <legend className="eyebrow">For</legend>
      {all.map((market) => (
        <label key={market} className="flex items-center gap-1.5">
          <input
            type="checkbox"
            className="accent-ultra"
            checked={chosen.includes(market)}
            onChange={(event) =>
              onChange(event.target.checked ? [...chosen, market] : chosen.filter((one) => one !== market))
            }
          />
          {MARKET_WORDS[market]}
        </label>
      ))}
    </fieldset>
  );
}

/** Release into stock: with what stands in the way, and the written reason that it then takes. */
export function ReleasePanel({ data, writing: { batch, write } }: { data: CureData; writing: Writing }) {
  const [net, setNet] = useState(() =>
    data.lightestG === null ? '' : toType(proposedNetG(data.lightestG, data.markets)),
  );
  const [markets, setMarkets] = useState(data.markets);
  const [despite, setDespite] = useState('');
  const most = batch.bars.good - batch.bars.released;
  const netMassG = typedGramsOrNull(net);
  const tooHigh = data.lightestG !== null && netMassG !== null && netMassG > data.lightestG;
  const against = [
    ...data.against,
    ...(tooHigh
      ? [`The lightest settled bar weighs ${grams(data.lightestG!)}; ${grams(netMassG)} is more than that.`]
      : []),
  ];
  if (!batch.cut || most <= 0 || batch.state === 'discarded') return null;
  const isHeld = against.length > 0 && despite.trim() === '';
  const isFit = !batch.isQuarantined && netMassG !== null && netMassG > 0 && markets.length > 0 && !isHeld;
  return (
    <section id="release" aria-label="Release" className="sheet grid gap-2">
      <h2 className="text-lg">Release</h2>
      {batch.isQuarantined && <p>It is in quarantine; nothing of it is released before that is decided.</p>}
      <Labels data={data} />
      {against.length > 0 && (
        <div className="border-l-4 border-ink pl-3">
          {against.map((words) => (
            <p key={words}>{words}</p>
          ))}
          <TextField label="Why it is released all the same" value={despite} onChange={setDespite} />
        </div>
      )}
      <TextField label={`Net weight on the label, ${massUnit()}`} value={net} onChange={setNet} isNumber />
      <Markets all={data.markets} chosen={markets} onChange={setMarkets} />
      <button
        type="button"
        className="action action-strong justify-self-start"
        disabled={!isFit}
        onClick={() =>
          write('released', {
            bars: most,
            netMassG: netMassG!,
            markets,
            ...(against.length > 0 ? { despite: despite.trim() } : {}),
          })
        }
      >
        Release {most} bars
      </button>
    </section>
  );
}
