/** The door of keeping a version under a name. */
import { IsInt, Matches, Min } from 'class-validator';
import { Id } from './fields';

const REVISION = { message: 'Give the revision that is to be kept.', context: { code: 'revision' } };

export class KeepVersionDoor {
  @IsInt(REVISION) @Min(1, REVISION) revision!: number;
  @Id() @Matches(/\S/, { message: 'Give the version a name.', context: { code: 'length' } }) name!: string;
}

export interface KeepVersion {
  revision: number;
  name: string;
}
