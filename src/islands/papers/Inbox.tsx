/** What came: papers in a list, and the folder they may also come in by. */
import { FileText } from 'lucide-react';
import type { Inbox, InboxEntry } from '../../core/records/papers';
import { dayInWords } from '../../ui/words';

export function Papers({
  papers,
  onOpen,
}: {
  papers: readonly InboxEntry[];
  onOpen: (entry: InboxEntry) => void;
}) {
  return (
    <ul>
      {papers.map((entry) => (
        <li key={entry.id} className="border-b border-hair">
          <button
            type="button"
            className="flex w-full cursor-pointer items-start gap-2 py-1 text-left leading-tight hover:bg-white"
            onClick={() => onOpen(entry)}
          >
            <FileText size={15} aria-hidden="true" className="mt-0.5 shrink-0 text-soft" />
            <span>
              {entry.fileName}
              <span className="block font-narrow text-soft">
                came {dayInWords(entry.receivedOn)}
                {entry.filedOn && `, filed ${dayInWords(entry.filedOn)}`}
              </span>
            </span>
          </button>
        </li>
      ))}
    </ul>
  );
}

/** Where papers may be put without opening this page, and what of it could not be taken. */
export function Folder({ folder, leftOut }: Pick<Inbox, 'folder' | 'leftOut'>) {
  return (
    <div className="mt-3 text-[0.93rem]">
      <p className="text-soft">
        What lies in this folder comes in by itself: <span className="break-all select-all">{folder}</span>
      </p>
      <ul>
        {leftOut.map(({ fileName, why }) => (
          <li key={fileName} className="border-l-4 border-line pl-2 leading-snug">
            <span className="break-all">{fileName}</span>: {why}
          </li>
        ))}
      </ul>
    </div>
  );
}
