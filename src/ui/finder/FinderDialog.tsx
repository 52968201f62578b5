import { Command } from 'cmdk';
import { useEffect, useMemo, useState } from 'react';
import { Dialog, Modal, ModalOverlay } from 'react-aria-components';
import type { Hand } from '../../core/hands/hand';
import type { Hit, HitKind } from '../../core/records/search';
import { rank, wordsOf } from '../../core/search/rank';
import { readText } from '../../core/sheets/text';
import { habits } from '../habits';
import { address, send } from '../api';
import { ACTIONS } from './actions';
import { Understood, useAsked } from './Asked';
import finderStyles from './finder.module.css';

const KIND_WORDS: Record<HitKind, string> = {
  bar: 'bar',
  material: 'material',
  lot: 'lot',
  batch: 'batch',
  paper: 'paper',
  label: 'label',
  rule: 'rule',
  place: 'go to',
  action: 'do',
  hand: 'waits',
};
/** What is typed rests so long before it is asked for. */
const REST_MS = 120;
const MOST = 24;
/** Before anything is typed. */
const HANDS_AT_ONCE = 5;

interface Found {
  /** What was asked. */
  text: string;
  hits: Hit[];
  isSilent: boolean;
}

/** What can be done with a bar that is named after the verb: "pour night mail", "label night mail". */
const VERBS: Readonly<Record<string, { words: string; href: (bar: string) => string }>> = {
  pour: { words: 'Pour', href: (bar) => `/pour?product=${encodeURIComponent(bar)}` },
  label: { words: 'Label of', href: (bar) => `/wrap/${encodeURIComponent(bar)}` },
};

/** The verb a line begins with, and what is named after it; null for a line that begins with none. */
function verbOf(text: string) {
  const [, verb, named] = /^\s*(\p{L}+)\s+(\S.*)$/u.exec(text) ?? [];
  const known = verb && Object.hasOwn(VERBS, verb.toLowerCase()) ? VERBS[verb.toLowerCase()]! : null;
  return known && { ...known, named: named! };
}

/** Two amounts with a comma between are a recipe. */
const RECIPE = /\d.*[,;].*\d/;

/** What is typed as a bar, where it reads as a recipe. */
const barOf = (text: string): Hit[] =>
  RECIPE.test(text) && readText(text, habits().weights).bar.lines.length > 1
    ? [
        {
          kind: 'action',
          id: 'recipe',
          title: 'Make a bar of this recipe',
          words: text,
          href: `/?recipe=${encodeURIComponent(text)}#new-bar`,
        },
      ]
    : [];

/** Bars that answer to what stands after a verb, as things to do. */
async function barsToDo(text: string): Promise<Hit[]> {
  const verb = verbOf(text);
  if (!verb) return [];
  const answer = await ask(verb.named);
  const bars = answer.ok ? answer.body.hits.filter(({ kind }) => kind === 'bar') : [];
  return bars.map(({ id, title }): Hit => ({
    kind: 'action',
    id: `${verb.words} ${id}`,
    title: `${verb.words} ${title}`,
    words: text,
    href: verb.href(id),
  }));
}

const ask = (text: string) => send<{ hits: Hit[] }>('GET', `/api/v1/search?q=${encodeURIComponent(text)}`);

function useFound(text: string): Found {
  const [found, setFound] = useState<Found>({ text: '', hits: [], isSilent: false });
  useEffect(() => {
    if (text.trim() === '') return;
    let isOld = false;
    const timer = setTimeout(() => {
      void Promise.all([ask(text), barsToDo(text)]).then(([answer, toDo]) => {
        const hits = [...toDo, ...(answer.ok ? answer.body.hits : [])];
        if (!isOld) setFound({ text, hits, isSilent: !answer.ok });
      });
    }, REST_MS);
    return () => {
      isOld = true;
      clearTimeout(timer);
    };
  }, [text]);
  return found;
}

/** What needs a hand, grave first, asked for when the finder opens. */
function useHands(isOpen: boolean): readonly Hit[] {
  const [hands, setHands] = useState<readonly Hand[]>([]);
  useEffect(() => {
    if (!isOpen) return;
    void send<{ hands: Hand[] }>('GET', address('hands')).then((answer) => {
      if (answer.ok) setHands(answer.body.hands);
    });
  }, [isOpen]);
  return useMemo(
    () =>
      hands.map(({ id, what, why, where }): Hit => ({
        kind: 'hand',
        id,
        title: what,
        words: why,
        href: where,
      })),
    [hands],
  );
}

/** Places and actions that answer to it, with what was found on file and what needs a hand, best first. */
function together(text: string, { hits }: Found, hands: readonly Hit[]): Hit[] {
  const typed = wordsOf(text);
  if (typed.length === 0) return [...hands.slice(0, HANDS_AT_ONCE), ...ACTIONS];
  const recipe = barOf(text);
  if (recipe.length > 0) return recipe;
  return [...hits, ...hands, ...ACTIONS]
    .map((hit) => ({ hit, value: rank(typed, hit.title, hit.words) }))
    .filter(({ value }) => value > 0)
    .sort((a, b) => b.value - a.value)
    .slice(0, MOST)
    .map(({ hit }) => hit);
}

function said({ isSilent, text: asked }: Found, text: string): string {
  if (isSilent) return 'The application does not answer; only places are shown.';
  return asked === text ? 'Nothing answers to that.' : 'Looking…';
}

/** One search over everything, with the keys going where it finds. */
export function FinderDialog({ isOpen, onOpen }: { isOpen: boolean; onOpen: (isOpen: boolean) => void }) {
  const [text, setText] = useState('');
  const found = useFound(text);
  const hands = useHands(isOpen);
  const asked = useAsked(text);
  const hits = useMemo(
    () => (asked ? asked.rows : together(text, found, hands)),
    [asked, text, found, hands],
  );
  const go = (href: string) => {
    onOpen(false);
    location.assign(href);
  };
  return (
    <ModalOverlay className={finderStyles.finderOver} isOpen={isOpen} onOpenChange={onOpen} isDismissable>
      <Modal className={finderStyles.finder}>
        <Dialog aria-label="Find anything">
          <Command label="Find anything" shouldFilter={false} loop>
            <Command.Input
              autoFocus
              className={`field ${finderStyles.finderField}`}
              value={text}
              onValueChange={setText}
              placeholder="a bar, a lot, a rule, what you want to do, or “bars without palm clear in the US”"
            />
            {asked && <Understood text={text} asked={asked} onText={setText} />}
            <Command.List className={finderStyles.finderList}>
              <Command.Empty className="p-3 text-soft">{said(found, text)}</Command.Empty>
              {hits.map((hit) => (
                <HitRow key={`${hit.kind} ${hit.id}`} hit={hit} onGo={go} />
              ))}
            </Command.List>
          </Command>
          <p className="eyebrow border-t border-hair px-3 py-1">↑ ↓ to choose, Enter to go, Esc to close</p>
        </Dialog>
      </Modal>
    </ModalOverlay>
  );
}

function HitRow({ hit, onGo }: { hit: Hit; onGo: (href: string) => void }) {
  const isOnFile = hit.kind !== 'place' && hit.kind !== 'action';
  return (
    <Command.Item
      value={`${hit.kind} ${hit.id}`}
      className={finderStyles.finderHit}
      onSelect={() => onGo(hit.href)}
    >
      <span className="eyebrow w-16 shrink-0">{KIND_WORDS[hit.kind]}</span>
      <span className="font-medium">{hit.title}</span>
      {isOnFile && <span className="min-w-0 flex-1 truncate font-narrow text-soft">{hit.words}</span>}
    </Command.Item>
  );
}
