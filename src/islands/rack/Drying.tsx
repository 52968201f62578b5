import type { RackBatch } from '../../core/records/rack';
import { days } from './words';
import rackStyles from './rack.module.css';

/** Days that the rack's rail shows, from the pour on. */
const RAIL_DAYS = 63;
const HEIGHT = 34;
const WIDTH = 630;
const FOOT = HEIGHT - 4;
/** Days in which an ordinary bar has lost all but 1/e of what it loses. */
const USUAL_DAYS = 10;

const x = (day: number) => (Math.min(Math.max(day, 0), RAIL_DAYS) / RAIL_DAYS) * WIDTH;

/** The weight still to lose over the days, as a wedge: solid while it went, open for what is to come. */
function wedge(from: number, to: number, leftAtAge: number, ageDays: number): string {
  const perDay =
    ageDays > 0.5 && leftAtAge > 0.002 && leftAtAge < 0.998 ? -Math.log(leftAtAge) / ageDays : 1 / USUAL_DAYS;
  const at = (day: number) => FOOT - (FOOT - 3) * Math.exp(-perDay * day);
  const steps = 24;
  const points = Array.from({ length: steps + 1 }, (_, step) => {
    const day = from + ((to - from) * step) / steps;
    return `${x(day).toFixed(1)},${at(day).toFixed(1)}`;
  });
  return `M${x(from)},${FOOT} L${points.join(' L')} L${x(to)},${FOOT} Z`;
}

function label({ drying, ageDays, code }: RackBatch): string {
  if (!drying) return `${code}, poured ${days(ageDays)} ago, not cut yet`;
  const left = `${Math.round(100 * drying.leftShare)} % of its water still to lose`;
  const ready = drying.readyOnDay
    ? `ready between day ${Math.round(drying.readyOnDay.low)} and ${Math.round(drying.readyOnDay.high)}`
    : 'not weighed often enough to tell when it is ready';
  return `${code}, day ${Math.round(ageDays)}: ${left}, ${drying.settled ? 'settled' : ready}`;
}

/** One batch along its way from the pour to ready, with the weight it has still to lose. */
export function Drying({ batch, minDays }: { batch: RackBatch; minDays: number }) {
  const { drying, ageDays } = batch;
  const left = drying?.leftShare ?? 1;
  const ready = drying?.readyOnDay;
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      preserveAspectRatio="none"
      className={rackStyles.rail}
      role="img"
      aria-label={label(batch)}
    >
      {ready && (
        <rect
          x={x(ready.low)}
          y={3}
          width={Math.max(2, x(ready.high) - x(ready.low))}
          height={FOOT - 3}
          className={rackStyles.railDoubt}
        />
      )}
      <path
        d={wedge(ageDays, RAIL_DAYS, left, ageDays)}
        className={drying?.isMeasured ? rackStyles.railToCome : rackStyles.railGuess}
      />
      <path d={wedge(0, Math.min(ageDays, RAIL_DAYS), left, ageDays)} className={rackStyles.railGone} />
      <line x1={0} x2={WIDTH} y1={FOOT} y2={FOOT} className={rackStyles.railLine} />
      <line x1={x(minDays)} x2={x(minDays)} y1={0} y2={HEIGHT} className={rackStyles.railLeast} />
      <line x1={x(ageDays)} x2={x(ageDays)} y1={0} y2={HEIGHT} className={rackStyles.railNow} />
    </svg>
  );
}

/** The days along the rail. */
export function RailDays({ minDays }: { minDays: number }) {
  const weeks = Array.from({ length: RAIL_DAYS / 7 + 1 }, (_, week) => week * 7);
  return (
    <div className={rackStyles.railDays} aria-hidden="true">
      {weeks.map((day) => (
        <span key={day} style={{ left: `${(100 * day) / RAIL_DAYS}%` }}>
          {day === 0 ? 'pour' : day === minDays ? `${day} least` : day}
        </span>
      ))}
    </div>
  );
}

/** Hours that the rail of what waits for the knife shows. */
const CUT_HOURS = 96;
const hourX = (hours: number) => (Math.min(Math.max(hours, 0), CUT_HOURS) / CUT_HOURS) * WIDTH;

/** A batch in its mould: the window it can be cut in by portion, where it is missed, and now. */
export function CutRail({ batch }: { batch: RackBatch }) {
  const { window, ageDays, code } = batch;
  const portions = window?.portions ?? [];
  const high = (FOOT - 3) / Math.max(1, portions.length);
  const said = portions.map(
    ({ portion, fromHours, toHours }) =>
      `${portion ?? 'the whole'}: ${fromHours} to ${toHours ?? 'any'} hours after the pour`,
  );
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      preserveAspectRatio="none"
      className={rackStyles.rail}
      role="img"
      aria-label={`${code}, ${Math.round(ageDays * 24)} hours old. ${said.join('; ')}`}
    >
      {portions.map(({ portion, fromHours, toHours, missedAfterHours }, at) => {
        const to = hourX(toHours ?? CUT_HOURS);
        const y = 3 + at * high;
        return (
          <g key={portion}>
            <rect
              x={hourX(fromHours)}
              y={y}
              width={Math.max(3, to - hourX(fromHours))}
              height={high - 2}
              className={rackStyles.railGone}
            />
            {missedAfterHours !== null && (
              <rect
                x={to}
                y={y}
                width={Math.max(0, hourX(missedAfterHours) - to)}
                height={high - 2}
                className={rackStyles.railToCome}
              />
            )}
          </g>
        );
      })}
      <line x1={0} x2={WIDTH} y1={FOOT} y2={FOOT} className={rackStyles.railLine} />
      <line
        x1={hourX(ageDays * 24)}
        x2={hourX(ageDays * 24)}
        y1={0}
        y2={HEIGHT}
        className={rackStyles.railNow}
      />
    </svg>
  );
}

/** The hours along that rail. */
export function CutHours() {
  return (
    <div className={rackStyles.railDays} aria-hidden="true">
      {[0, 12, 24, 36, 48, 60, 72, 84, 96].map((hours) => (
        <span key={hours} style={{ left: `${(100 * hours) / CUT_HOURS}%` }}>
          {hours === 0 ? 'pour' : `${hours} h`}
        </span>
      ))}
    </div>
  );
}
