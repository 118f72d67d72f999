import { Column, Entity, PrimaryColumn, PrimaryGeneratedColumn } from 'typeorm';

/** A tree: its plan as a document, and columns for what is asked of all trees at once. */
@Entity('tree')
export class TreeRow {
  @PrimaryColumn('text') id!: string;
  /** Counts the changes of measures and plan; lines of the record leave it as it is. */
  @Column('integer') revision!: number;
  @Column('text') name!: string;
  @Column('text') species!: string;
  /** Lines in its record. */
  @Column('integer') recorded!: number;
  @Column('text') plan!: string;
  /** The day it was put aside; null while it is on the bench. */
  @Column('text', { name: 'archivedOn', nullable: true }) asideOn!: string | null;
}

/** A tree's measured part and whatever else its file says, as a document of its own: a decision does not write it again. */
@Entity('measures')
export class MeasuresRow {
  @PrimaryColumn('text') treeId!: string;
  @Column('text') document!: string;
}

/** A line of the record; the database itself refuses to change or delete one. */
@Entity('line')
export class LineRow {
  @PrimaryColumn('text') treeId!: string;
  @PrimaryColumn('integer') ordinal!: number;
  @Column('text') lineId!: string;
  @Column('text', { name: 'on_day' }) on!: string;
  @Column('text') kind!: string;
  @Column('text') document!: string;
}

/** An act as it was done, taking back and making again among them; never changed. */
@Entity('act')
export class ActRow {
  @PrimaryGeneratedColumn() ordinal!: number;
  @Column('text') id!: string;
  @Column('text') treeId!: string;
  @Column('text') kind!: string;
  @Column('text') document!: string;
  /** Ids of the lines of the record that it wrote. */
  @Column('simple-json') lines!: string[];
  /** undo, redo: the act that it is about. */
  @Column('text', { nullable: true }) of!: string | null;
  /** The device that it was made on; null where it did not say. */
  @Column('text', { nullable: true }) desk!: string | null;
  /** The revision that it made of its tree; null where it left measures and plan as they were. */
  @Column('integer', { nullable: true }) revision!: number | null;
}

/** What an act found, for taking it back; kept for the newest of each tree. */
@Entity('before')
export class BeforeRow {
  @PrimaryColumn('text') act!: string;
  @Column('text') treeId!: string;
  @Column('text') document!: string;
}

/** A tree deleted for good: only its lines and acts may go. */
@Entity('forgotten')
export class ForgottenRow {
  @PrimaryColumn('text') treeId!: string;
}

/** A line of the rack's history; the database itself refuses to change or delete one. */
@Entity('rack_line')
export class RackLineRow {
  @PrimaryGeneratedColumn() ordinal!: number;
  @Column('text') id!: string;
  @Column('text', { name: 'on_day' }) on!: string;
  @Column('text') kind!: string;
  @Column('text') document!: string;
  /** Lines that each tree's record had when it was written: what was cut on the same day is told apart by that. */
  @Column('simple-json') recorded!: Record<string, number>;
}

/** A bench in the yard, in walking order. */
@Entity('bench')
export class BenchRow {
  @PrimaryColumn('text') id!: string;
  @Column('integer') ordinal!: number;
  @Column('text') name!: string;
}

/** The bench that a tree stands on. */
@Entity('stands')
export class StandsRow {
  @PrimaryColumn('text') treeId!: string;
  @Column('text') benchId!: string;
  /** Its place along the bench, as one walks past. */
  @Column('integer') ordinal!: number;
}

/** Something that the yard has chosen. */
@Entity('setting')
export class SettingRow {
  @PrimaryColumn('text') name!: string;
  @Column('text') document!: string;
}

/** A notice that was sent. */
@Entity('mail')
export class MailRow {
  @PrimaryColumn('text') id!: string;
  @Column('text', { name: 'on_day' }) on!: string;
  @Column('text') subject!: string;
  @Column('text') text!: string;
}

/** A device that gave the passphrase; its token is kept as a hash only. */
@Entity('session')
export class SessionRow {
  @PrimaryColumn('text') token!: string;
  @Column('text') since!: string;
}

export const ENTITIES = [TreeRow, MeasuresRow, LineRow, ActRow, BeforeRow, ForgottenRow, RackLineRow, BenchRow, StandsRow, SettingRow, MailRow, SessionRow];
