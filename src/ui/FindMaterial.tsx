import { useContext, useEffect, useLayoutEffect, useRef, useState } from 'react';
import {
  ComboBox,
  ComboBoxStateContext,
  Input,
  Label,
  ListBox,
  ListBoxItem,
  Popover,
} from 'react-aria-components';
import type { Material } from '../core/formula/types';
import styles from './FindMaterial.module.css';

const REST_MS = 120;

export interface FoundMaterial {
  material: Material;
  /** Whether it stands in the maker's own cupboard, or only in the starter library. */
  isOwn: boolean;
}

interface Props {
  label: string;
  onFound: (found: FoundMaterial) => void;
}

/** Nothing is found yet. */
const NONE: FoundMaterial[] = [];

/**
 * Finds materials as a few letters are typed. Answers what was found by these very letters, and null until that is known:
 * what is chosen is never of a list that is about to change under the hand.
 */
function useSearch(text: string): FoundMaterial[] | null {
  const [found, setFound] = useState<{ text: string; materials: FoundMaterial[] } | null>(null);
  useEffect(() => {
    const stop = new AbortController();
    const timer = setTimeout(() => {
      fetch(`/api/v1/materials?q=${encodeURIComponent(text)}`, { signal: stop.signal })
        .then((answer) => answer.json() as Promise<{ materials: FoundMaterial[] }>)
        .then(({ materials }) => setFound({ text, materials }))
        .catch(() => undefined);
    }, REST_MS);
    return () => {
      clearTimeout(timer);
      stop.abort();
    };
  }, [text]);
  return found?.text === text ? found.materials : null;
}

/** Emptying the field after a choice opens the list anew, over what was chosen for: it is closed before it shows. */
function StaysShut({ choices }: { choices: number }) {
  const state = useContext(ComboBoxStateContext);
  const seen = useRef(choices);
  useLayoutEffect(() => {
    if (!state?.isOpen || seen.current === choices) return;
    seen.current = choices;
    state.close();
  }, [state, choices]);
  // What opens it later is the maker.
  useEffect(() => {
    const timer = setTimeout(() => (seen.current = choices), REST_MS);
    return () => clearTimeout(timer);
  }, [choices]);
  return null;
}

/** Finds a material by a few letters of its name or ingredient name, the maker's own first. */
export function FindMaterial({ label, onFound }: Props) {
  const [text, setText] = useState('');
  const [choices, setChoices] = useState(0);
  const answer = useSearch(text);
  const found = answer ?? NONE;
  const add = (key: string | number | null) => {
    const chosen = found.find(({ material }) => material.id === key);
    if (!chosen) return;
    setChoices(choices + 1);
    setText('');
    onFound(chosen);
  };
  return (
    <ComboBox
      items={found.map((entry) => ({ id: entry.material.id, entry }))}
      inputValue={text}
      onInputChange={setText}
      value={null}
      onChange={add}
      menuTrigger="focus"
      allowsEmptyCollection
      className="mt-3 flex items-baseline gap-3"
    >
      <StaysShut choices={choices} />
      <Label className="font-medium">{label}</Label>
      <Input className="field w-72" placeholder="a few letters, e.g. lav" />
      <Popover className={styles.list}>
        <ListBox
          renderEmptyState={() => (
            <p className="px-3 py-1.5 text-soft">{answer ? 'Nothing by that name.' : 'Looking…'}</p>
          )}
        >
          {({ id, entry }: { id: string; entry: FoundMaterial }) => (
            <ListBoxItem id={id} textValue={entry.material.name} className={styles.option}>
              <span>{entry.material.name}</span>
              <span className="font-narrow text-soft">{entry.isOwn ? 'cupboard' : 'library'}</span>
            </ListBoxItem>
          )}
        </ListBox>
      </Popover>
    </ComboBox>
  );
}
