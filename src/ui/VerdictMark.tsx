import type { Verdict } from '../core/formula/answer';

const EDGE_X = 20;

interface Props {
  verdict: Verdict;
  size?: number;
  /** Against craft advice: the edge is dashed and nothing is madder. */
  isAdvice?: boolean;
}

/**
 * A verdict's shape: a small stroke against the straightedge. Clear stops short, tight touches, at risk frays
 * across, over strikes through, unproven has no edge to meet.
 */
export function VerdictMark({ verdict, size = 22, isAdvice = false }: Props) {
  const past = verdict === 'over' && !isAdvice;
  const strokeEnd = { clear: 11, tight: EDGE_X - 1, atRisk: EDGE_X - 5, over: 29, unproven: 26 }[verdict];
  return (
    <svg width={(size * 32) / 22} height={size} viewBox="0 0 32 22" aria-hidden="true" className="shrink-0">
      <line
        x1={EDGE_X}
        x2={EDGE_X}
        y1={1}
        y2={21}
        stroke={verdict === 'unproven' ? 'var(--color-soft)' : 'var(--color-ink)'}
        strokeWidth={2.2}
        strokeDasharray={verdict === 'unproven' ? '1 4' : isAdvice ? '5 3' : undefined}
      />
      <rect
        x={1}
        y={7}
        width={strokeEnd - 1}
        height={8}
        fill={past ? 'var(--color-madder)' : 'var(--color-ink)'}
        fillOpacity={verdict === 'unproven' ? 0 : 1}
        stroke={past ? 'var(--color-madder)' : 'var(--color-ink)'}
        strokeWidth={1.4}
      />
      {verdict === 'atRisk' &&
        [16, 19, 22, 25, 28].map((x) => (
          <line key={x} x1={x} x2={x + 2} y1={15} y2={7} stroke="var(--color-ink)" strokeWidth={1.4} />
        ))}
    </svg>
  );
}
