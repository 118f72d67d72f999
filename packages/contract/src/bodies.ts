import 'reflect-metadata';
import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  ArrayMinSize,
  IsArray,
  IsIn,
  IsInt,
  IsNumber,
  IsObject,
  IsOptional,
  IsString,
  Length,
  Matches,
  Max,
  MaxLength,
  Min,
  ValidateIf,
  ValidateNested,
} from 'class-validator';
import {
  ACTS,
  FAULTS,
  MARK_STAGES,
  METALS,
  REMOVAL_PROFILES,
  SEASON_STAGES,
  STUBS,
  WRAPS,
  type Act,
  type Fault,
  type MarkStage,
  type Measured,
  type MetalName,
  type SeasonStage,
  type Stub,
  type Wrap,
} from '@ustle/core';
import { OnOrOff, WithinLimits } from './rule-values.js';

const DATE = /^\d{4}-(0[1-9]|1[0-2])-(0[1-9]|[12]\d|3[01])$/;
const ID = /^[A-Za-z0-9._-]{1,40}$/;
const dated = { message: '$property must be a date such as 2026-03-01.' };
const named = { message: '$property must be an id: letters, digits, dot, dash, underscore.' };
const between = (low: number, high: number, unit: string) => ({ message: `$property must be between ${low} and ${high} ${unit}; it is $value.` });

/** Every change to a tree's plan names the revision it was made on. */
export class Revised {
  @IsInt({ message: '$property must be the whole number that came with the tree.' })
  @Min(1)
  revision!: number;
}

export class ViewBody {
  @IsNumber()
  @Min(0, between(0, 360, 'degrees'))
  @Max(360, between(0, 360, 'degrees'))
  bearing!: number;

  @IsNumber()
  @Min(-45, between(-45, 45, 'degrees'))
  @Max(45, between(-45, 45, 'degrees'))
  pitch!: number;

  @IsNumber()
  @Min(-45, between(-45, 45, 'degrees'))
  @Max(45, between(-45, 45, 'degrees'))
  roll!: number;
}

export class FrontBody extends Revised {
  @ValidateIf((body: FrontBody) => body.front !== null)
  @ValidateNested()
  @Type(() => ViewBody)
  front!: ViewBody | null;
}

/** A view to keep open beside the others, or to let go of again. */
export class PinnedBody extends Revised {
  @ValidateNested()
  @Type(() => ViewBody)
  view!: ViewBody;
}

export class ReadingBody extends Revised {
  @Matches(DATE, dated)
  on!: string;

  @IsArray()
  @ArrayMaxSize(30)
  @IsString({ each: true })
  @MaxLength(40, { each: true })
  signs!: string[];

  @ValidateIf((body: ReadingBody) => body.season !== null)
  @IsIn(SEASON_STAGES, { message: `$property must be one of: ${SEASON_STAGES.join(', ')}.` })
  season!: SeasonStage | null;
}

/** The tree measured anew, in whole parts of the tree file; those are checked as a file is, with the place of each fault. */
export class MeasuredBody extends Revised {
  @IsObject({ message: '$property must hold parts of a tree file, such as branches.' })
  measured!: Partial<Measured>;
}

/** What the caliper lies on: about how thick it is, where that is known. Only the simulated caliper asks. */
export class CaliperPressBody {
  @IsOptional()
  @IsNumber()
  @Min(0.3, between(0.3, 400, 'mm'))
  @Max(400, between(0.3, 400, 'mm'))
  near?: number;
}

/** What becomes of a branch. A detail that is null is taken back. */
export class DecisionBody extends Revised {
  @IsIn(ACTS, { message: `$property must be one of: ${ACTS.join(', ')}.` })
  act!: Act;

  @IsOptional()
  @IsString()
  @MaxLength(1000)
  why?: string;

  @IsOptional()
  @IsIn(STUBS, { message: `$property must be one of: ${STUBS.join(', ')}.` })
  stub?: Stub | null;

  /** What is left of a shortened branch or a stub, mm. */
  @IsOptional()
  @IsNumber()
  @Min(1, between(1, 4000, 'mm'))
  @Max(4000, between(1, 4000, 'mm'))
  length?: number | null;

  @IsOptional()
  @Matches(ID, named)
  toShoot?: string | null;

  @IsOptional()
  @IsInt()
  @Min(1, between(1, 20, 'sessions'))
  @Max(20, between(1, 20, 'sessions'))
  session?: number | null;

  @IsOptional()
  @Matches(DATE, dated)
  until?: string | null;

  /** A branch whose bend has to be set first. */
  @IsOptional()
  @Matches(ID, named)
  untilSet?: string | null;

  /** Thickness of the parent to wait for, mm. */
  @IsOptional()
  @IsNumber()
  @Min(1, between(1, 600, 'mm'))
  @Max(600, between(1, 600, 'mm'))
  untilD?: number | null;
}

/** Cuts left for a later session, and the day they come back as a task. */
export class SessionBody extends Revised {
  @IsArray()
  @ArrayMinSize(1, { message: '$property must name a branch.' })
  @ArrayMaxSize(5000)
  @Matches(ID, { each: true, ...named })
  branches!: string[];

  @IsInt()
  @Min(1, between(1, 20, 'sessions'))
  @Max(20, between(1, 20, 'sessions'))
  session!: number;

  @ValidateIf((body: SessionBody) => body.until !== null)
  @Matches(DATE, dated)
  until!: string | null;
}

/** Two branches of which one goes. */
export class EitherBody extends Revised {
  @Matches(ID, named)
  a!: string;

  @Matches(ID, named)
  b!: string;
}

