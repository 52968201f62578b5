/** A made-up supplier's paper that waits in the demo's inbox. */
export interface DemoPaper {
  id: string;
  fileName: string;
  mime: 'application/pdf' | 'text/csv' | 'text/plain';
  receivedOn: string;
  make: () => Promise<Uint8Array>;
}
