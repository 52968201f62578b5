import type { BackupsData, Installation, SettingsData } from '../../core/records/house';
import { guarded } from '../../ui/Guarded';
import { momentInWords } from '../../ui/words';
import { Archive } from './Archive';
import { Backups } from './Backups';
import { Settings } from './Settings';
import { WhoGetsIn } from './WhoGetsIn';
import { sizeInWords } from './words';

interface Props {
  settings: SettingsData;
  backups: BackupsData;
  installation: Installation;
}

function foundWords(fault: string | null, lookedAt: string | null): string {
  if (lookedAt === null) return 'being looked over just now';
  return fault === null ? `looked over ${momentInWords(lookedAt)}: it holds together` : `damaged: ${fault}`;
}

function About({ installation }: { installation: Installation }) {
  const { version, node, folder, databaseBytes, backupBytes, counts, fault, lookedAt, lastGood, rulebook } =
    installation;
  const rows = [
    ['Version', `${version}, on Node ${node}`],
    ['Data folder', folder],
    ['Database', `${sizeInWords(databaseBytes)}, ${foundWords(fault, lookedAt)}`],
    [
      'Backups',
      `${sizeInWords(backupBytes)}, the last good one ${lastGood ? momentInWords(lastGood) : 'not made yet'}`,
    ],
    [
      'In it',
      `${counts.bars} bars, ${counts.materials} own materials, ${counts.batches} batches, ${counts.papers} papers`,
    ],
    ['Rulebook', `${rulebook}, the newest that ships`],
  ] as const;
  return (
    <section aria-label="This installation" id="installation" className="sheet">
      <h2 className="text-lg">This installation</h2>
      <table className="plain-table">
        <tbody>
          {rows.map(([name, words]) => (
            <tr key={name}>
              <th scope="row">{name}</th>
              <td className={fault !== null && name === 'Database' ? 'text-madder' : 'wrap-anywhere'}>
                {words}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="pt-2">
        <a className="text-ultra underline" href="/house/licences">
          Licences of what ships with it
        </a>
      </p>
    </section>
  );
}

function HouseIsland({ settings, backups, installation }: Props) {
  return (
    <div className="grid gap-3">
      <Settings first={settings} />
      <Backups first={backups} />
      <Archive />
      <WhoGetsIn />
      <About installation={installation} />
    </div>
  );
}

export const HouseDesk = guarded('The house', HouseIsland);
