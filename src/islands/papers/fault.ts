import type { PagePicture } from './open';

/** Why a paper cannot be opened, and what to do; with its pages where they can at least be looked at. */
export class PaperFault extends Error {
  constructor(
    message: string,
    readonly pages: readonly PagePicture[] = [],
  ) {
    super(message);
  }
}
