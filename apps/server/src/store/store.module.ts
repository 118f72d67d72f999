import { Global, Module } from '@nestjs/common';
import { Clock } from './clock.service.js';
import { Store } from './store.service.js';

@Global()
@Module({ providers: [Store, Clock], exports: [Store, Clock] })
export class StoreModule {}
