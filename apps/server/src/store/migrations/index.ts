import { Documents1795000000000 } from './documents.js';
import { Desks1798000000000 } from './desks.js';
import { Places1799000000000 } from './places.js';
import { Rack1796000000000 } from './rack.js';
import { Yard1797000000000 } from './yard.js';
import { CommandsWithEntries1764100000000, TreesPlansRecord1764000000000 } from './first-shape.js';

export const MIGRATIONS = [
  TreesPlansRecord1764000000000,
  CommandsWithEntries1764100000000,
  Documents1795000000000,
  Rack1796000000000,
  Yard1797000000000,
  Desks1798000000000,
  Places1799000000000,
];
