/** Why a paper could not be opened, in words for the maker. */
export class PaperFault extends Error {}
