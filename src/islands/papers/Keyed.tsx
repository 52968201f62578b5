import { useState } from 'react';
import { useFormContext } from 'react-hook-form';
import { keyedLines } from '../../core/paperwork/keyed';
import { withKeyed, type Draft } from './draft';
import { PaperFault } from './fault';
import { readLines } from './reading';

/** Rows that somebody keys in or pastes: constituents with their shares, categories with their levels. */
export function Keyed() {
  const { getValues, reset } = useFormContext<Draft>();
  const [text, setText] = useState('');
  const [told, setTold] = useState<string | null>(null);
  const add = async () => {
    const { lines, said, unread } = keyedLines(text);
    const reading = await readLines(lines, [], new AbortController().signal).catch((error: unknown) => {
      setTold(error instanceof PaperFault ? error.message : 'These rows could not be read. Try them again.');
      return null;
    });
    if (!reading) return;
    // What was typed stays what was typed: only the rows are new.
    reset(withKeyed(getValues(), reading), { keepDefaultValues: true, keepDirty: true, keepErrors: true });
    const read = new Set([
      ...reading.rows.flatMap((row) => row.lines),
      ...reading.categories.filter(({ isOpen }) => !isOpen).map(({ line }) => line),
    ]);
    const lost = said.filter((_, at) => !read.has(at + 1));
    const added = said.length - lost.length;
    setText([...unread, ...lost].join('\n'));
    setTold(
      [
        added === 1 ? 'One row added.' : `${added} rows added.`,
        ...(unread.length > 0 ? ['What stands here says no share.'] : []),
        ...(lost.length > 0 ? ['What stands here was not understood.'] : []),
      ].join(' '),
    );
  };
  return (
    <details>
      <summary className="cursor-pointer py-1 text-ultra">Type in rows</summary>
      <label className="block">
        <span className="block text-soft">
          One a line, typed or pasted: “Linalool 78-70-6 0.5 - 1.2”, or a category with its level: “10A 5.47”.
          Percent.
        </span>
        <textarea
          className="field w-full border border-line"
          aria-label="Rows, one a line"
          rows={3}
          value={text}
          onChange={(event) => setText(event.target.value)}
        />
      </label>
      <button type="button" className="action" disabled={text.trim() === ''} onClick={() => void add()}>
        Add them
      </button>
      <span role="status" className="ml-3">
        {told}
      </span>
    </details>
  );
}
