import { useRef, useState, type KeyboardEvent } from 'react';
import {
  alongWay,
  stepOnWay,
  WAY_COLUMNS,
  type Way,
  type WayColumn,
  type WayNode,
} from '../../core/batch/way';
import styles from './way.module.css';

const HEADS: Record<WayColumn, string> = {
  supplier: 'From',
  lot: 'Lots',
  batch: 'Batches',
  bars: 'Bars',
  buyer: 'To',
};

/** Of a node with its gap, pixels. */
const ROW_PX = 52;
const HEAD_PX = 26;
/** Of a column and of a node within it, percent of the width. */
const COLUMN_PCT = 100 / WAY_COLUMNS.length;
const NODE_PCT = COLUMN_PCT * 0.82;

interface Place {
  left: number;
  top: number;
}

/** Each column stands in the middle of the height of the tallest. */
function placesOf({ nodes }: Way): { places: ReadonlyMap<string, Place>; height: number } {
  const columns = WAY_COLUMNS.map((column) => nodes.filter((node) => node.column === column));
  const most = Math.max(1, ...columns.map(({ length }) => length));
  const places = new Map<string, Place>();
  columns.forEach((column, x) =>
    column.forEach(({ id }, y) =>
      places.set(id, {
        left: x * COLUMN_PCT,
        top: HEAD_PX + (y + (most - column.length) / 2) * ROW_PX,
      }),
    ),
  );
  return { places, height: HEAD_PX + most * ROW_PX };
}

const middle = ({ top }: Place) => top + (ROW_PX - 8) / 2;

function Links({
  way,
  places,
  lit,
}: {
  way: Way;
  places: ReadonlyMap<string, Place>;
  lit: ReadonlySet<string>;
}) {
  return way.links.map(([from, to]) => {
    const [a, b] = [places.get(from)!, places.get(to)!];
    const isLit = lit.has(from) && lit.has(to);
    const [x, z] = [a.left + NODE_PCT, b.left];
    const bend = (x + z) / 2;
    return (
      <path
        key={`${from} ${to}`}
        d={`M ${x} ${middle(a)} C ${bend} ${middle(a)} ${bend} ${middle(b)} ${z} ${middle(b)}`}
        className={isLit ? styles.litLink : styles.link}
      />
    );
  });
}

interface NodeProps {
  node: WayNode;
  place: Place;
  isLit: boolean;
  isEntry: boolean;
  onFocus: () => void;
  onKey: (event: KeyboardEvent) => void;
}

function Node({ node, place, isLit, isEntry, onFocus, onKey }: NodeProps) {
  const { id, words, more, isHeld, href } = node;
  const about = {
    className: `${styles.node} ${isHeld ? styles.held : ''} ${isLit ? styles.lit : ''}`,
    style: { left: `${place.left}%`, top: place.top, width: `${NODE_PCT}%` },
    'data-node': id,
    tabIndex: isEntry ? 0 : -1,
    title: more ? `${words}, ${more}` : words,
    onFocus,
    onKeyDown: onKey,
  };
  const said = (
    <>
      <span className={styles.words}>{words}</span>
      {more && <span className={styles.more}>{more}</span>}
    </>
  );
  return href ? (
    <a href={href} {...about}>
      {said}
    </a>
  ) : (
    <div role="note" {...about}>
      {said}
    </div>
  );
}

/** Supplier, lot, batch, bars and buyers from left to right, walked by the arrow keys; Enter opens what one stands on. */
export function WayPicture({ way }: { way: Way }) {
  const [at, setAt] = useState<string | null>(null);
  const box = useRef<HTMLDivElement>(null);
  const { places, height } = placesOf(way);
  const lit = at === null ? new Set<string>() : alongWay(way, at);
  const entry = at ?? way.nodes[0]?.id;
  const onKey = (id: string) => (event: KeyboardEvent) => {
    const next = stepOnWay(way, id, event.key);
    if (next === null) return;
    event.preventDefault();
    box.current?.querySelector<HTMLElement>(`[data-node="${CSS.escape(next)}"]`)?.focus();
  };
  if (way.nodes.length === 0) return null;
  return (
    <figure className={styles.frame} aria-label="The way from supplier to buyer; arrow keys walk it">
      <div ref={box} className={styles.box} style={{ height }}>
        <svg
          className={styles.links}
          viewBox={`0 0 100 ${height}`}
          preserveAspectRatio="none"
          aria-hidden="true"
        >
          <Links way={way} places={places} lit={lit} />
        </svg>
        {WAY_COLUMNS.map((column, x) => (
          <span key={column} className={styles.head} style={{ left: `${x * COLUMN_PCT}%` }}>
            {HEADS[column]}
          </span>
        ))}
        {way.nodes.map((node) => (
          <Node
            key={node.id}
            node={node}
            place={places.get(node.id)!}
            isLit={lit.has(node.id)}
            isEntry={node.id === entry}
            onFocus={() => setAt(node.id)}
            onKey={onKey(node.id)}
          />
        ))}
      </div>
    </figure>
  );
}
