/** Photographs of a batch: made smaller in the browser, kept there until the house has them. */
import { useEffect, useState } from 'react';
import { address } from './api';
import { dropPhoto, keepPhoto, keptPhotos, type KeptPhoto } from './bench-store';
import { useStable } from './latest';

/** Longest side of a photograph that is kept, pixels; a telephone's own are four times that. */
const LONGEST_SIDE = 1600;
const QUALITY = 0.82;

/** A photograph made smaller in the browser; throws where it cannot be drawn. */
export async function smaller(file: File): Promise<Blob> {
  const bitmap = await createImageBitmap(file);
  const scale = Math.min(1, LONGEST_SIDE / Math.max(bitmap.width, bitmap.height));
  const canvas = document.createElement('canvas');
  canvas.width = Math.round(bitmap.width * scale);
  canvas.height = Math.round(bitmap.height * scale);
  canvas.getContext('2d')!.drawImage(bitmap, 0, 0, canvas.width, canvas.height);
  return new Promise((resolve, reject) =>
    canvas.toBlob(
      (blob) => (blob ? resolve(blob) : reject(new Error('nothing drawn'))),
      'image/jpeg',
      QUALITY,
    ),
  );
}

/** How often what waits is tried again. */
const RETRY_MS = 15_000;

/** Sends one; `why` where the house refused it for good, `away` where it was not heard. */
async function sent({ batch, note, blob }: KeptPhoto): Promise<'sent' | 'away' | { why: string }> {
  try {
    const answer = await fetch(`${address('batches', batch, 'photos')}?note=${encodeURIComponent(note)}`, {
      method: 'POST',
      headers: { 'content-type': blob.type },
      body: blob,
    });
    if (answer.ok) return 'sent';
    if (answer.status >= 500 || answer.status === 401 || answer.status === 429) return 'away';
    const told = (await answer.json()) as { errors?: { message: string }[] };
    return { why: told.errors?.[0]?.message ?? 'It was refused.' };
  } catch {
    return 'away';
  }
}

/** The photographs of a batch that wait here, and a way to add one: it is on this device before it is on its way. */
export function useBenchPhotos(batch: string) {
  const [waiting, setWaiting] = useState<KeptPhoto[]>([]);
  const [says, setSays] = useState<string | null>(null);
  const [isBusy, setBusy] = useState(false);
  const flush = useStable(async () => {
    for (const photo of await keptPhotos(batch)) {
      const outcome = await sent(photo);
      if (outcome === 'away') break;
      await dropPhoto(photo.id);
      setSays(outcome === 'sent' ? 'The photograph is on file.' : `Not kept: ${outcome.why}`);
    }
    setWaiting(await keptPhotos(batch));
  });
  useEffect(() => {
    void flush();
    const timer = setInterval(() => void flush(), RETRY_MS);
    const again = () => void flush();
    window.addEventListener('online', again);
    return () => {
      clearInterval(timer);
      window.removeEventListener('online', again);
    };
  }, [flush]);
  const add = async (file: File | undefined, note: string) => {
    if (!file) return;
    setBusy(true);
    try {
      await keepPhoto({ id: crypto.randomUUID(), batch, note, blob: await smaller(file) });
      setSays(null);
      await flush();
    } catch {
      setSays('This picture cannot be opened or kept. Take another.');
    }
    setBusy(false);
  };
  return { waiting, says, isBusy, add };
}
