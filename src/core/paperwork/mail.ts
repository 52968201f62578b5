/** A mail that was taken apart: the papers that it brings, and its words where it brings none. Pure. */
import { typeOfPaper } from '../records/papers';

/** A file within a mail. */
export interface Mailed {
  fileName: string;
  mime: string;
  bytes: Uint8Array;
}

/** A part of a mail, as it is taken apart. */
interface Attachment {
  filename: string | null;
  mimeType: string;
  /** `inline` within the words; else to be kept. */
  disposition: string | null;
  /** It belongs to the mail's words. */
  related?: boolean;
  content: ArrayBuffer | Uint8Array | string;
}

/** What a mail brings. */
export interface Mail {
  /** Attachments that are read; the mail's own words as one text where there is none; nothing where it has neither. */
  papers: Mailed[];
  /** Names of attachments that are not read. */
  others: string[];
}

const bytesOf = ({ content }: Attachment): Uint8Array =>
  typeof content === 'string' ? new TextEncoder().encode(content) : new Uint8Array(content);

/** A logo or a signature within the words is no paper. */
const isWithin = ({ related, disposition, mimeType }: Attachment): boolean =>
  mimeType.startsWith('image/') && (related === true || disposition === 'inline');

/** Rows of a table fall apart where only its words are kept. */
const isTabled = (html: string) => (html.match(/<tr[\s>]/gi)?.length ?? 0) > 1;

/** What a mail brings, by the name of its file; what is no mail has neither papers nor words. */
export function mailOf(
  { attachments, text = '', html = '' }: { attachments: readonly Attachment[]; text?: string; html?: string },
  fileName: string,
): Mail {
  const files = attachments
    .filter((one) => !isWithin(one))
    .map((one) => ({ fileName: one.filename ?? 'attachment', bytes: bytesOf(one) }));
  const papers = files.flatMap((one) => {
    const mime = typeOfPaper(one.fileName);
    return mime === null ? [] : [{ ...one, mime }];
  });
  const others = files.flatMap((one) => (typeOfPaper(one.fileName) === null ? [one.fileName] : []));
  if (papers.length > 0 || (text.trim() === '' && html === '')) return { papers, others };
  const words = isTabled(html) || text.trim() === '' ? { kind: 'html', text: html } : { kind: 'txt', text };
  const bytes = new TextEncoder().encode(words.text);
  return { papers: [{ fileName: `${fileName}.${words.kind}`, mime: 'text/plain', bytes }], others };
}
