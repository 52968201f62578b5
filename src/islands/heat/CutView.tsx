import { useEffect, useState } from 'react';
import type { MouldShape, Run } from '../../core/heat/types';
import { degreesWords } from '../../ui/habits';

const WIDEST = 320;
const TALLEST = 170;
/** Ink for the coldest and the hottest that is drawn, °C. */
const [COLD, HOT] = [20, 95];
const FRAME_MS = 90;
const A_HALF = 2;

/** Warmth as a wash of one pigment: paler is cooler. */
function inkOf(c: number): string {
  const share = Math.min(1, Math.max(0, (c - COLD) / (HOT - COLD)));
  const mix = (from: number, to: number) => Math.round(from + (to - from) * share);
  return `rgb(${mix(245, 120)} ${mix(243, 14)} ${mix(238, 44)})`;
}

function usePlaying(first: number, last: number) {
  const [at, setAt] = useState(first);
  const [isPlaying, setPlaying] = useState(false);
  const runs = isPlaying && at < last;
  useEffect(() => {
    if (!runs) return;
    const timer = setInterval(() => setAt((now) => Math.min(last, now + 1)), FRAME_MS);
    return () => clearInterval(timer);
  }, [runs, last]);
  const play = () => {
    if (at >= last) setAt(0);
    setPlaying(!runs);
  };
  return { at: Math.min(at, last), setAt, isPlaying: runs, play };
}

/** A cut through the block, both halves, that can be run through the day; hatched where it is above gel. */
export function CutView({ run, shape }: { run: Run; shape: MouldShape }) {
  const { course, cut, gelC } = run;
  const { at, setAt, isPlaying, play } = usePlaying(
    course.middleC.indexOf(Math.max(...course.middleC)),
    course.hours.length - 1,
  );
  if (!cut) return null;
  const { across, up, framesC } = cut;
  const frame = framesC[at]!;
  const scale = Math.min(WIDEST / shape.widthMm, TALLEST / shape.heightMm);
  const [width, height] = [shape.widthMm * scale, shape.heightMm * scale];
  const [cellW, cellH] = [width / (A_HALF * across), height / up];
  const cells = Array.from(frame, (c, cell) => {
    const [row, col] = [Math.floor(cell / across), cell % across];
    const y = height - (row + 1) * cellH;
    return [across + col, across - 1 - col].map((place) => ({
      key: `${cell} ${place}`,
      x: place * cellW,
      y,
      c,
      isGel: c >= gelC[cell]!,
    }));
  }).flat();
  const hour = course.hours[at]!;
  const words = `Middle ${degreesWords(course.middleC[at]!)}, edge ${degreesWords(course.edgeC[at]!)}, top ${degreesWords(course.topC[at]!)}`;
  return (
    <figure className="m-0">
      <svg
        viewBox={`0 0 ${width} ${height}`}
        width={width}
        height={height}
        role="img"
        aria-label={`A cut through the block after ${hour} hours: ${words}`}
        className="max-w-full border border-ink"
      >
        <defs>
          <pattern
            id="gel-hatch"
            width="5"
            height="5"
            patternUnits="userSpaceOnUse"
            patternTransform="rotate(45)"
          >
            <line x1="0" y1="0" x2="0" y2="5" stroke="#fafaf6" strokeWidth="1.6" />
          </pattern>
        </defs>
        {cells.map(({ key, x, y, c, isGel }) => (
          <g key={key}>
            <rect x={x} y={y} width={cellW + 0.5} height={cellH + 0.5} fill={inkOf(c)} />
            {isGel && <rect x={x} y={y} width={cellW + 0.5} height={cellH + 0.5} fill="url(#gel-hatch)" />}
          </g>
        ))}
      </svg>
      <figcaption className="mt-1 grid gap-1">
        <div className="flex items-center gap-2">
          <button type="button" className="action py-0" onClick={play}>
            {isPlaying ? 'Hold' : 'Run it'}
          </button>
          <input
            type="range"
            className="min-w-0 flex-1"
            min={0}
            max={course.hours.length - 1}
            value={at}
            aria-label="Hours since the pour"
            aria-valuetext={`${hour} hours. ${words}`}
            onChange={(event) => setAt(Number(event.target.value))}
          />
          <output className="w-14 text-right tabular-nums">{hour.toFixed(1)} h</output>
        </div>
        <span className="text-soft">{words}. Hatched: above gel now.</span>
      </figcaption>
    </figure>
  );
}
