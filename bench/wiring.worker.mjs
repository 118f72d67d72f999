import { measureWiring } from './wiring.mjs';

self.postMessage(measureWiring([300, 75, 150]));
