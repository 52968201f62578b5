/** Names that somebody typed, matched to materials; those that are not sure are asked about. */
import { useEffect, useState, type ReactNode } from 'react';
import type { FoundMaterial } from '../core/records/cupboard';
import type { Match } from '../core/sheets/match';
import { address, send } from './api';
import { FindMaterial } from './FindMaterial';

/** Names that are not sure, each with what it is taken for and another to choose. */
export function Names({
  names,
  matches,
  taken,
  isOpen = () => false,
  onFound,
  children,
}: {
  names: readonly string[];
  matches: ReadonlyMap<string, Match | null>;
  /** What a name is taken for, in words; null where it is not known. */
  taken: (name: string) => string | null;
  /** Whether a name is to be looked at though it is known beyond doubt. */
  isOpen?: (name: string) => boolean;
  onFound: (name: string, material: FoundMaterial['material']) => void;
  /** What else may be said of a name. */
  children?: (name: string) => ReactNode;
}) {
  const open = names.filter(
    (name) => matches.has(name) && (matches.get(name)?.isSure !== true || isOpen(name)),
  );
  if (open.length === 0) return null;
  return (
    <section aria-label="Names to look at">
      <h3 className="font-medium">Look at these names</h3>
      <ul>
        {open.map((name) => {
          const words = taken(name);
          return (
            <li key={name} className="flex flex-wrap items-center gap-x-3 border-b border-hair py-1">
              <span className="min-w-48 font-medium">{name}</span>
              <span className={words ? '' : 'text-madder'}>{words ?? 'not known here'}</span>
              <FindMaterial label="It is" onFound={({ material }) => onFound(name, material)} />
              {children?.(name)}
            </li>
          );
        })}
      </ul>
    </section>
  );
}

/** Names asked about at once. */
const MOST_NAMES = 400;

/** What each name most likely is, asked once; what is not answered counts as not known. */
export function useMatches(names: readonly string[]) {
  const [matches, setMatches] = useState<ReadonlyMap<string, Match | null>>(new Map());
  const missing = names.filter((name) => !matches.has(name)).slice(0, MOST_NAMES);
  const key = JSON.stringify(missing);
  useEffect(() => {
    if (key === '[]') return;
    const asked = JSON.parse(key) as string[];
    void send<{ matches: (Match | null)[] }>('POST', address('import', 'names'), { names: asked }).then(
      (answer) => {
        const found = asked.map((name, at) => [name, answer.ok ? answer.body.matches[at]! : null] as const);
        setMatches((old) => new Map([...old, ...found]));
      },
    );
  }, [key]);
  return { matches, isMatching: missing.length > 0 };
}
