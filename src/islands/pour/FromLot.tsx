import { stock } from '../../ui/words';
import { useState } from 'react';
import { lotRefusal, stockShare } from '../../core/batch/draw';
import type { Batch } from '../../core/batch/types';
import { nextLot, type Lot } from '../../core/making/cost';
import { dayHere } from '../../ui/habits';
import { momentHere } from '../../ui/writing';
import { inHouse, massUnit, typedGrams, toType } from '../../ui/masses';
import { BenchField } from './BenchField';
import benchStyles from '../../ui/bench.module.css';

/** From which bottle or sack it is taken, and what speaks against that, asked before anything is written down. */
export interface From {
  lot: string | null;
  setLot: (lot: string | null) => void;
  today: string;
  despite: string;
  setDespite: (words: string) => void;
  hasReason: boolean;
  /** What speaks against drawing so many grams of it, in words; null where nothing does. */
  against: (massG: number) => string | null;
  /** What speaks against the most that may be drawn. */
  says: string | null;
  /** What an event says of it. */
  drawn: { lot: string | null; despite: string | null };
  /** The most that may be drawn, grams. */
  mostG: number;
}

/** What a bottle holds where none is on file to go by, grams. */
const USUAL_BOTTLE_G = 1000;

/** `mostG`: what is wanted, or more where more is in the vessel or was typed. */
export function useFromLot(batch: Batch, material: string, lots: readonly Lot[], mostG: number): From {
  // The day that what is drawn now will be told of.
  const today = dayHere(momentHere());
  const [lot, setLot] = useState<string | null>(() => nextLot(lots, today)?.id ?? null);
  const [despite, setDespite] = useState('');
  const chosen = lots.find(({ id }) => id === lot);
  const { share } = stockShare(batch, material);
  const against = (massG: number) =>
    chosen === undefined ? null : (lotRefusal(chosen, massG * share, today)?.message ?? null);
  const says = against(mostG);
  const reason = despite.trim();
  return {
    ...{ lot, setLot, today, despite, setDespite, against, says, mostG },
    hasReason: reason !== '',
    drawn: { lot, despite: (says !== null && reason) || null },
  };
}

interface LotsProps {
  lots: readonly Lot[];
  lot: string | null;
  onLot: (lot: string | null) => void;
  today: string;
}

function lotWords({ code, leftG, bestBefore, quarantine }: Lot, today: string): string {
  if (quarantine !== null) return `${code}, in quarantine`;
  const past = bestBefore !== null && bestBefore < today ? ', past its day' : '';
  return `${code}, ${stock(leftG)} left${past}`;
}

function Lots({ lots, lot, onLot, today }: LotsProps) {
  return (
    <label className="block">
      <span className="eyebrow block text-base">From which bottle or sack</span>
      <select
        className={benchStyles.benchField}
        value={lot ?? ''}
        onChange={(event) => onLot(event.target.value || null)}
      >
        <option value="">not written down</option>
        {lots.map((one) => (
          <option key={one.id} value={one.id}>
            {lotWords(one, today)}
          </option>
        ))}
      </select>
    </label>
  );
}

type OnFind = (quantityG: number) => Promise<{ id: string } | { why: string }>;

/** A bottle or sack that nobody wrote down: how much is in it is proposed, and it is on file by the second tap. */
function NewLot({
  usualG,
  mostG,
  onFind,
}: {
  usualG: number | null;
  mostG: number;
  onFind: (quantityG: number) => Promise<string | null>;
}) {
  const [isOpen, setOpen] = useState(false);
  const [text, setText] = useState(() => toType(Math.ceil(Math.max(usualG ?? USUAL_BOTTLE_G, mostG))));
  const [fault, setFault] = useState<string | null>(null);
  const quantityG = typedGrams(text);
  if (!isOpen)
    return (
      <button type="button" className={benchStyles.benchAction} onClick={() => setOpen(true)}>
        A bottle that is not on file
      </button>
    );
  const make = async () => {
    const why = await onFind(quantityG);
    setFault(why);
    setOpen(why !== null);
  };
  return (
    <div
      className="grid gap-2 sm:grid-cols-[1fr_auto] sm:items-end"
      role="group"
      aria-label="A bottle that is not on file"
    >
      <BenchField label={`About how much was in it, ${massUnit()}`} value={text} onChange={setText} />
      <button
        type="button"
        className={benchStyles.benchAction}
        disabled={!(quantityG > 0)}
        onClick={() => void make()}
      >
        Make a lot and take from it
      </button>
      {fault !== null && (
        <p role="alert" className={`${benchStyles.benchNote} sm:col-span-2`}>
          {fault} Without the network, weigh it and choose the lot later.
        </p>
      )}
    </div>
  );
}

/** The lot, and the reason where something speaks against it. */
export function FromLot({ from, lots, onFind }: { from: From; lots: readonly Lot[]; onFind: OnFind }) {
  const { lot, setLot, today, says, despite, setDespite } = from;
  return (
    <>
      {lots.length > 0 && <Lots lots={lots} lot={lot} onLot={setLot} today={today} />}
      <NewLot
        usualG={lots.at(-1)?.quantityG ?? null}
        mostG={from.mostG}
        onFind={async (quantityG) => {
          const found = await onFind(quantityG);
          if ('why' in found) return found.why;
          setLot(found.id);
          return null;
        }}
      />
      {says !== null && (
        <label className={`${benchStyles.benchNote} block`}>
          {inHouse(says)}
          <span className="eyebrow mt-1 block text-base">Why is it taken all the same?</span>
          <input
            className={benchStyles.benchField}
            value={despite}
            onChange={(event) => setDespite(event.target.value)}
          />
        </label>
      )}
    </>
  );
}
