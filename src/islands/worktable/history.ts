/** The worktable's memory: the formula as it is, what it was, and what was undone. */
import type { Formula } from '../../core/formula/types';

export interface History {
  present: Formula;
  past: Formula[];
  future: Formula[];
  /** What the last change was made to; further changes to it within a moment count as one. */
  lastKey: string | null;
  lastAt: number;
}

export type HistoryAction =
  | { type: 'change'; formula: Formula; key: string; at: number }
  | { type: 'undo' }
  | { type: 'redo' }
  | { type: 'restore'; history: History };

/** Changes to one field closer together than this are undone as one, milliseconds. */
const ONE_CHANGE_MS = 1200;
const MOST_STEPS = 200;

export function startHistory(formula: Formula): History {
  return { present: formula, past: [], future: [], lastKey: null, lastAt: 0 };
}

export function historyReducer(state: History, action: HistoryAction): History {
  switch (action.type) {
    case 'change': {
      const continues = action.key === state.lastKey && action.at - state.lastAt < ONE_CHANGE_MS;
      const past = continues ? state.past : [...state.past, state.present].slice(-MOST_STEPS);
      return { present: action.formula, past, future: [], lastKey: action.key, lastAt: action.at };
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

function storageKey(productId: string): string {
  return `worktable:${productId}`;
}

/** Keeps the steps back and forth for this browser session, beside the revision they lead to. */
export function keepSteps(productId: string, revision: number, { past, future }: History): void {
  try {
    sessionStorage.setItem(storageKey(productId), JSON.stringify({ revision, past, future }));
  } catch {
    // A full or closed store costs the steps across a reload, nothing else.
  }
}

/** The kept steps, if they lead to this very revision. */
export function recallSteps(productId: string, revision: number): Pick<History, 'past' | 'future'> | null {
  try {
    const kept = JSON.parse(sessionStorage.getItem(storageKey(productId)) ?? 'null') as
      ({ revision: number } & Pick<History, 'past' | 'future'>) | null;
    return kept?.revision === revision ? { past: kept.past, future: kept.future } : null;
  } catch {
    return null;
  }
}
