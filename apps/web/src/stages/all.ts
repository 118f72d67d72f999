import { front } from './front';
import { guy } from './guy';
import { measure } from './measure';
import { pose } from './pose';
import { read } from './read';
import { remove } from './remove';
import type { Stage } from './stage';
import { watch } from './watch';
import { wire } from './wire';
import { work } from './work';

/** The stages in the order of the work. */
export const STAGES: readonly Stage[] = [read, measure, front, remove, pose, wire, guy, work, watch];
