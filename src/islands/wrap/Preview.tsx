import { useEffect, useState } from 'react';
import type { Fitting } from '../../core/labels/fit';
import type { LabelContent } from '../../core/labels/content';
import type { LabelFinding, MeasuredHeight } from '../../core/labels/layout';
import { address, send, type Fault } from '../../ui/api';
import { newStep } from '../../ui/step';
import { useDesk } from './context';
import previewStyles from './Preview.module.css';

const REST_MS = 150;

interface Drawn {
  svg: string;
  fits: Fitting[];
  findings: LabelFinding[];
  heights: MeasuredHeight[];
  widthMm: number;
  heightMm: number;
  content: LabelContent;
}

/** The label drawn as it would print, a moment after the hands rest; the last good one stays meanwhile. */
function useDrawn() {
  const { data, wrap, market, country } = useDesk();
  const [drawn, setDrawn] = useState<Drawn | null>(null);
  const [faults, setFaults] = useState<Fault[]>([]);
  useEffect(() => {
    let isLatest = true;
    const timer = setTimeout(() => {
      void send<Drawn>('POST', address('products', data.product.id, 'label', 'preview'), {
        market,
        wrap,
        batch: data.batch?.id ?? null,
        ...(country === null ? {} : { country }),
      }).then((answer) => {
        if (!isLatest) return;
        setFaults(answer.ok ? [] : answer.faults);
        if (answer.ok) setDrawn(answer.body);
      });
    }, REST_MS);
    return () => {
      isLatest = false;
      clearTimeout(timer);
    };
  }, [data.product.id, data.batch?.id, market, country, wrap]);
  return { drawn, faults };
}

/** Shapes in which all of it fits, each to be taken in one press. */
function Fits({ fits }: { fits: readonly Fitting[] }) {
  const { wrap, market, change } = useDesk();
  const settings = wrap.markets[market];
  if (fits.length === 0 || !settings) return null;
  return (
    <span className="flex flex-wrap gap-2 py-1">
      {fits.map(({ words, format }) => (
        <button
          key={words}
          type="button"
          className="action py-0"
          onClick={() =>
            change({ markets: { ...wrap.markets, [market]: { ...settings, format } } }, newStep('fits'))
          }
        >
          Take {words}
        </button>
      ))}
    </span>
  );
}

function Findings({ findings, fits }: Pick<Drawn, 'findings' | 'fits'>) {
  if (findings.length === 0) return null;
  return (
    <div
      role="status"
      aria-label="In the way of a print"
      className="border-l-4 border-madder bg-wash px-3 py-1.5"
    >
      <ul>
        {findings.map(({ element, code, message, waysOut }) => (
          <li key={element + code + message}>
            {message}
            {waysOut && <span className="text-soft"> Ways out: {waysOut.join('; ')}.</span>}
          </li>
        ))}
      </ul>
      <Fits fits={fits} />
    </div>
  );
}

function Heights({ heights }: { heights: readonly MeasuredHeight[] }) {
  return (
    <p className="eyebrow tabular-nums">
      {heights
        .map(
          ({ element, what, heightMm, leastMm, source }) =>
            `${element}: ${what} ${heightMm.toFixed(2)} mm, at least ${leastMm.toFixed(2)} mm (${source})`,
        )
        .join(' · ')}
    </p>
  );
}

/** The label as it would print, what stands in the way, and its heights as measured. */
export function Preview() {
  const { data, market } = useDesk();
  const { drawn, faults } = useDrawn();
  if (!drawn)
    return (
      <div className={previewStyles.labelStage}>
        <p role="status">{faults[0]?.message ?? 'Drawing…'}</p>
      </div>
    );
  const { front, info } = drawn.content;
  const words = [front.name, front.identity, front.net, ...info.map(({ text }) => text)]
    .filter(Boolean)
    .join('. ');
  return (
    <section aria-label="Label" className="grid gap-2">
      <div className={previewStyles.labelStage}>
        <img
          src={`data:image/svg+xml;charset=utf-8,${encodeURIComponent(drawn.svg)}`}
          alt={`${data.product.name}, label for ${market}. ${words}`}
        />
      </div>
      <p className="eyebrow tabular-nums">
        {drawn.widthMm} × {drawn.heightMm} mm
      </p>
      {faults.map((fault) => (
        <p key={fault.path} role="alert" className="text-madder">
          {fault.message}
        </p>
      ))}
      <Findings findings={drawn.findings} fits={drawn.fits} />
      <Heights heights={drawn.heights} />
    </section>
  );
}
