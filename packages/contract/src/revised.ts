import 'reflect-metadata';
import { IsInt, Min } from 'class-validator';

/** Every change to a tree's plan names the revision it was made on. */
export class Revised {
  @IsInt({ message: '$property must be the whole number that came with the tree.' })
  @Min(1)
  revision!: number;
}
