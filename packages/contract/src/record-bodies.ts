import 'reflect-metadata';
import {
  ArrayMaxSize,
  ArrayMinSize,
  IsArray,
  IsIn,
  IsInt,
  IsNumber,
  IsOptional,
  IsString,
  Length,
  Matches,
  Max,
  MaxLength,
  Min,
  ValidateIf,
} from 'class-validator';
import { MARK_STAGES, METALS, WRAPS, type MarkStage, type MetalName, type Wrap } from '@ustle/core';
import { Revised } from './revised.js';
import { between, ID, IsDay, named } from './wording.js';

/** Branches that were cut as the plan decided. */
export class CutBody extends Revised {
  @IsDay()
  on!: string;

  @IsArray()
  @ArrayMinSize(1, { message: '$property must name a branch.' })
  @ArrayMaxSize(5000)
  @Matches(ID, { each: true, ...named })
  branches!: string[];
}

/** A coil put on: what, where, how tightly, and the bend made with it. */
export class WiredBody extends Revised {
  @IsDay()
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
  @IsDay()
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
