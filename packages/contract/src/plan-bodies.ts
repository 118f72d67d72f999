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
  Matches,
  Max,
  MaxLength,
  Min,
  ValidateIf,
  ValidateNested,
} from 'class-validator';
import { ACTS, REMOVAL_PROFILES, SEASON_STAGES, STUBS, type Act, type SeasonStage, type Stub } from '@ustle/core';
import { Revised } from './revised.js';
import { OnOrOff, WithinLimits } from './rule-values.js';
import { between, ID, IsDay, named } from './wording.js';

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
  @IsDay()
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
  @IsDay()
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
  @IsDay()
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
