import { expose } from 'comlink';
import { seer } from './vision';

expose(seer);
