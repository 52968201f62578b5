/** How far a paper is read, with the time left, and in which language a picture of one was read. */
import { PAGE_LANGUAGE_NAMES, PAGE_LANGUAGES, type PageLanguage } from '../../core/paperwork/page-language';
import { Select } from '../../ui/Select';

export interface Far {
  share: number;
  words: string;
  /** Seconds left, as far as can be told yet. */
  leftS: number | null;
}

/** Before so much was read in so long, nothing is said of how long the rest takes. */
const LEAST_SHARE = 0.1;
const LEAST_S = 3;

/** Seconds left of what took so long to come so far; null where that cannot be told yet. */
export function secondsLeft(share: number, tookS: number): number | null {
  return share < LEAST_SHARE || tookS < LEAST_S ? null : (tookS * (1 - share)) / share;
}

const said = (leftS: number) =>
  leftS > 90
    ? `about ${Math.round(leftS / 60)} minutes left`
    : `about ${Math.max(5, 5 * Math.round(leftS / 5))} s left`;

export function HowFar({ far, onStop }: { far: Far; onStop: () => void }) {
  return (
    <p role="status" className="flex flex-wrap items-center gap-3">
      {far.words}… <progress max={1} value={far.share} aria-label="How far it is read" className="w-32" />
      {far.leftS !== null && <span className="text-soft">{said(far.leftS)}</span>}
      <button type="button" className="action py-0" onClick={onStop}>
        Give up
      </button>
    </p>
  );
}

const CHOICES = PAGE_LANGUAGES.map((one) => [one, PAGE_LANGUAGE_NAMES[one]] as const);

/** In which language a picture was read, found from its words; another can be said. */
export function ReadIn({
  language,
  onChange,
}: {
  language: PageLanguage;
  onChange: (language: PageLanguage) => void;
}) {
  return (
    <div className="pb-2">
      <Select label="Read as a page in" value={language} options={CHOICES} onChange={onChange} />
    </div>
  );
}
