import { Command } from 'cmdk';
import { useEffect, useMemo, useState } from 'react';
import { Dialog, Modal, ModalOverlay } from 'react-aria-components';
import type { Hit, HitKind } from '../../core/records/search';
import { rank, wordsOf } from '../../core/search/rank';
import { send } from '../api';
import { ACTIONS } from './actions';
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
};
/** What is typed rests so long before it is asked for. */
const REST_MS = 120;
const MOST = 24;

interface Found {
  /** What was asked. */
  text: string;
  hits: Hit[];
  isSilent: boolean;
}

function useFound(text: string): Found {
  const [found, setFound] = useState<Found>({ text: '', hits: [], isSilent: false });
  useEffect(() => {
    if (text.trim() === '') return;
    let isOld = false;
    const timer = setTimeout(() => {
      void send<{ hits: Hit[] }>('GET', `/api/v1/search?q=${encodeURIComponent(text)}`).then((answer) => {
        if (!isOld) setFound({ text, hits: answer.ok ? answer.body.hits : [], isSilent: !answer.ok });
      });
    }, REST_MS);
    return () => {
      isOld = true;
      clearTimeout(timer);
    };
  }, [text]);
  return found;
}

/** Places and actions that answer to it, with what was found on file, best first. */
function together(text: string, { hits }: Found): Hit[] {
  const typed = wordsOf(text);
  if (typed.length === 0) return [...ACTIONS];
  return [...hits, ...ACTIONS]
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
  const hits = useMemo(() => together(text, found), [text, found]);
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
              placeholder="a bar, a material, a lot, a batch, a rule, or what you want to do"
            />
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
