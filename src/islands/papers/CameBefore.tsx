import { useEffect, useState } from 'react';
import { useWatch } from 'react-hook-form';
import { saysOtherwise } from '../../core/paperwork/came-before';
import type { CupboardEntry } from '../../core/records/cupboard';
import type { MaterialDocument } from '../../core/records/papers';
import { address, send } from '../../ui/api';
import { papersFrom, type Draft } from './draft';

/** The papers on file of a material, asked for when it is chosen. */
function useOnFile(material: string): readonly MaterialDocument[] {
  const [found, setFound] = useState<{ material: string; papers: MaterialDocument[] } | null>(null);
  useEffect(() => {
    let isWanted = true;
    if (material === '') return;
    void send<CupboardEntry>('GET', address('materials', material)).then((answer) => {
      if (!isWanted || !answer.ok) return;
      const { certificate, allergens } = answer.body.papers;
      const papers = [certificate, allergens].flatMap((one) => (one ? [one.paper, ...one.others] : []));
      setFound({ material, papers });
    });
    return () => {
      isWanted = false;
    };
  }, [material]);
  return found?.material === material ? found.papers : [];
}

/** Where a paper of that number is on file: what this one says otherwise, before it is filed. */
export function CameBefore({ fileName }: { fileName: string }) {
  const draft = useWatch<Draft>() as Draft;
  const onFile = useOnFile(draft.material);
  const found = papersFrom(draft, fileName).flatMap((paper) => {
    const otherwise = saysOtherwise(paper, onFile);
    return otherwise === null ? [] : [{ paper, otherwise }];
  });
  if (found.length === 0) return null;
  return (
    <div role="status" aria-label="It came before" className="border-l-4 border-ink pl-3">
      {found.map(({ paper: { number, type }, otherwise }) => (
        <div key={type}>
          <p className="font-medium">
            {number} is on file already
            {otherwise.length === 0 ? ', and says the same.' : '. It says otherwise now:'}
          </p>
          <ul>
            {otherwise.map((line) => (
              <li key={line}>{line}</li>
            ))}
          </ul>
        </div>
      ))}
    </div>
  );
}
