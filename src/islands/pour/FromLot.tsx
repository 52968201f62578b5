import { useState } from 'react';
import { lotRefusal, stockShare } from '../../core/batch/draw';
import type { Batch } from '../../core/batch/types';
import { nextLot, type Lot } from '../../core/making/cost';
import { dayHere } from '../../ui/habits';
import { momentHere } from '../../ui/writing';
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
}

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
    ...{ lot, setLot, today, despite, setDespite, against, says },
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
  return `${code}, ${leftG >= 1000 ? `${(leftG / 1000).toFixed(1)} kg` : `${Math.round(leftG)} g`} left${past}`;
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

/** The lot, and the reason where something speaks against it. */
export function FromLot({ from, lots }: { from: From; lots: readonly Lot[] }) {
  const { lot, setLot, today, says, despite, setDespite } = from;
  return (
    <>
      {lots.length > 0 && <Lots lots={lots} lot={lot} onLot={setLot} today={today} />}
      {says !== null && (
        <label className={`${benchStyles.benchNote} block`}>
          {says}
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
