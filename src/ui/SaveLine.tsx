import type { Saving } from './saving';
import { momentInWords } from './words';
import saveLineStyles from './SaveLine.module.css';

interface Props<T> {
  /** What is saved here, e.g. "This bar". */
  what: string;
  saving: Pick<Saving<T>, 'save' | 'aside' | 'leaveAside'>;
  onTakeTheirs: () => void;
  onKeepMine: () => void;
  /** Puts on the table what an earlier visit left unsaved. */
  onTakeAside: (value: T) => void;
  /** Why what is on the table cannot be saved as it stands, if it cannot. */
  held?: string | null;
  /** Whether a field holds what cannot be read: that is never on file. */
  isUnread?: boolean;
}

const SECOND_MS = 1000;

function words<T>(save: Saving<T>['save'], held: string | null, isUnread: boolean): string {
  switch (save.state) {
    case 'saved':
      // What was saved before a field was written that cannot be read is not what stands there.
      return isUnread ? `Not saved yet: ${held ?? 'a field cannot be read'}.` : 'Saved';
    case 'saving':
      return 'Saving';
    case 'failed':
      return `Not saved: ${save.message}`;
    case 'away':
      return `Not saved: ${save.message ?? 'the application does not answer.'} It is kept in this browser and tried again in ${Math.round(save.againInMs / SECOND_MS)} s.`;
    default:
      return held ? `Not saved yet: ${held}.` : 'Not saved yet';
  }
}

/**
 * Whether what is on the table is on file; the choice where another window has saved in between; and what an
 * earlier visit left unsaved.
 */
export function SaveLine<T>({
  what,
  saving,
  onTakeTheirs,
  onKeepMine,
  onTakeAside,
  held = null,
  isUnread = false,
}: Props<T>) {
  const { save, aside, leaveAside } = saving;
  if (save.state === 'stale') {
    return (
      <div role="alert" className={saveLineStyles.saveNotice}>
        <span>{what} was changed in another window. Nothing has been overwritten.</span>
        <button type="button" className="action" onClick={onTakeTheirs}>
          Take the other (undo brings yours back)
        </button>
        <button type="button" className="action" onClick={onKeepMine}>
          Keep mine
        </button>
      </div>
    );
  }
  return (
    <>
      {aside && (
        <div role="alert" className={saveLineStyles.saveNotice}>
          <span>What you last typed here ({momentInWords(aside.at)}) did not reach the file.</span>
          <button
            type="button"
            className="action"
            onClick={() => {
              onTakeAside(aside.value);
              leaveAside();
            }}
          >
            Put it on the table
          </button>
          <button type="button" className="action" onClick={leaveAside}>
            Leave it
          </button>
        </div>
      )}
      <span
        role="status"
        className={save.state === 'failed' || save.state === 'away' ? 'text-madder' : 'text-soft'}
      >
        {words(save, held, isUnread)}
      </span>
    </>
  );
}
