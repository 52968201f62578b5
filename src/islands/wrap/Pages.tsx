import type { PageOfBars } from '../../core/records/product';

function addressOf({ find, putAway }: PageOfBars, path: string, page: number): string {
  const query = new URLSearchParams();
  if (find) query.set('find', find);
  if (putAway) query.set('show', 'away');
  if (page > 1) query.set('page', String(page));
  const text = query.toString();
  return text ? `${path}?${text}` : path;
}

/** Finding bars by name, those put away, and going from page to page; plain links and a plain form. */
export function Pages({ page, path }: { page: PageOfBars; path: string }) {
  const { page: at, pages, count, find, putAway } = page;
  return (
    <div className="flex flex-wrap items-end gap-x-6 gap-y-2 py-2">
      <form action={path} className="flex items-end gap-2">
        <label>
          <span className="eyebrow block">Find</span>
          <input className="field w-48" name="find" defaultValue={find} placeholder="name" />
        </label>
        {putAway && <input type="hidden" name="show" value="away" />}
        <button type="submit" className="action">
          Find
        </button>
      </form>
      <p className="text-soft">
        {count} {count === 1 ? 'bar' : 'bars'}
        {find && ` with “${find}”`}
        {putAway && ' put away'}
      </p>
      <a className="action" href={addressOf({ ...page, putAway: !putAway, find: '' }, path, 1)}>
        {putAway ? 'Back to the range' : 'Show those put away'}
      </a>
      {pages > 1 && (
        <nav aria-label="Pages" className="ml-auto flex items-center gap-3">
          {at > 1 && (
            <a className="action" href={addressOf(page, path, at - 1)} rel="prev">
              Earlier
            </a>
          )}
          <span className="tabular-nums">
            {at} of {pages}
          </span>
          {at < pages && (
            <a className="action" href={addressOf(page, path, at + 1)} rel="next">
              Later
            </a>
          )}
        </nav>
      )}
    </div>
  );
}
