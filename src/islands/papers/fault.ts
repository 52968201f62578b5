/** Why a paper is not opened, and what can be shown of it all the same. */
export interface PagePicture {
  number: number;
  widthPt: number;
  heightPt: number;
  /** The page drawn, as a data address. */
  picture: string;
}

/** Why a paper cannot be opened, and what to do; with its pages where they can at least be looked at. */
export class PaperFault extends Error {
  constructor(
    message: string,
    readonly pages: readonly PagePicture[] = [],
  ) {
    super(message);
  }
}
