import { Global, Module } from '@nestjs/common';
import { PhotoFiles } from '../photos/photo-files.js';
import { Clock } from './clock.service.js';
import { Settings } from './settings.service.js';
import { Store } from './store.service.js';

@Global()
@Module({ providers: [Store, Clock, Settings, PhotoFiles], exports: [Store, Clock, Settings, PhotoFiles] })
export class StoreModule {}
