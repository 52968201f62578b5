import { Check } from 'lucide-react';
import type { Mailed } from '../../core/paperwork/mail';
import type { Together } from './together';

interface Props {
  together: Together;
  onOpen: (paper: Mailed) => void;
  onLeave: () => void;
}

/** What came together with the paper that was opened: each stays at hand until somebody has seen to it. */
export function CameTogether({ together: { mail, papers, opened, unread }, onOpen, onLeave }: Props) {
  const left = papers.length - opened.length;
  const of = mail === null ? 'dropped together' : `in ${mail}`;
  return (
    <section aria-label="What came together" className="mb-3 border-l-4 border-line pl-3">
      <p className="break-words">
        {papers.length} {papers.length === 1 ? 'paper' : 'papers'} {of}
        {left > 0 && `, ${left} not opened yet`}
        {unread.length > 0 && `; of no kind that is read: ${unread.join(', ')}`}.
      </p>
      <div className="flex flex-wrap items-center gap-2">
        {papers.map((paper, at) => (
          <button
            key={`${at} ${paper.fileName}`}
            type="button"
            className="action flex items-center gap-1"
            onClick={() => onOpen(paper)}
          >
            {opened.includes(paper) && <Check size={15} aria-label="opened:" />}
            {paper.fileName}
          </button>
        ))}
        <button type="button" className="action" onClick={onLeave}>
          {left > 0 ? 'Leave the rest' : 'Done with these'}
        </button>
      </div>
    </section>
  );
}
