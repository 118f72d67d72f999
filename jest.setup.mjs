// Properties are tried on the same examples in every run; SEED tries others.
import fc from 'fast-check';

fc.configureGlobal({ ...fc.readConfigureGlobal(), seed: Number(process.env.SEED ?? 1) });
