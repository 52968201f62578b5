import { lazy, Suspense } from 'react';
import type { HourRange } from '../../core/heat/ensemble';
import type { Reading } from '../../core/heat/calibrate';
import type { MouldShape } from '../../core/heat/types';
import type { WayBand } from '../../core/heat/ways';
import type { Heat } from './heat';
import { CutView } from './CutView';
import { adviceWords, badWords, degreesRange, gelWords, hoursRange, ofTen, WAY_WORDS } from './words';

const HeatChart = lazy(() => import('./HeatChart'));
const TOLD_FROM = 0.05;

const firmWords = (hours: HourRange | null) => (hours ? hoursRange(hours) : 'more than a day');

function mayGoWrong({ band: { chances } }: WayBand): string {
  const bad = (['crack', 'scorch', 'ash'] as const).filter((what) => chances[what] > TOLD_FROM);
  return bad.map((what) => `${badWords(what)}, ${ofTen(chances[what])}`).join('; ') || '';
}

function Ways({ ways, way }: { ways: readonly WayBand[]; way: string }) {
  if (ways.length === 0) return null;
  return (
    <div className="overflow-x-auto">
      <table className="plain-table" aria-label="The ways side by side">
        <thead>
          <tr>
            <th scope="col">In another way</th>
            <th scope="col">Middle at most</th>
            <th scope="col">Gel</th>
            <th scope="col">Firm after</th>
            <th scope="col">May go wrong</th>
          </tr>
        </thead>
        <tbody>
          {ways.map((one) => {
            const { band } = one;
            const firm = band.firm[0]?.allHour ?? null;
            return (
              <tr key={one.way} className={one.way === way ? 'font-medium' : ''}>
                <th scope="row">{WAY_WORDS[one.way]}</th>
                <td className="tabular-nums">{degreesRange(band.peakMiddleC)}</td>
                <td>{gelWords(band.chances)}</td>
                <td className="tabular-nums">{firmWords(firm)}</td>
                <td>{mayGoWrong(one)}</td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </div>
  );
}

function Learnt({ heat: { learnt } }: { heat: Heat }) {
  if (!learnt) return null;
  const by = (factor: { low: number; high: number }) =>
    `${factor.low.toFixed(2)} to ${factor.high.toFixed(2)}`;
  return (
    <p className="text-soft">
      Narrowed by your thermometer in {learnt.pours === 1 ? 'one pour' : `${learnt.pours} pours`} in this
      mould: the reaction runs at {by(learnt.rate)} of the usual pace, the mould keeps {by(learnt.wall)} of
      the usual warmth (90 of 100 times).
    </p>
  );
}

function Firm({ heat: { band } }: { heat: Heat }) {
  if (!band) return null;
  return (
    <ul>
      {band.firm.map(({ portion, edgeHour, middleHour, allHour }) => (
        <li key={portion}>
          {portion !== null && <strong className="font-medium">{portion}: </strong>}
          {portion === null ? 'Edge' : 'edge'} firm after {firmWords(edgeHour)}, middle after{' '}
          {firmWords(middleHour)}, all of it after {firmWords(allHour)}.
        </li>
      ))}
    </ul>
  );
}

interface Props {
  heat: Heat;
  shape: MouldShape;
  way: string;
  /** What the thermometer said of this pour. */
  readings?: readonly Reading[];
}

/** The hours after the pour: advice, the curve with its band, a cut through the block, and the other ways. */
export function HeatView({ heat, shape, way, readings = [] }: Props) {
  const { run, band, ways, advice, progress, failed, cancel } = heat;
  const said = advice && adviceWords(advice);
  return (
    <div className="grid gap-2">
      {failed && <p role="alert">{failed}</p>}
      <div aria-live="polite">
        {said && (
          <p>
            <strong>{said.what}</strong> {said.why} {said.look}
          </p>
        )}
      </div>
      {progress !== null && !failed && (
        <p className="flex items-center gap-2">
          <progress aria-label="Reckoning the band" value={progress} max={1} />
          <button type="button" className="action py-0" onClick={cancel}>
            Enough
          </button>
        </p>
      )}
      {run && (
        <>
          <div role="img" aria-label="Warmth of middle and edge over a day, with its band">
            <Suspense fallback={<p className="text-soft">The curve is being drawn…</p>}>
              <HeatChart key={band ? 'band' : 'first'} run={run} band={band} readings={readings} />
            </Suspense>
          </div>
          <p className="text-soft">
            Middle drawn through, edge dashed{band && `; the bands hold 80 of 100 of ${band.runs} runs`}. An
            estimate (craft), no rule.
          </p>
          <Firm heat={heat} />
          <CutView run={run} shape={shape} />
        </>
      )}
      <Ways ways={ways} way={way} />
      <Learnt heat={heat} />
    </div>
  );
}