/** Which rules look at the tree: a named profile and what is changed of it. */
export class RulesBody extends Revised {
  @IsIn(Object.keys(REMOVAL_PROFILES), { message: `$property must be one of: ${Object.keys(REMOVAL_PROFILES).join(', ')}.` })
  profile!: string;

  @IsObject()
  @WithinLimits()
  limits!: Record<string, number>;

  @IsObject()
  @OnOrOff()
  rules!: Record<string, boolean>;
}

/** Branches that were cut as the plan decided. */
export class CutBody extends Revised {
  @Matches(DATE, dated)
  on!: string;

  @IsArray()
  @ArrayMinSize(1, { message: '$property must name a branch.' })
  @ArrayMaxSize(5000)
  @Matches(ID, { each: true, ...named })
  branches!: string[];
}

/** A coil put on: what, where, how tightly, and the bend made with it. */
export class WiredBody extends Revised {
  @Matches(DATE, dated)
  on!: string;

  @Matches(ID, named)
  branch!: string;

  @IsIn(METALS, { message: `$property must be one of: ${METALS.join(', ')}.` })
  metal!: MetalName;

  @IsNumber()
  @Min(0.3, between(0.3, 12, 'mm'))
  @Max(12, between(0.3, 12, 'mm'))
  size!: number;

  @IsInt()
  @Min(1, between(1, 6, 'wires'))
  @Max(6, between(1, 6, 'wires'))
  strands!: number;

  @IsNumber()
  @Min(20, between(20, 80, 'degrees'))
  @Max(80, between(20, 80, 'degrees'))
  angle!: number;

  @IsIn(['cw', 'ccw'])
  hand!: 'cw' | 'ccw';

  @IsIn(['over', 'under'])
  start!: 'over' | 'under';

  @IsNumber()
  @Min(0, between(0, 20, 'mm'))
  @Max(20, between(0, 20, 'mm'))
  gap!: number;

  @IsIn(WRAPS, { message: `$property must be one of: ${WRAPS.join(', ')}.` })
  wrap!: Wrap;

  @IsOptional()
  @IsNumber()
  @Min(1, between(1, 180, 'degrees'))
  @Max(180, between(1, 180, 'degrees'))
  bentDeg?: number;

  @IsOptional()
  @IsNumber()
  @Min(1, between(1, 180, 'degrees'))
  @Max(180, between(1, 180, 'degrees'))
  targetDeg?: number;

  @IsOptional()
  @IsNumber()
  @Min(1, between(1, 4000, 'mm'))
  @Max(4000, between(1, 4000, 'mm'))
  over?: number;
}

export const ENTRY_KINDS = ['inspected', 'unwired', 'measured', 'agreed', 'repotted', 'fed', 'styled', 'note', 'hours', 'withdrawn'] as const;
export type EntryKind = (typeof ENTRY_KINDS)[number];

/** A line for the record other than a coil put on. The record only grows: a correction is a further line. */
export class EntryBody {
  @Matches(DATE, dated)
  on!: string;

  @IsIn(ENTRY_KINDS, { message: `$property must be one of: ${ENTRY_KINDS.join(', ')}.` })
  kind!: EntryKind;

  @IsOptional()
  @Matches(ID, named)
  branch?: string;

  @IsOptional()
  @Matches(ID, named)
  run?: string;

  @ValidateIf((body: EntryBody) => body.kind === 'inspected')
  @IsIn(MARK_STAGES, { message: `$property must be one of: ${MARK_STAGES.join(', ')}.` })
  stage?: MarkStage;

  @IsOptional()
  @IsNumber()
  @Min(0, between(0, 20, 'mm'))
  @Max(20, between(0, 20, 'mm'))
  gap?: number;

  @IsOptional()
  @IsIn(['cut', 'unwound'])
  method?: 'cut' | 'unwound';

  @IsOptional()
  @IsNumber()
  @Min(-180, between(-180, 270, 'degrees'))
  @Max(270, between(-180, 270, 'degrees'))
  heldDeg?: number;

  @IsOptional()
  @IsString()
  @MaxLength(5000)
  text?: string;

  /** agreed: who agreed, and to the cutting of which branches. */
  @ValidateIf((body: EntryBody) => body.kind === 'agreed' || body.by !== undefined)
  @IsString()
  @Length(1, 120, { message: '$property must say who agreed, in at most 120 letters.' })
  by?: string;

  @ValidateIf((body: EntryBody) => body.kind === 'agreed' || body.branches !== undefined)
  @IsArray()
  @ArrayMinSize(1, { message: '$property must name a branch.' })
  @ArrayMaxSize(5000)
  @Matches(ID, { each: true, ...named })
  branches?: string[];

  @ValidateIf((body: EntryBody) => body.kind === 'withdrawn' || body.corrects !== undefined)
  @Matches(ID, named)
  corrects?: string;
}

/** A tree to be measured. */
export class NewTreeBody {
  @IsString()
  @Length(1, 120)
  name!: string;

  @IsString()
  @Length(1, 60)
  species!: string;
}

/** A tree made up by the program, to try things on. */
export class MadeUpBody extends NewTreeBody {
  @IsInt()
  @Min(0)
  @Max(2147483647)
  seed!: number;

  @IsOptional()
  @IsNumber()
  @Min(3, between(3, 300, 'years'))
  @Max(300, between(3, 300, 'years'))
  age?: number;

  @IsOptional()
  @IsArray()
  @ArrayMaxSize(20)
  @IsIn(FAULTS, { each: true, message: `$property must be some of: ${FAULTS.join(', ')}.` })
  faults?: Fault[];
}
