import { useEffect, useRef, useState } from 'react';
import { useStable } from '../../ui/latest';
import { openByHand, openText, type Opening, type OpenPaper } from './open';

/** Opens a paper in some way, once what was under way is given up. */
export type Open = (way: (opening: Opening) => Promise<OpenPaper>) => Promise<void>;

const ACCEPTED =
  '.pdf,.eml,.docx,.odt,.xlsx,.ods,.html,.csv,.tsv,.txt,.png,.jpg,.jpeg,.webp,application/pdf,text/*,image/png,image/jpeg,image/webp,message/rfc822';

/** Asks for a picture from the camera of a phone or tablet; afterwards any file is asked for again. */
function byCamera(chooser: HTMLInputElement): void {
  chooser.accept = 'image/*';
  chooser.setAttribute('capture', 'environment');
  chooser.click();
  chooser.removeAttribute('capture');
  chooser.accept = ACCEPTED;
}

/** Other ways in: a file, dropped or chosen, and pasted text. */
export function OtherWays({ open, onFiles }: { open: Open; onFiles: (files: readonly File[]) => void }) {
  const [pasted, setPasted] = useState('');
  const chooser = useRef<HTMLInputElement>(null);
  const take = useStable(({ files, value }: HTMLInputElement) => {
    if (value === '') return;
    onFiles([...(files ?? [])]);
    chooser.current!.value = '';
  });
  // Files may be chosen before the page is awake, when nobody hears of it yet.
  useEffect(() => take(chooser.current!), [take]);
  return (
    <>
      <label className="mt-3 block cursor-pointer border border-dashed border-soft p-3 text-center">
        Drop PDFs, photographs, mails, documents, tables or text here, or{' '}
        <span className="text-ultra underline">choose files</span>
        <input
          ref={chooser}
          type="file"
          multiple
          className="sr-only"
          accept={ACCEPTED}
          onChange={(event) => take(event.target)}
        />
      </label>
      <button
        type="button"
        className="action mt-2 hidden w-full pointer-coarse:block"
        onClick={() => chooser.current && byCamera(chooser.current)}
      >
        Photograph one
      </button>
      <label className="mt-2 block">
        <span className="eyebrow block">Or paste its text</span>
        <textarea
          className="field w-full border border-line"
          rows={4}
          value={pasted}
          onChange={(event) => setPasted(event.target.value)}
        />
      </label>
      <button
        type="button"
        className="action mt-1"
        disabled={pasted.trim() === ''}
        onClick={() => void open(() => new Promise((done) => done(openText(pasted, 'Pasted text', null))))}
      >
        Read it
      </button>
      <button
        type="button"
        className="action mt-1 ml-2"
        onClick={() => void open(() => Promise.resolve(openByHand([])))}
      >
        Type one in
      </button>
    </>
  );
}
