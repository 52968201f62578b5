import type { SaveState } from './saving';

interface Props {
  /** What was changed in the other window, e.g. "This bar". */
  what: string;
  save: SaveState<unknown>;
  onTakeTheirs: () => void;
  onKeepMine: () => void;
}

/** Whether what is on the table is on file; and the choice where another window has saved in between. */
export function SaveLine({ what, save, onTakeTheirs, onKeepMine }: Props) {
  if (save.state === 'stale') {
    return (
      <div
        role="alert"
        className="flex flex-wrap items-center gap-3 border-l-4 border-madder bg-wash px-3 py-2"
      >
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
  const words = {
    saved: 'Saved',
    waiting: 'Not saved yet',
    saving: 'Saving',
    failed: save.state === 'failed' ? `Not saved: ${save.message}` : '',
  }[save.state];
  return (
    <span role="status" className={save.state === 'failed' ? 'text-madder' : 'text-soft'}>
      {words}
    </span>
  );
}
