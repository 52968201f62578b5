/** What the house sets for all bars, what this installation is, and the demo taken out again. */
import manifest from '../../../../package.json';
import { existsSync, readdirSync, statSync } from 'node:fs';
import { join } from 'node:path';
import {
  USUAL_HABITS,
  type Habits,
  type HouseSettings,
  type Installation,
  type SettingsData,
} from '../../../core/records/house';
import { rulebook } from '../../../rulebook';
import { backupFolder, listBackups } from '../../archive/backup-files';
import { dataFolder } from '../../config';
import { DATABASE_FILE } from '../../database';
import type { House } from '../../house';
import { findCurrency, findSetting, putSetting } from '../../repositories/settings';
import { dropCures } from '../../repositories/cures';
import { demoLeft, removeDemo } from '../../repositories/demo';
import { countsOf } from '../../repositories/store';
import { lookedOver } from './look-over';
import { writing } from '../../store/writing';

/** What can be set for the whole house. */
export async function settingsData({ db, zone }: House): Promise<SettingsData> {
  const { value, revision } = await findSetting(db, 'house');
  const { value: demo } = await findSetting(db, 'demo');
  const here = demo && (await demoLeft(db, demo));
  const isHere = here !== null && here.bars + here.materials + here.batches > 0;
  const currency = await findCurrency(db);
  return { ...USUAL_HABITS, zone, ...value, currency, revision, demo: isHere ? here : null };
}

/** What the house is used to. */
export async function habitsOf({ db, zone }: House): Promise<Habits> {
  const { degrees, weights, scentPercents } = {
    ...USUAL_HABITS,
    ...(await findSetting(db, 'house')).value,
  };
  return { degrees, weights, zone, scentPercents };
}

/** Sets them; the newer come back where they were changed in between. */
export async function changeSettings(
  house: House,
  { revision, currency, ...settings }: HouseSettings & { revision: number; currency: string },
): Promise<{ data: SettingsData; isStale: boolean }> {
  const isStale = await writing(house.db, async (trx) => {
    const before = await findSetting(trx, 'house');
    if (before.revision !== revision) return true;
    await putSetting(trx, 'house', { ...before.value, ...settings });
    await putSetting(trx, 'currency', currency);
    return false;
  });
  return { data: await settingsData(house), isStale };
}

/**
 * Takes out what the demo brought and nothing of the maker's own refers to: her bars keep the materials they hold,
 * her batches the bars and lots they were poured from.
 */
export async function takeDemoOut(house: House): Promise<SettingsData> {
  await writing(house.db, async (trx) => {
    const { value: demo } = await findSetting(trx, 'demo');
    if (!demo) return;
    await removeDemo(trx, demo);
    // The demo's own maker goes with it, unless her own name stands there by now.
    const { value: maker, revision } = await findSetting(trx, 'maker');
    if (maker && revision === 1) await putSetting(trx, 'maker', null);
    await putSetting(trx, 'demo', null);
    await dropCures(trx);
  });
  return settingsData(house);
}

const bytesUnder = (folder: string): number =>
  existsSync(folder)
    ? readdirSync(folder).reduce((sum, name) => sum + statSync(join(folder, name)).size, 0)
    : 0;

/** This installation: where it lies, how large it is, and whether its database holds together. */
export async function installation({ db }: House): Promise<Installation> {
  const folder = dataFolder();
  const backups = backupFolder(folder);
  return {
    version: manifest.version,
    node: process.version,
    folder,
    databaseBytes: statSync(join(folder, DATABASE_FILE)).size,
    backupBytes: bytesUnder(backups),
    counts: await countsOf(db),
    ...(await lookedOver()),
    lastGood: listBackups(backups).find((one) => one.fault === null)?.at ?? null,
    rulebook: rulebook().edition,
  };
}
