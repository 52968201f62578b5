/** A mail that was dropped: which file of it is opened, and what else it brings. */
import { mailOf, type Mailed } from '../../core/paperwork/mail';
import { PaperFault } from './fault';
import type { Ask } from './ask';
import type { Together } from './together';

/** The one file of a mail that is a paper, the one that is chosen of several, or the words of the mail itself; and all it brings. */
export async function openMail(
  bytes: Uint8Array,
  fileName: string,
  ask: Ask,
): Promise<{ paper: Mailed; together: Together }> {
  const { default: PostalMime } = await import('postal-mime');
  const parsed = await PostalMime.parse(bytes).catch(() => {
    throw new PaperFault('This mail cannot be opened. Save its attachment as a file, and drop that here.');
  });
  const { papers, others } = mailOf(parsed, fileName);
  const [first] = papers;
  if (papers.length <= 1 && others.length > 0 && first?.fileName === `${fileName}.txt`)
    throw new PaperFault(
      `What is attached (${others.join(', ')}) is of no kind that is read. Save it as a PDF, or paste the mail’s words.`,
    );
  if (!first) throw new PaperFault('There is no paper in this mail, and no words.');
  const chosen =
    papers.length === 1 ? 0 : await ask({ kind: 'file', fileName, files: papers.map((one) => one.fileName) });
  if (typeof chosen !== 'number') throw new PaperFault('Given up. Nothing was filed.');
  const paper = papers[chosen]!;
  return { paper, together: { mail: fileName, papers, opened: [paper], unread: others } };
}
