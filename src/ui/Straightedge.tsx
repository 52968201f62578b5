/** Where the rule stands along the track; what lies past it is drawn ever closer together. */
const EDGE_PCT = 74;
import straightedgeStyles from './Straightedge.module.css';

/** Position along the track, percent, of a load that is `ratio` times its limit. */
export function along(ratio: number): number {
  if (ratio <= 1) return Math.max(0, ratio) * EDGE_PCT;
  return EDGE_PCT + (100 - EDGE_PCT) * (1 - 1 / ratio);
}

export interface StraightedgeProps {
  /** Low, nominal and high as multiples of the limit. Left out where there is no limit to hold it against. */
  load?: { low: number; nominal: number; high: number };
  /** The part of the load that other lines bring, 0 to 1. */
  othersShare?: number;
  /** The share of the limit that is kept free, 0 to 1. */
  margin: number;
  /** Craft advice is a dashed rule, and what lies past it is ink. */
  isAdvice?: boolean;
  /** What a screen reader says. */
  label: string;
}

function Span({ from, to, className }: { from: number; to: number; className: string | undefined }) {
  if (to - from < 0.05) return null;
  return <span className={className} style={{ left: `${from}%`, width: `${to - from}%` }} />;
}

/** One load against the straightedge: what others bring, what is used, the doubt, the room, and what is past. */
export function Straightedge({ load, othersShare = 0, margin, isAdvice = false, label }: StraightedgeProps) {
  if (!load) {
    return (
      <div className={straightedgeStyles.straightedge} role="img" aria-label={label}>
        <Span from={0} to={EDGE_PCT * 0.55} className={straightedgeStyles.seOthers} />
        <span
          className={`${straightedgeStyles.seRule} ${straightedgeStyles.seRuleAbsent}`}
          style={{ left: `${EDGE_PCT}%` }}
        />
      </div>
    );
  }
  const others = along(load.nominal * othersShare);
  const low = Math.max(others, along(load.low));
  const high = along(load.high);
  const solid = Math.max(low, Math.min(along(load.nominal), high));
  return (
    <div
      className={`${straightedgeStyles.straightedge} ${isAdvice ? straightedgeStyles.seAdvice : ''}`}
      role="img"
      aria-label={label}
    >
      <Span from={along(1 - margin)} to={EDGE_PCT} className={straightedgeStyles.seMargin} />
      <Span from={0} to={Math.min(others, EDGE_PCT)} className={straightedgeStyles.seOthers} />
      <Span from={others} to={Math.min(low, EDGE_PCT)} className={straightedgeStyles.seStroke} />
      <Span from={low} to={Math.min(high, EDGE_PCT)} className={straightedgeStyles.seDoubt} />
      <Span from={EDGE_PCT} to={solid} className={straightedgeStyles.sePast} />
      <Span from={Math.max(EDGE_PCT, solid)} to={high} className={straightedgeStyles.sePastDoubt} />
      <span className={straightedgeStyles.seRule} style={{ left: `${EDGE_PCT}%` }} />
    </div>
  );
}
