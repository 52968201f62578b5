import type { Knex } from 'knex';
import * as firstTables from './001-first-tables';
import * as cupboard from './002-cupboard';
import * as wraps from './003-wraps';
import * as firmGround from './004-firm-ground';
import * as batches from './005-batches';
import * as rack from './006-rack';
import * as changes from './007-changes';
import * as search from './008-search';
import * as changeCounts from './009-change-counts';
import * as standings from './010-standings';
import * as madeLots from './011-made-lots';
import * as complaints from './012-complaints';
import * as sold from './013-sold';

const MIGRATIONS: Record<string, Knex.Migration> = {
  '001-first-tables': firstTables,
  '002-cupboard': cupboard,
  '003-wraps': wraps,
  '004-firm-ground': firmGround,
  '005-batches': batches,
  '006-rack': rack,
  '007-changes': changes,
  '008-search': search,
  '009-change-counts': changeCounts,
  '010-standings': standings,
  '011-made-lots': madeLots,
  '012-complaints': complaints,
  '013-sold': sold,
};

/** Migrations by name, so that a bundled server carries them with it. */
export const migrationSource: Knex.MigrationSource<string> = {
  getMigrations: () => Promise.resolve(Object.keys(MIGRATIONS).sort()),
  getMigrationName: (name) => name,
  getMigration: (name) => Promise.resolve(MIGRATIONS[name]!),
};

/** Names of every migration this program knows. */
export const MIGRATION_NAMES: readonly string[] = Object.keys(MIGRATIONS);
