/** The doors of complaints and unwanted effects. */
import { MARKETS } from '../../core/formula/types';
import { COMPLAINT_KINDS, GRAVITIES } from '../../core/records/complaints';
import { Day, Id, LONGEST, Name, OneOf, OrNull, Text } from './fields';
import { Revision } from './revision';

export class ComplaintDoor {
  @Day() heardOn!: string;
  @OrNull() @Text(LONGEST.short) code!: string | null;
  @OrNull() @Id() product!: string | null;
  @OrNull() @OneOf(MARKETS) market!: string | null;
  @OneOf(COMPLAINT_KINDS) kind!: string;
  @OneOf(GRAVITIES) gravity!: string;
  @Name('what was said', LONGEST.text) what!: string;
  @Text(LONGEST.name) who!: string;
  @Text() done!: string;
  @OrNull() @Day() closedOn!: string | null;
}

export class ChangedComplaintDoor extends ComplaintDoor {
  @Revision() revision!: number;
}

/** A complaint as an archive brings it. */
export class ComplaintFiledDoor extends ComplaintDoor {
  @Id() id!: string;
  @Text(LONGEST.name) productName!: string;
  @OrNull() @Id() batch!: string | null;
  @OrNull() @Text(LONGEST.short) batchCode!: string | null;
}
