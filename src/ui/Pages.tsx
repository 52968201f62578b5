import type { ReactNode } from 'react';
import type { PageOf } from '../core/records/page';

interface Props {
  page: PageOf;
  path: string;
  /** What is counted: one, and several. */
  nouns: readonly [one: string, several: string];
  /** What else the address says: kept from page to page, and sent with what is looked for unless `fields` asks for it. */
  query?: Readonly<Record<string, string>>;
  /** More that can be asked besides a name. */
  fields?: ReactNode;
  /** Said behind the count. */
  said?: string;
  /** Other ways to look at the list. */
  children?: ReactNode;
}

function addressOf(path: string, query: Readonly<Record<string, string>>): string {
  const text = new URLSearchParams(Object.entries(query).filter(([, value]) => value !== '')).toString();
  return text ? `${path}?${text}` : path;
}

/** Finding by name and going from page to page; plain links and a plain form. */
export function Pages({ page, path, nouns, query = {}, fields, said = '', children }: Props) {
  const { page: at, pages, count, find } = page;
  const to = (next: number) => addressOf(path, { find, ...query, page: next > 1 ? String(next) : '' });
  return (
    <div className="flex flex-wrap items-end gap-x-6 gap-y-2 py-2">
      <form action={path} className="flex flex-wrap items-end gap-2">
        <label>
          <span className="eyebrow block">Find</span>
          <input className="field w-48" name="find" defaultValue={find} placeholder="name" />
        </label>
        {fields ??
          Object.entries(query).map(([name, value]) => (
            <input key={name} type="hidden" name={name} value={value} />
          ))}
        <button type="submit" className="action">
          Find
        </button>
      </form>
      <p className="text-soft">
        {count} {nouns[count === 1 ? 0 : 1]}
        {find && ` with “${find}”`}
        {said && ` ${said}`}
      </p>
      {children}
      {pages > 1 && (
        <nav aria-label="Pages" className="ml-auto flex items-center gap-3">
          {at > 1 && (
            <a className="action" href={to(at - 1)} rel="prev">
              Earlier
            </a>
          )}
          <span className="tabular-nums">
            {at} of {pages}
          </span>
          {at < pages && (
            <a className="action" href={to(at + 1)} rel="next">
              Later
            </a>
          )}
        </nav>
      )}
    </div>
  );
}
