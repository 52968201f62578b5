import { useState } from 'react';
import { toldAt } from '../../core/batch/told';
import type { RunStep } from '../../core/making/run-sheet-types';
import benchStyles from '../../ui/bench.module.css';
import { useBenchPhotos } from '../../ui/photos';
import type { Write } from '../../ui/writing';

interface Props {
  batchId: string;
  step: RunStep;
  write: Write;
}

/** What happened, in two taps: usual things, words of one's own, a photograph. */
export function Happened({ batchId, step, write }: Props) {
  const [text, setText] = useState('');
  const [isForNext, setForNext] = useState(false);
  const [says, setSays] = useState<string | null>(null);
  const photos = useBenchPhotos(batchId);
  const tell = (words: string) => {
    write('noted', { text: `${step.title}: ${words}`, for: isForNext ? 'nextTime' : 'record' });
    setSays(`Written down: ${words}`);
  };
  return (
    <details className="sm:open:col-span-2">
      <summary className={benchStyles.benchAction}>Something happened</summary>
      <div className="mt-2 grid gap-2" role="group" aria-label="Something happened">
        <div className="grid gap-2 sm:grid-cols-2">
          {toldAt(step.place).map((words) => (
            <button key={words} type="button" className={benchStyles.benchAction} onClick={() => tell(words)}>
              {words}
            </button>
          ))}
          <label className={benchStyles.benchAction}>
            {photos.isBusy ? 'One moment …' : 'Take a photograph'}
            <input
              type="file"
              accept="image/*"
              capture="environment"
              className="sr-only"
              disabled={photos.isBusy}
              onChange={(event) => {
                void photos.add(event.target.files?.[0], step.title);
                event.target.value = '';
              }}
            />
          </label>
        </div>
        <form
          className="grid gap-2"
          onSubmit={(event) => {
            event.preventDefault();
            if (text.trim() === '') return;
            tell(text.trim());
            setText('');
          }}
        >
          <label>
            <span className="eyebrow block text-base">In your words</span>
            <input
              className={benchStyles.benchField}
              value={text}
              maxLength={1500}
              onChange={(event) => setText(event.target.value)}
            />
          </label>
          <label className="flex min-h-11 items-center gap-3">
            <input
              type="checkbox"
              className="accent-ultra"
              checked={isForNext}
              onChange={(event) => setForNext(event.target.checked)}
            />
            Say it again the next time this bar is poured
          </label>
          <button type="submit" className={benchStyles.benchAction} disabled={text.trim() === ''}>
            Write it down
          </button>
        </form>
        {says !== null && <p role="status">{says}</p>}
        {photos.waiting.length > 0 && (
          <p role="status">
            {photos.waiting.length === 1 ? 'A photograph waits' : `${photos.waiting.length} photographs wait`}{' '}
            on this device until the house answers.
          </p>
        )}
        {photos.says !== null && <p role="status">{photos.says}</p>}
      </div>
    </details>
  );
}
