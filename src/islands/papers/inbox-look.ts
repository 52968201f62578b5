import { useCallback, useEffect, useState } from 'react';
import type { Inbox } from '../../core/records/papers';
import { address, send } from '../../ui/api';

/** The folder is looked into so often while the tray is open. */
const LOOK_MS = 30_000;

/** What came, looked at anew by itself and when asked. */
export function useInbox(first: Inbox) {
  const [inbox, setInbox] = useState(first);
  const look = useCallback(async () => {
    const listed = await send<Inbox>('GET', address('inbox'));
    if (listed.ok) setInbox(listed.body);
  }, []);
  useEffect(() => {
    const timer = setInterval(() => document.visibilityState === 'visible' && void look(), LOOK_MS);
    return () => clearInterval(timer);
  }, [look]);
  return { inbox, look };
}
