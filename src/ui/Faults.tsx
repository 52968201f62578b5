import type { Fault } from './api';
import { inHouse } from './masses';

/** What stands in the way, each fault once. The place is there before there are any, so that they are read out. */
export function Faults({ faults }: { faults: readonly Fault[] }) {
  return (
    <div role="alert" className="w-full text-madder">
      {faults.map(({ path, message }) => (
        <p key={path + message}>{inHouse(message)}</p>
      ))}
    </div>
  );
}
