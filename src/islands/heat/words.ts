/** Words of how a block heats. */
import { habits, inDegrees } from '../../ui/habits';
import type { HourRange, Range } from '../../core/heat/ensemble';
import type { Chances } from '../../core/heat/judge';
import type { MouldWall, Surroundings } from '../../core/heat/types';
import type { Advice, Way } from '../../core/heat/ways';

export const WAY_WORDS: Record<Way, string> = {
  warm: 'Kept warm',
  leave: 'Left as it is',
  chill: 'Chilled',
  cooler: 'Poured 10 °C (18 °F) cooler',
  lessWater: 'With less water',
  single: 'In single moulds',
};
export const WALL_WORDS: Record<MouldWall, string> = {
  wood: 'wood',
  silicone: 'silicone',
  plastic: 'plastic',
  cardboard: 'cardboard',
};

/** A range of °C in the degrees of the house. */
export function degreesRange({ low, high }: Range): string {
  const [from, to] = [Math.round(inDegrees(low)), Math.round(inDegrees(high))];
  const unit = `\u00a0°${habits().degrees}`;
  return from === to ? `${from}${unit}` : `${from} to ${to}${unit}`;
}
const half = (hours: number) => Number((Math.round(hours * 2) / 2).toFixed(1));
export const hoursRange = ({ low, high }: HourRange) => {
  const [from, to] = [half(low), high === null ? null : half(high)];
  if (to === null) return `${from} h or later`;
  return from === to ? `${from} h` : `${from} to ${to} h`;
};
/** Of ten pours like this. */
export const ofTen = (chance: number) => `${Math.round(10 * chance)} times in 10`;

/** What becomes of it, in words: the likeliest, and how sure. */
export function gelWords({ through, ring, none }: Chances): string {
  const most = Math.max(through, ring, none);
  const words =
    most === through ? 'gels through' : most === ring ? 'gels in the middle, a ring shows' : 'does not gel';
  return `${words}, ${ofTen(most)}`;
}

type Bad = Advice['still'][number]['what'];
const BAD_WORDS: Record<Bad, string> = {
  crack: 'cracks or pushes up',
  scorch: 'the milk scorches',
  ring: 'a ring shows',
  ash: 'ash on top',
};
export const badWords = (what: Bad) => BAD_WORDS[what];

const REST_VERB: Record<Surroundings['way'], string> = {
  warm: 'Keep it warm',
  leave: 'Leave it as it is',
  chill: 'Chill it',
};

/** The advice in one or two sentences: what to do, why, when to look. */
export function adviceWords({ way, avoids, still, lookFrom, lookTo }: Advice): {
  what: string;
  why: string;
  look: string;
} {
  const reasons = avoids
    .slice(0, 2)
    .map(
      ({ what, instead, chance }) =>
        `${WAY_WORDS[instead].toLowerCase()}, ${badWords(what)} ${ofTen(chance)}`,
    );
  const left = still.map(({ what, chance }) => `${badWords(what)} ${ofTen(chance)}`);
  const why = reasons.length > 0 ? `${reasons.join('; ')}.` : 'No other way of resting is clearly better.';
  const rest = left.length > 0 ? ` Still: ${left.join('; ')}.` : '';
  return {
    what: `${REST_VERB[way]}.`,
    why: `${why[0]!.toUpperCase()}${why.slice(1)}${rest}`,
    look: `Look at it from ${half(lookFrom)} to ${half(Math.max(lookTo, lookFrom + 0.5))} h after the pour: then its middle is hottest.`,
  };
}
