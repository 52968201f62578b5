/** A mail with its attachments: which file of it is a paper. */
import type { Attachment } from 'postal-mime';
import { PaperFault } from './fault';
import type { Ask } from './ask';

/** A file within a mail. */
export interface Mailed {
  fileName: string;
  mime: string;
  bytes: Uint8Array;
}

const READABLE = /\.(?:pdf|docx|xlsx|csv|tsv|txt|png|jpe?g|webp)$/i;

const bytesOf = ({ content }: Attachment) =>
  typeof content === 'string' ? new TextEncoder().encode(content) : new Uint8Array(content);

/** The one file of a mail that is a paper, the one that is chosen of several, or the words of the mail itself. */
export async function openMail(bytes: Uint8Array, fileName: string, ask: Ask): Promise<Mailed> {
  const { default: PostalMime } = await import('postal-mime');
  const mail = await PostalMime.parse(bytes).catch(() => {
    throw new PaperFault('This mail cannot be opened. Save its attachment as a file, and drop that here.');
  });
  const files = mail.attachments
    .map((one) => ({ fileName: one.filename ?? 'attachment', mime: one.mimeType, bytes: bytesOf(one) }))
    .filter((one) => READABLE.test(one.fileName));
  if (files.length === 0) {
    const text = mail.text ?? '';
    if (text.trim() === '') throw new PaperFault('There is no paper in this mail, and no words.');
    return { fileName: `${fileName}.txt`, mime: 'text/plain', bytes: new TextEncoder().encode(text) };
  }
  if (files.length === 1) return files[0]!;
  const chosen = await ask({ kind: 'file', fileName, files: files.map((one) => one.fileName) });
  if (typeof chosen !== 'number') throw new PaperFault('Given up. Nothing was filed.');
  return files[chosen]!;
}
