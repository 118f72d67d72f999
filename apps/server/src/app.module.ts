import { Module } from '@nestjs/common';
import { ActsController } from './acts/acts.controller.js';
import { BenchController } from './bench/bench.controller.js';
import { BenchService } from './bench/bench.service.js';
import { DevicesController } from './devices/devices.controller.js';
import { ComputeService } from './plans/compute.service.js';
import { RackController } from './rack/rack.controller.js';
import { RackService } from './rack/rack.service.js';
import { StoreModule } from './store/store.module.js';
import { TreesController } from './trees/trees.controller.js';
import { TreesService } from './trees/trees.service.js';
import { YardController } from './yard/yard.controller.js';

@Module({ providers: [ComputeService], exports: [ComputeService] })
class ComputeModule {}

@Module({ imports: [ComputeModule], providers: [TreesService], controllers: [TreesController], exports: [TreesService] })
class TreesModule {}

@Module({ imports: [TreesModule], controllers: [ActsController] })
class ActsModule {}

@Module({ imports: [TreesModule, ComputeModule], providers: [BenchService], controllers: [BenchController] })
class BenchModule {}

@Module({ imports: [TreesModule, ComputeModule], providers: [RackService], controllers: [RackController] })
class RackModule {}

@Module({ controllers: [DevicesController] })
class DevicesModule {}

@Module({ controllers: [YardController] })
class YardModule {}

@Module({ imports: [StoreModule, BenchModule, TreesModule, ActsModule, RackModule, DevicesModule, YardModule] })
export class AppModule {}
