import { Copy, Mail } from 'lucide-react';
import { useState } from 'react';
import { LABEL_LANGUAGE_NAMES } from '../../core/labels/languages';
import { LETTER_LANGUAGES, type LetterLanguage } from '../../core/paperwork/letter-words';
import { asksOf, isOverdue, letterOf, unanswered, type Ask } from '../../core/paperwork/supplier-letter';
import { daysBetween } from '../../core/quantities/day';
import type { CupboardEntry } from '../../core/records/cupboard';
import { address, send } from '../../ui/api';
import { Faults } from '../../ui/Faults';
import { useKeeping } from '../../ui/keeping';
import { Select } from '../../ui/Select';
import { dayInWords } from '../../ui/words';

interface Props {
  entry: CupboardEntry;
  /** Who signs; null where the house has no name yet. */
  maker: string | null;
  today: string;
  onChanged: (entry: CupboardEntry) => void;
}

const OPTIONS = LETTER_LANGUAGES.map((code) => [code, LABEL_LANGUAGE_NAMES[code]] as const);

/** What is asked, in the house's own words. */
function saidOf(ask: Ask): string {
  switch (ask.kind) {
    case 'certificate':
      return 'A certificate, and the allergen declaration that goes with it';
    case 'renew':
      return `${ask.number} in its current edition`;
    case 'condition':
      return ask.asks;
    case 'lot':
      return `Lot ${ask.code}, held back: ${ask.why}`;
  }
}

/** What is asked, each to be left out. */
function Asked({
  asks,
  left,
  isSet,
  onLeft,
}: {
  asks: readonly Ask[];
  left: readonly string[];
  /** The words are the maker's own, and follow what is asked no longer. */
  isSet: boolean;
  onLeft: (left: string[]) => void;
}) {
  return (
    <fieldset disabled={isSet}>
      <legend className="eyebrow">What is asked</legend>
      {asks.map((ask) => (
        <label key={ask.id} className="flex items-baseline gap-2">
          <input
            type="checkbox"
            className="accent-ultra"
            checked={!left.includes(ask.id)}
            onChange={({ target }) =>
              onLeft(target.checked ? left.filter((id) => id !== ask.id) : [...left, ask.id])
            }
          />
          {saidOf(ask)}
        </label>
      ))}
    </fieldset>
  );
}

/** Ways for a letter to go out: nothing is sent from here. */
function Ways({ subject, body }: { subject: string; body: string }) {
  const [copied, setCopied] = useState<string | null>(null);
  const mail = `mailto:?subject=${encodeURIComponent(subject)}&body=${encodeURIComponent(body)}`;
  const copy = () => navigator.clipboard.writeText(body).then(() => setCopied(body));
  return (
    <>
      <button type="button" className="action" onClick={() => void copy()}>
        <Copy size={15} aria-hidden="true" /> {copied === body ? 'Copied' : 'Copy'}
      </button>
      <a className="action" href={mail}>
        <Mail size={15} aria-hidden="true" /> Open in the mail program
      </a>
    </>
  );
}

/** A draft of the letter: what is asked, in which language, its words free to change. */
function Draft({ entry, maker, onChanged, onClose }: Omit<Props, 'today'> & { onClose: () => void }) {
  const { material, supplier } = entry;
  const asks = asksOf(entry);
  const [left, setLeft] = useState<readonly string[]>([]);
  const [language, setLanguage] = useState<LetterLanguage>('en');
  const [own, setOwn] = useState<string | null>(null);
  const { busy, faults, keep } = useKeeping();
  const asked = asks.filter(({ id }) => !left.includes(id));
  const written = letterOf({ material: material.name, supplier, maker }, asked, language);
  const body = own ?? written.body;
  const keepIt = async () => {
    const about = asked.map(({ id }) => id);
    const letter = { language, about, subject: written.subject, body };
    const kept = await keep(() =>
      send<CupboardEntry>('PUT', address('materials', material.id, 'letters'), letter),
    );
    if (kept) onChanged(kept);
  };
  return (
    <div className="grid gap-2 border-l-4 border-line px-3 py-1">
      <Asked asks={asks} left={left} isSet={own !== null} onLeft={setLeft} />
      {own === null ? (
        <Select label="Language" value={language} options={OPTIONS} onChange={setLanguage} />
      ) : (
        <p>
          Your own words stand.{' '}
          <button type="button" className="action py-0" onClick={() => setOwn(null)}>
            Write them anew
          </button>
        </p>
      )}
      {language !== 'en' && asked.some(({ kind }) => kind === 'condition' || kind === 'lot') && (
        <p className="text-soft">Conditions and what was noted at a lot are quoted as they stand.</p>
      )}
      <p>
        <span className="eyebrow block">Subject</span>
        {written.subject}
      </p>
      <label>
        <span className="eyebrow block">Letter</span>
        <textarea
          className="field w-full"
          rows={14}
          value={body}
          maxLength={8000}
          onChange={({ target }) => setOwn(target.value)}
        />
      </label>
      <Faults faults={faults} />
      <span className="flex flex-wrap gap-3">
        <button
          type="button"
          className="action action-strong"
          disabled={busy || asked.length === 0 || body.trim() === ''}
          onClick={() => void keepIt()}
        >
          Keep as written today
        </button>
        <Ways subject={written.subject} body={body} />
        <button type="button" className="action" onClick={onClose}>
          Close
        </button>
      </span>
      <p className="text-soft">Nothing is sent from here.</p>
    </div>
  );
}

/** What the supplier is asked, was asked, and has not answered. */
export function SupplierLetter({ entry, maker, today, onChanged }: Props) {
  const [isOpen, setOpen] = useState(false);
  const asks = asksOf(entry);
  const { letters, material } = entry;
  if (asks.length === 0 && letters.length === 0) return null;
  const takeOff = async () => {
    const answer = await send<CupboardEntry>('DELETE', address('materials', material.id, 'letters'));
    if (answer.ok) onChanged(answer.body);
  };
  return (
    <section aria-label="Letter to the supplier" className="border-b border-line py-2">
      <div className="flex items-baseline justify-between">
        <h3 className="text-lg">Letter to the supplier</h3>
        {asks.length > 0 && !isOpen && (
          <button type="button" className="action py-0" onClick={() => setOpen(true)}>
            {letters.length > 0 ? 'Write again' : 'Write one'}
          </button>
        )}
      </div>
      {asks.length === 0 && <p className="text-soft">Everything that was asked is on file.</p>}
      {unanswered(letters, asks).map(({ letter: { on }, asks: left }) => (
        <p key={`${on} ${left[0]!.id}`} className={isOverdue({ on }, today) ? 'font-medium' : ''}>
          Asked on {dayInWords(on)}, not on file yet: {left.map(saidOf).join('; ')}.
          {isOverdue({ on }, today) && ` It has been ${daysBetween(on, today)} days; write again?`}
        </p>
      ))}
      {letters.length > 0 && (
        <details>
          <summary className="cursor-pointer text-soft">
            {letters.length === 1 ? 'The letter' : `The last of ${letters.length} letters`}
          </summary>
          <p className="whitespace-pre-line border-l-4 border-line px-3">{letters[0]!.body}</p>
          <button type="button" className="action mt-1 py-0" onClick={() => void takeOff()}>
            Take it off the file
          </button>
        </details>
      )}
      {isOpen && (
        <Draft
          entry={entry}
          maker={maker}
          onClose={() => setOpen(false)}
          onChanged={(changed) => {
            setOpen(false);
            onChanged(changed);
          }}
        />
      )}
    </section>
  );
}
