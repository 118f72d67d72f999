import 'reflect-metadata';
import { ArrayMaxSize, IsArray, IsIn, IsInt, IsNumber, IsObject, IsOptional, IsString, Length, Max, Min } from 'class-validator';
import { FAULTS, FORMS, type Fault, type Form, type Measured } from '@ustle/core';
import { Revised } from './revised.js';
import { between } from './wording.js';

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
  @IsIn(FORMS, { message: `$property must be one of: ${FORMS.join(', ')}.` })
  form?: Form;

  @IsOptional()
  @IsArray()
  @ArrayMaxSize(20)
  @IsIn(FAULTS, { each: true, message: `$property must be some of: ${FAULTS.join(', ')}.` })
  faults?: Fault[];
}
