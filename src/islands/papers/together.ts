/** Papers that came together: none of them goes out of sight before somebody has seen to it. */
import type { Mailed } from '../../core/paperwork/mail';

/** What came together: the files of a mail, or several that were dropped at once. */
export interface Together {
  /** The mail's name; null where they were dropped. */
  mail: string | null;
  papers: readonly Mailed[];
  /** Those of them that were opened. */
  opened: readonly Mailed[];
  /** Names of what is of no kind that is read. */
  unread: readonly string[];
}

export const NOT_TAKEN = 'This cannot be taken from where it is. Drop files, not folders.';

/** Files that were given at once; what cannot be taken, as a folder, by its name among what is not read. */
export async function filesTogether(files: readonly File[]): Promise<Together> {
  const read = await Promise.all(
    files.map(async (file) => {
      const bytes = await file.arrayBuffer().catch(() => null);
      return { fileName: file.name, mime: file.type, bytes: bytes && new Uint8Array(bytes) };
    }),
  );
  return {
    mail: null,
    papers: read.flatMap(({ bytes, ...of }) => (bytes ? [{ ...of, bytes }] : [])),
    opened: [],
    unread: read.flatMap(({ bytes, fileName }) => (bytes ? [] : [fileName])),
  };
}

const isSame = (a: Mailed, b: Mailed) => a.fileName === b.fileName && a.bytes.length === b.bytes.length;

/** What a mail brings, beside what it was dropped with; one paper alone is nothing to keep in sight. */
export function joined(was: Together | null, of: Together): Together | null {
  if (was?.mail === null) {
    const fresh = of.papers.filter((paper) => !was.papers.some((one) => isSame(one, paper)));
    const opened = of.opened.filter((paper) => fresh.includes(paper));
    return {
      mail: null,
      papers: [...was.papers, ...fresh],
      opened: [...was.opened, ...opened],
      unread: [...new Set([...was.unread, ...of.unread])],
    };
  }
  return of.papers.length + of.unread.length > 1 ? of : was;
}
