import { Search } from 'lucide-react';
import { lazy, Suspense, useEffect, useState } from 'react';

const FinderDialog = lazy(async () => ({ default: (await import('./FinderDialog')).FinderDialog }));

/** The way to everything: a button in the header, and Ctrl+K anywhere. */
export function Finder() {
  const [isOpen, setOpen] = useState(false);
  const [wasOpen, setWasOpen] = useState(false);
  const open = (to: boolean) => {
    setOpen(to);
    if (to) setWasOpen(true);
  };
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (event.key.toLowerCase() !== 'k' || !(event.ctrlKey || event.metaKey) || event.altKey) return;
      event.preventDefault();
      open(true);
    };
    document.addEventListener('keydown', onKey);
    return () => document.removeEventListener('keydown', onKey);
  }, []);
  return (
    <>
      <button type="button" className="action py-0" aria-keyshortcuts="Control+K" onClick={() => open(true)}>
        <Search size={15} aria-hidden="true" /> Find
      </button>
      {wasOpen && (
        <Suspense>
          <FinderDialog isOpen={isOpen} onOpen={open} />
        </Suspense>
      )}
    </>
  );
}
