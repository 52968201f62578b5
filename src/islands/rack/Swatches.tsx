/** A bar's colour over the weeks: one picture a week on a grey card, the light taken out of it. */
import { useCallback, useEffect, useState } from 'react';
import type { Batch } from '../../core/batch/types';
import { colourMoved, swatchOf, type Rgb } from '../../core/curing/swatch';
import { daysBetween } from '../../core/quantities/day';
import { dayHere } from '../../ui/habits';
import { dayAt } from '../../ui/words';
import { PictureButton } from './PictureButton';
import type { PhotosOf } from './photos-of';

const NOTE = 'Colour of bar ';
/** A picture is looked at so small: its middle and its frame are what counts. */
const LOOKED_AT = 96;

/** The colour in a picture on file; null where it holds no grey card. */
async function colourAt(url: string): Promise<Rgb | null> {
  const image = new Image();
  image.src = url;
  await image.decode();
  const canvas = document.createElement('canvas');
  [canvas.width, canvas.height] = [LOOKED_AT, LOOKED_AT];
  const context = canvas.getContext('2d', { willReadFrequently: true })!;
  context.drawImage(image, 0, 0, LOOKED_AT, LOOKED_AT);
  return swatchOf(context.getImageData(0, 0, LOOKED_AT, LOOKED_AT).data, LOOKED_AT, LOOKED_AT);
}

type Colour = Rgb | 'none' | undefined;

/** The colour in a picture of one's own address: undefined until it was looked at. */
function useColour(url: string, onFound: (url: string, colour: Rgb | 'none') => void): void {
  useEffect(() => {
    let isGone = false;
    void colourAt(url)
      .catch(() => null)
      .then((colour) => isGone || onFound(url, colour ?? 'none'));
    return () => {
      isGone = true;
    };
  }, [url, onFound]);
}

const css = (colour: Rgb) => `rgb(${colour.map(Math.round).join(' ')})`;

interface SwatchProps {
  url: string;
  day: string;
  colour: Colour;
  /** The first colour known of the bar. */
  first: Colour;
  onFound: (url: string, colour: Rgb | 'none') => void;
}

function Swatch({ url, day, colour, first, onFound }: SwatchProps) {
  useColour(url, onFound);
  const isKnown = colour !== undefined && colour !== 'none';
  const moved =
    isKnown && first !== undefined && first !== 'none' && first !== colour
      ? colourMoved(first, colour)
      : null;
  return (
    <li className="w-28">
      <span
        aria-hidden
        className="block h-14 border border-line"
        style={isKnown ? { background: css(colour) } : {}}
      />
      <span className="font-narrow text-soft">{day}</span>
      <span className="block">
        {colour === 'none' && 'No grey card is seen round the bar.'}
        {moved && `${moved.words} (${moved.far.toFixed(0)})`}
      </span>
    </li>
  );
}

function Strip({ bar, photos, pouredOn }: { bar: string; photos: PhotosOf; pouredOn: string | null }) {
  const [colours, setColours] = useState<Record<string, Rgb | 'none'>>({});
  const onFound = useCallback(
    (url: string, colour: Rgb | 'none') => setColours((old) => ({ ...old, [url]: colour })),
    [],
  );
  const mine = photos.all
    .filter(({ note }) => note === NOTE + bar)
    .map((photo) => ({ ...photo, url: photos.addressOf(photo) }));
  const first = mine.map(({ url }) => colours[url]).find((one) => one !== undefined && one !== 'none');
  const dayOf = (at: string) =>
    dayAt(at) + (pouredOn === null ? '' : `, day ${daysBetween(pouredOn, dayHere(at))}`);
  return (
    <ol className="flex flex-wrap gap-2" aria-label={`Colour of bar ${bar}`}>
      {mine.map(({ id, at, url }) => (
        <Swatch key={id} url={url} day={dayOf(at)} colour={colours[url]} first={first} onFound={onFound} />
      ))}
    </ol>
  );
}

export function Swatches({ batch, photos }: { batch: Batch; photos: PhotosOf }) {
  const known = photos.all
    .filter(({ note }) => note.startsWith(NOTE))
    .map(({ note }) => note.slice(NOTE.length));
  const bars = [...new Set(known)];
  const [bar, setBar] = useState(bars[0] ?? batch.barWeighings[0]?.bar ?? '1');
  const pouredOn = batch.poured ? dayHere(batch.poured.at) : null;
  return (
    <details open={bars.length > 0}>
      <summary className="cursor-pointer text-ultra">How its colour moves</summary>
      <p className="text-soft">
        The same bar once a week, in the middle of a grey card that fills the picture. The card takes the
        light out of it: what is left is the bar’s own. Told against the first picture; a step under 2 is
        hardly seen.
      </p>
      {bars.map((one) => (
        <Strip key={one} bar={one} photos={photos} pouredOn={pouredOn} />
      ))}
      <div className="flex flex-wrap items-end gap-2">
        <label>
          <span className="eyebrow block">Bar</span>
          <input
            className="field w-20"
            value={bar}
            maxLength={12}
            onChange={(event) => setBar(event.target.value)}
          />
        </label>
        {bar.trim() !== '' && (
          <PictureButton
            words={`Photograph bar ${bar.trim()} on its card`}
            onFile={(file) => void photos.add(file, NOTE + bar.trim())}
          />
        )}
      </div>
    </details>
  );
}
