import { Column, Entity, PrimaryColumn, PrimaryGeneratedColumn } from 'typeorm';

const json = { type: 'simple-json' } as const;
const jsonOrNull = { type: 'simple-json', nullable: true } as const;

/** Rows follow the tree file; `extra` keeps keys this version does not know, so that export gives back what import took. */
@Entity('tree')
export class TreeEntity {
  @PrimaryColumn('text') id!: string;
  @Column('integer') revision!: number;
  @Column('text') name!: string;
  @Column('text') species!: string;
  @Column('text') vigour!: string;
  @Column(jsonOrNull) styledOn!: unknown;
  @Column(jsonOrNull) repottedOn!: unknown;
  @Column(jsonOrNull) collectedOn!: unknown;
  @Column(json) site!: unknown;
  @Column(json) pot!: unknown;
  @Column(json) trunk!: unknown;
  @Column(json) roots!: unknown;
  @Column(jsonOrNull) front!: unknown;
  @Column(json) extra!: unknown;
  @Column(json) planExtra!: unknown;
}

export abstract class TreePart {
  @PrimaryColumn('text') treeId!: string;
  @PrimaryColumn('integer') ordinal!: number;
  @Column(json) extra!: unknown;
}

@Entity('branch')
export class BranchEntity extends TreePart {
  @Column('text') id!: string;
  @Column('text', { nullable: true }) name!: string | null;
  @Column('text') parent!: string;
  @Column('real') at!: number;
  @Column('real') bearing!: number;
  @Column('real') elevation!: number;
  @Column('real') length!: number;
  @Column('real') d!: number;
  @Column('real') tipD!: number;
  @Column(jsonOrNull) path!: unknown;
  @Column('real') bareTo!: number;
  @Column('real') green!: number;
  @Column('text') state!: string;
  @Column('text') stage!: string;
  @Column('boolean') backBuds!: boolean;
}

@Entity('feature')
export class FeatureEntity extends TreePart {
  @Column('text') kind!: string;
  @Column('real') bearing!: number;
  @Column(json) z!: unknown;
  @Column('boolean') good!: boolean;
  @Column('real') weight!: number;
}

@Entity('decision')
export class DecisionEntity extends TreePart {
  @Column('text') branch!: string;
  @Column('text') act!: string;
}

@Entity('pose')
export class PoseEntity extends TreePart {
  @Column('text') branch!: string;
  @Column('real') bearing!: number;
  @Column('real') elevation!: number;
  @Column(json) bends!: unknown;
}

@Entity('run')
export class RunEntity extends TreePart {
  @Column('text') id!: string;
  @Column('text') metal!: string;
  @Column('real') size!: number;
  @Column('integer') strands!: number;
  @Column('real') angle!: number;
}

@Entity('run_branch')
export class RunBranchEntity extends TreePart {
  @Column('text') run!: string;
  @Column('text') branch!: string;
  @Column('text') hand!: string;
  @Column('text') start!: string;
}

@Entity('guy')
export class GuyEntity extends TreePart {
  @Column('text') id!: string;
  @Column('text') branch!: string;
  @Column('real') at!: number;
  @Column(json) anchor!: unknown;
  @Column('real') wire!: number;
}

/** A line of the record; the database itself refuses to change or delete one. */
@Entity('record')
export class RecordEntity {
  @PrimaryColumn('text') treeId!: string;
  @PrimaryColumn('integer') ordinal!: number;
  @Column('text') entryId!: string;
  @Column('text', { name: 'on_day' }) on!: string;
  @Column('text') kind!: string;
  @Column('text', { nullable: true }) branch!: string | null;
  @Column(json) entry!: unknown;
}

/** A change to a tree, as the parts it touched before and after; undo and redo walk along these, also after a reload. */
@Entity('plan_command')
export class CommandEntity {
  @PrimaryGeneratedColumn() id!: number;
  @Column('text') treeId!: string;
  @Column('text') label!: string;
  @Column(json) before!: unknown;
  @Column(json) after!: unknown;
  @Column('boolean') undone!: boolean;
  /** Ids of the lines of the record that came with it last: undone and redone with it, by further lines. */
  @Column(jsonOrNull) entries!: unknown;
}

export const ENTITIES = [
  TreeEntity,
  BranchEntity,
  FeatureEntity,
  DecisionEntity,
  PoseEntity,
  RunEntity,
  RunBranchEntity,
  GuyEntity,
  RecordEntity,
  CommandEntity,
];
