import { Module } from '@nestjs/common';
import { DevicesController } from './devices/devices.controller.js';
import { PlansService } from './plans/plans.service.js';
import { RecordController } from './record/record.controller.js';
import { SeasonController } from './season/season.controller.js';
import { StoreModule } from './store/store.module.js';
import { SummaryService } from './trees/summary.service.js';
import { TreesController } from './trees/trees.controller.js';
import { TreesService } from './trees/trees.service.js';
import { YardController } from './yard/yard.controller.js';

@Module({ providers: [TreesService, SummaryService, PlansService], controllers: [TreesController], exports: [TreesService, SummaryService] })
class TreesModule {}

@Module({ imports: [TreesModule], controllers: [RecordController] })
class RecordModule {}

@Module({ imports: [TreesModule], controllers: [SeasonController] })
class SeasonModule {}

@Module({ controllers: [DevicesController] })
class DevicesModule {}

@Module({ controllers: [YardController] })
class YardModule {}

@Module({ imports: [StoreModule, TreesModule, RecordModule, SeasonModule, DevicesModule, YardModule] })
export class AppModule {}
