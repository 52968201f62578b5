import { useState } from 'react';
import type { CureData } from '../../core/records/rack';
import { dayAt } from '../../ui/words';
import type { Writing } from '../../ui/writing';
import { PictureButton } from './PictureButton';
import { usePhotos, type PhotosOf } from './photos-of';
import { Swatches } from './Swatches';

/** Letters of a file's name that are kept as the note of its picture. */
const LONGEST_NAME = 80;

function Photos({ code, photos }: { code: string; photos: PhotosOf }) {
  const { all, says, add, drop } = photos;
  return (
    <div>
      <ul className="flex flex-wrap gap-2">
        {all.map((photo) => (
          <li key={photo.id}>
            <img
              className="h-28 w-auto"
              src={photos.addressOf(photo)}
              alt={`${code}, ${dayAt(photo.at)}${photo.note && `: ${photo.note}`}`}
            />
            <span className="font-narrow text-soft">{dayAt(photo.at)}</span>{' '}
            <button type="button" className="text-ultra underline" onClick={() => void drop(photo.id)}>
              Take away
            </button>
          </li>
        ))}
      </ul>
      <PictureButton
        words="Add a photograph"
        onFile={(file) => void add(file, file.name.slice(0, LONGEST_NAME))}
      />
      {says && <p role="alert">{says}</p>}
    </div>
  );
}

/** What was found out, for the record or for the next pour, and photographs: colours move over the weeks. */
export function NotesPanel({ data, writing: { batch, write } }: { data: CureData; writing: Writing }) {
  const [text, setText] = useState('');
  const photos = usePhotos(data);
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
      <Photos code={data.detail.code} photos={photos} />
      <Swatches batch={batch} photos={photos} />
    </section>
  );
}
