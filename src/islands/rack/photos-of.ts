/** The photographs of a batch that are on file, and the ways to add and take away one. */
import { useState } from 'react';
import type { CureData } from '../../core/records/rack';
import { address, send } from '../../ui/api';
import { smaller } from '../../ui/photos';

type Photo = CureData['photos'][number];

export interface PhotosOf {
  all: readonly Photo[];
  /** What went wrong last. */
  says: string | null;
  add: (file: File, note: string) => Promise<void>;
  drop: (photo: string) => Promise<void>;
  addressOf: (photo: Photo) => string;
}

export function usePhotos(data: CureData): PhotosOf {
  const { id } = data.detail;
  const [all, setAll] = useState(data.photos);
  const [says, setSays] = useState<string | null>(null);
  const add = async (file: File, note: string) => {
    try {
      const body = await smaller(file);
      const url = `${address('batches', id, 'photos')}?note=${encodeURIComponent(note)}`;
      const answer = await fetch(url, { method: 'POST', headers: { 'content-type': body.type }, body });
      const kept = (await answer.json()) as Photo & { errors?: { message: string }[] };
      if (answer.ok) setAll((old) => [...old, kept]);
      setSays(answer.ok ? null : (kept.errors?.[0]?.message ?? 'It was not kept. Try again.'));
    } catch {
      setSays('This picture cannot be opened. Take another.');
    }
  };
  const drop = async (photo: string) => {
    const answer = await send('DELETE', address('batches', id, 'photos', photo));
    if (answer.ok) setAll((old) => old.filter((one) => one.id !== photo));
    else setSays('It is still there. Try again.');
  };
  return { all, says, add, drop, addressOf: (photo) => address('batches', id, 'photos', photo.id) };
}
