/** What was understood of a question in words: each part can be taken out of it, and what was not read is told. */
import { X } from 'lucide-react';
import { useEffect, useState } from 'react';
import type { AskAnswer } from '../../core/records/ask';
import { send } from '../api';
import { dayInWords } from '../words';

/** What is typed rests so long before it is asked. */
const REST_MS = 160;

/** Days of a sentence as they are said here. */
const daysSpoken = (text: string) => text.replace(/\b\d{4}-\d{2}-\d{2}\b/g, (day) => dayInWords(day));

/** A word says what it is by itself; two may be a question. */
const LEAST_WORDS = 2;

/** An answer with its days as they are said here. */
const spoken = (asked: AskAnswer): AskAnswer => ({
  ...asked,
  understood: asked.understood.map((one) => ({ ...one, says: daysSpoken(one.says) })),
  rows: asked.rows.map((hit) => ({ ...hit, words: daysSpoken(hit.words) })),
});

/** The answer to what is typed where it reads as a question; null where it does not, or is not there yet. */
export function useAsked(text: string): AskAnswer | null {
  const [found, setFound] = useState<{ text: string; asked: AskAnswer | null }>({ text: '', asked: null });
  const isQuestion = text.trim().split(/\s+/).length >= LEAST_WORDS;
  useEffect(() => {
    if (!isQuestion) return;
    let isOld = false;
    const timer = setTimeout(() => {
      void send<{ asked: AskAnswer | null }>('GET', `/api/v1/ask?q=${encodeURIComponent(text)}`).then(
        (answer) => {
          const asked = answer.ok ? answer.body.asked : null;
          if (!isOld) setFound({ text, asked: asked && spoken(asked) });
        },
      );
    }, REST_MS);
    return () => {
      isOld = true;
      clearTimeout(timer);
    };
  }, [text, isQuestion]);
  return isQuestion && found.text === text ? found.asked : null;
}

const SUBJECT_WORDS = { bars: 'Bars', batches: 'Batches', lots: 'Lots' } as const;

/** The question without the words between two places. */
const without = (text: string, from: number, to: number) =>
  `${text.slice(0, from)}${text.slice(to)}`.replace(/\s+/g, ' ').trim();

function countSaid({ count, open, rows }: AskAnswer): string {
  const answer = count === 0 ? 'None answers.' : count === 1 ? 'One answers.' : `${count} answer.`;
  const told = open > 0 ? ` Of ${open} it cannot be told.` : '';
  return `${answer}${told}${count > rows.length ? ` The first ${rows.length} are shown.` : ''}`;
}

export function Understood({
  text,
  asked,
  onText,
}: {
  text: string;
  asked: AskAnswer;
  onText: (text: string) => void;
}) {
  return (
    <div role="group" aria-label="What was understood" className="border-b border-hair px-3 py-1.5">
      <p className="flex flex-wrap items-center gap-x-2 gap-y-1">
        <span className="font-medium">{SUBJECT_WORDS[asked.subject]}</span>
        {asked.understood.map(({ says, from, to }) => (
          <button
            key={`${from} ${says}`}
            type="button"
            className="action flex items-center gap-1 py-0"
            aria-label={`Take out: ${says}`}
            onClick={() => onText(without(text, from, to))}
          >
            {says} <X size={14} aria-hidden="true" />
          </button>
        ))}
      </p>
      <p role="status" className="text-[0.9rem] text-soft">
        {countSaid(asked)}
        {asked.unread.length > 0 && ` Not read: ${asked.unread.join(', ')}.`}
      </p>
    </div>
  );
}
