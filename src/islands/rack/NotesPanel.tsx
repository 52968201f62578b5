import { useState } from 'react';
import type { CureData } from '../../core/records/rack';
import { address, send } from '../../ui/api';
import { smaller } from '../../ui/photos';
import { dayAt } from '../../ui/words';
import type { Writing } from '../../ui/writing';

function Photos({ data }: { data: CureData }) {
  const { id, code } = data.detail;
  const [photos, setPhotos] = useState(data.photos);
  const [says, setSays] = useState<string | null>(null);
  const add = async (file: File | undefined) => {
    if (!file) return;
    try {
      const body = await smaller(file);
      const answer = await fetch(
        `${address('batches', id, 'photos')}?note=${encodeURIComponent(file.name.slice(0, 80))}`,
        {
          method: 'POST',
          headers: { 'content-type': body.type },
          body,
        },
      );
      const kept = (await answer.json()) as {
        id: string;
        at: string;
        note: string;
        errors?: { message: string }[];
      };
      if (answer.ok) setPhotos((old) => [...old, kept]);
      setSays(answer.ok ? null : (kept.errors?.[0]?.message ?? 'It was not kept. Try again.'));
    } catch {
      setSays('This picture cannot be opened. Take another.');
    }
  };
  const drop = async (photo: string) => {
    const answer = await send('DELETE', address('batches', id, 'photos', photo));
    if (answer.ok) setPhotos((old) => old.filter((one) => one.id !== photo));
    else setSays('It is still there. Try again.');
  };
  return (
    <div>
      <ul className="flex flex-wrap gap-2">
        {photos.map((photo) => (
          <li key={photo.id}>
            <img
              className="h-28 w-auto"
              src={address('batches', id, 'photos', photo.id)}
              alt={`${code}, ${dayAt(photo.at)}${photo.note && `: ${photo.note}`}`}
            />
            <span className="font-narrow text-soft">{dayAt(photo.at)}</span>{' '}
            <button type="button" className="text-ultra underline" onClick={() => void drop(photo.id)}>
              Take away
            </button>
          </li>
        ))}
      </ul>
      <label className="action mt-1">
        Add a photograph
        <input
          type="file"
          accept="image/*"
          className="sr-only"
          onChange={(event) => {
            void add(event.target.files?.[0]);
            event.target.value = '';
          }}
        />
      </label>
      {says && <p role="alert">{says}</p>}
    </div>
  );
}

/** What was found out, for the record or for the next pour, and photographs: colours move over the weeks. */
export function NotesPanel({ data, writing: { batch, write } }: { data: CureData; writing: Writing }) {
  const [text, setText] = useState('');
  const add = (purpose: 'record' | 'nextTime') => {
    write('noted', { text: text.trim(), for: purpose });
    setText('');
  };
  return (
    <section id="notes" aria-label="Notes" className="sheet grid gap-2">
      <h2 className="text-lg">Notes and photographs</h2>
      <ul>
        {batch.notes.map((note) => (
          <li key={`${note.at} ${note.text}`}>
            {dayAt(note.at)}
            {note.by && `, ${note.by}`}: {note.text}
            {note.for === 'nextTime' && <span className="text-soft"> (for next time)</span>}
          </li>
        ))}
      </ul>
      <label>
        <span className="eyebrow block">What was found out</span>
        <textarea
          className="field w-full"
          rows={2}
          value={text}
          onChange={(event) => setText(event.target.value)}
        />
      </label>
      <div className="flex flex-wrap gap-2">
        <button
          type="button"
          className="action"
          disabled={text.trim() === ''}
          onClick={() => add('nextTime')}
        >
          For next time
        </button>
        <button type="button" className="action" disabled={text.trim() === ''} onClick={() => add('record')}>
          For the record
        </button>
      </div>
      <Photos data={data} />
    </section>
  );
}
