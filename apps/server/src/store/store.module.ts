import { Global, Module } from '@nestjs/common';
import { Clock } from './clock.service.js';
import { Settings } from './settings.service.js';
import { Store } from './store.service.js';

@Global()
@Module({ providers: [Store, Clock, Settings], exports: [Store, Clock, Settings] })
export class StoreModule {}
