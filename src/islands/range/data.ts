/** What the range shows, fetched: the first rows come with the page, the rest and what its batches wait for follow. */
import { useEffect, useMemo, useState } from 'react';
import { groupBy } from '../../core/group';
import type { Hand } from '../../core/hands/hand';
import { handsOfBatch } from '../../core/hands/sources';
import { needsOf } from '../../core/range/arrange';
import type { RangeData, RangeRow } from '../../core/records/range';
import type { RackData } from '../../core/records/rack';
import { address, send } from '../../ui/api';

/** Rows still being reckoned are asked for again after so long. */
const AGAIN_MS = 1500;
export interface Range {
  rows: readonly RangeRow[];
  count: number;
  pending: number;
  needsOf: (row: RangeRow) => readonly Hand[];
  startBy: (id: string) => string | null;
}

function rackNeeds({ batches }: RackData): ReadonlyMap<string | null, Hand[]> {
  return groupBy(
    batches.flatMap((batch) => handsOfBatch(batch, batch.tasks)),
    ({ bar }) => bar,
  );
}

/** Keeps the range up to date. */
export function useRange(first: RangeData, today: string): Range {
  const [data, setData] = useState(first);
  const [rack, setRack] = useState<ReadonlyMap<string | null, Hand[]>>(new Map());
  const [days, setDays] = useState<Record<string, string>>({});
  useEffect(() => {
    let timer: ReturnType<typeof setTimeout> | undefined;
    let isGone = false;
    const ask = async () => {
      const answer = await send<RangeData>('GET', address('range'));
      if (isGone) return;
      if (answer.ok) setData(answer.body);
      if (!answer.ok || answer.body.pending > 0) timer = setTimeout(() => void ask(), AGAIN_MS);
    };
    if (first.rows.length < first.count || first.pending > 0) void ask();
    void send<RackData>('GET', address('rack')).then(
      (answer) => answer.ok && setRack(rackNeeds(answer.body)),
    );
    void send<Record<string, string>>('GET', address('range', 'days')).then(
      (answer) => answer.ok && setDays(answer.body),
    );
    return () => {
      isGone = true;
      clearTimeout(timer);
    };
  }, [first]);
  return useMemo(() => {
    const startBy = (id: string) => days[id] ?? null;
    const needs = new Map(
      data.rows.map((row) => [
        row.id,
        needsOf(row, today, { rack: rack.get(row.id) ?? [], startBy: startBy(row.id) }),
      ]),
    );
    return { ...data, startBy, needsOf: ({ id }: RangeRow) => needs.get(id) ?? [] };
  }, [data, rack, days, today]);
}
