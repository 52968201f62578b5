/** The way of what is traced, as a picture: suppliers, lots, batches, bars and who has them, in columns with links. */
import type { Trace } from '../records/batch';

export const WAY_COLUMNS = ['supplier', 'lot', 'batch', 'bars', 'buyer'] as const;
export type WayColumn = (typeof WAY_COLUMNS)[number];

export interface WayNode {
  id: string;
  column: WayColumn;
  words: string;
  /** A second line; empty for none. */
  more: string;
  isHeld: boolean;
  href: string | null;
}

export interface Way {
  nodes: WayNode[];
  /** Ids of nodes in neighbouring columns, left to right. */
  links: (readonly [from: string, to: string])[];
}

const HOW_WORDS: Record<Trace['batches'][number]['gone'][number]['how'], string> = {
  sale: 'sold, to whom is not written',
  sample: 'samples, to whom is not written',
  loss: 'lost',
  own: 'kept',
};

const barsSaid = (count: number) => (count === 1 ? '1 bar' : `${count} bars`);

class Drawing {
  private readonly nodes = new Map<string, WayNode>();
  private readonly links = new Map<string, readonly [string, string]>();

  node(column: WayColumn, key: string, about: Omit<WayNode, 'id' | 'column'>): string {
    const id = `${column} ${key}`;
    if (!this.nodes.has(id)) this.nodes.set(id, { id, column, ...about });
    return id;
  }

  link(from: string, to: string): void {
    this.links.set(`${from} > ${to}`, [from, to]);
  }

  done(): Way {
    const rank = ({ column }: WayNode) => WAY_COLUMNS.indexOf(column);
    return {
      nodes: [...this.nodes.values()].sort((a, b) => rank(a) - rank(b)),
      links: [...this.links.values()],
    };
  }
}

function drawLot(drawing: Drawing, lot: Trace['lots'][number], codeOf: ReadonlyMap<string, string>): string {
  const { id, code, name, supplier, quarantine, ofBatch, madeOf } = lot;
  const made = ofBatch === null ? null : (codeOf.get(ofBatch) ?? ofBatch);
  const from =
    madeOf.length > 0
      ? drawing.node('supplier', `lots ${id}`, {
          ...{ words: 'made here', more: `of ${madeOf.map((one) => one.code).join(', ')}` },
          ...{ isHeld: false, href: `/pour/trace?lot=${encodeURIComponent(madeOf[0]!.lot)}` },
        })
      : made === null
        ? drawing.node('supplier', supplier || '?', {
            words: supplier || 'supplier not written down',
            ...{ more: '', isHeld: false, href: null },
          })
        : drawing.node('supplier', `batch ${made}`, {
            ...{ words: 'made here', more: `of batch ${made}`, isHeld: false },
            href: `/pour/trace?code=${encodeURIComponent(made)}`,
          });
  const node = drawing.node('lot', id, {
    words: name,
    more: `lot ${code}${quarantine === null ? '' : ', held'}`,
    isHeld: quarantine !== null,
    href: `/pour/trace?lot=${encodeURIComponent(id)}`,
  });
  drawing.link(from, node);
  return node;
}

function drawBars(drawing: Drawing, batch: Trace['batches'][number], from: string): void {
  const { id, bars, gone, isQuarantined } = batch;
  const out = gone.reduce((sum, one) => sum + one.bars, 0);
  if (bars.good === 0 && out === 0) return;
  const node = drawing.node('bars', id, {
    ...{ words: barsSaid(bars.good), more: `${bars.left} here`, isHeld: isQuarantined && bars.left > 0 },
    href: `/rack/${encodeURIComponent(id)}`,
  });
  drawing.link(from, node);
  for (const { to, how } of gone) {
    const words = to ?? HOW_WORDS[how];
    drawing.link(node, drawing.node('buyer', words, { words, more: '', isHeld: false, href: null }));
  }
}

/**
 * What was traced as nodes in columns and links between neighbours; each supplier and buyer stands once.
 *
 * @example
 * wayOf(trace).links; // [['supplier Hesper & Dunn', 'lot l1'], ['lot l1', 'batch b1'], …]
 */
export function wayOf({ lots, batches }: Trace): Way {
  const drawing = new Drawing();
  const codeOf = new Map(batches.map(({ id, code }) => [id, code]));
  const lotNodes = new Map(lots.map((lot) => [lot.id, drawLot(drawing, lot, codeOf)]));
  for (const batch of batches) {
    const node = drawing.node('batch', batch.id, {
      ...{ words: batch.productName, more: batch.code, isHeld: batch.isQuarantined },
      href: `/rack/${encodeURIComponent(batch.id)}`,
    });
    for (const { lot } of batch.drawn) {
      const from = lotNodes.get(lot);
      if (from) drawing.link(from, node);
    }
    drawBars(drawing, batch, node);
  }
  return drawing.done();
}

/** A node with all it comes from and all that comes of it. */
export function alongWay({ links }: Way, id: string): ReadonlySet<string> {
  const found = new Set([id]);
  const follow = (from: 0 | 1) => {
    const open = [id];
    for (let at = open.pop(); at !== undefined; at = open.pop())
      for (const link of links)
        if (link[from] === at && !found.has(link[1 - from]!)) {
          found.add(link[1 - from]!);
          open.push(link[1 - from]!);
        }
  };
  follow(0);
  follow(1);
  return found;
}

/** Where a key leads from a node: along its links to the sides, and to its neighbours above and below; null for nowhere. */
export function stepOnWay({ nodes, links }: Way, id: string, key: string): string | null {
  const here = nodes.find((node) => node.id === id);
  if (!here) return null;
  const column = nodes.filter((node) => node.column === here.column);
  const at = column.indexOf(here);
  switch (key) {
    case 'ArrowRight':
      return links.find(([from]) => from === id)?.[1] ?? null;
    case 'ArrowLeft':
      return links.find(([, to]) => to === id)?.[0] ?? null;
    case 'ArrowDown':
      return column[at + 1]?.id ?? null;
    case 'ArrowUp':
      return column[at - 1]?.id ?? null;
    default:
      return null;
  }
}
