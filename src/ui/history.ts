/** What a table remembers: what lies on it, what lay there before, and what was undone. */
import { useEffect } from 'react';

export interface History<T> {
  present: T;
  past: T[];
  future: T[];
  /** What the last change was made to; further changes to it within a moment count as one. */
  lastKey: string | null;
  lastAt: number;
}

export type HistoryAction<T> =
  | { type: 'change'; value: T; key: string; at: number }
  | { type: 'undo' }
  | { type: 'redo' }
  | { type: 'restore'; history: History<T> };

/** Changes to one field closer together than this are undone as one, milliseconds. */
const ONE_CHANGE_MS = 1200;
const MOST_STEPS = 200;

export function startHistory<T>(value: T): History<T> {
  return { present: value, past: [], future: [], lastKey: null, lastAt: 0 };
}

export function historyReducer<T>(state: History<T>, action: HistoryAction<T>): History<T> {
  switch (action.type) {
    case 'change': {
      const continues = action.key === state.lastKey && action.at - state.lastAt < ONE_CHANGE_MS;
      const past = continues ? state.past : [...state.past, state.present].slice(-MOST_STEPS);
      return { present: action.value, past, future: [], lastKey: action.key, lastAt: action.at };
    }
    case 'undo': {
      const before = state.past[state.past.length - 1];
      if (!before) return state;
      const future = [state.present, ...state.future];
      return { present: before, past: state.past.slice(0, -1), future, lastKey: null, lastAt: 0 };
    }
    case 'redo': {
      const [next, ...future] = state.future;
      if (!next) return state;
      return { present: next, past: [...state.past, state.present], future, lastKey: null, lastAt: 0 };
    }
    case 'restore':
      return action.history;
  }
}

/** Keeps the steps back and forth for this browser session, beside the revision they lead to. */
export function keepSteps<T>(key: string, revision: number, { past, future }: History<T>): void {
  try {
    sessionStorage.setItem(key, JSON.stringify({ revision, past, future }));
  } catch {
    // A full or closed store costs the steps across a reload, nothing else.
  }
}

/** The kept steps, if they lead to this very revision. */
export function recallSteps<T>(key: string, revision: number): Pick<History<T>, 'past' | 'future'> | null {
  try {
    const kept = JSON.parse(sessionStorage.getItem(key) ?? 'null') as
      ({ revision: number } & Pick<History<T>, 'past' | 'future'>) | null;
    return kept?.revision === revision ? { past: kept.past, future: kept.future } : null;
  } catch {
    return null;
  }
}

/** Undo and redo by the usual keys, also while a field has the focus. */
export function useUndoKeys(dispatch: (action: { type: 'undo' | 'redo' }) => void) {
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (!(event.ctrlKey || event.metaKey) || event.key.toLowerCase() !== 'z') return;
      event.preventDefault();
      dispatch({ type: event.shiftKey ? 'redo' : 'undo' });
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [dispatch]);
}
