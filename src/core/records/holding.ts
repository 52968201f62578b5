/** A doubted lot and what is held with it, as screens and server know it. */

export interface HeldBatch {
  id: string;
  code: string;
  productName: string;
  isHeld: boolean;
  /** Given up, discarded or sold out: nothing of it is here to be held. */
  isPast: boolean;
  /** Bars here, and bars that went out to somebody. */
  left: number;
  out: number;
  /** Labels issued for it. */
  labels: number;
}

export interface Holding {
  lot: {
    id: string;
    code: string;
    /** Of its material. */
    name: string;
    /** Why it is held; null where it is free. */
    quarantine: string | null;
  };
  /** Lots that were made of it, and of those. */
  made: { id: string; code: string; isHeld: boolean }[];
  batches: HeldBatch[];
}
