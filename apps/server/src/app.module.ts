import { Module } from '@nestjs/common';
import { APP_GUARD } from '@nestjs/core';
import { ThrottlerModule } from '@nestjs/throttler';
import { AccessController } from './access/access.controller.js';
import { AccessService } from './access/access.service.js';
import { Gate } from './access/gate.js';
import { ActsController } from './acts/acts.controller.js';
import { BenchController } from './bench/bench.controller.js';
import { BenchService } from './bench/bench.service.js';
import { DevicesController } from './devices/devices.controller.js';
import { KnownController } from './known/known.controller.js';
import { KnownService } from './known/known.service.js';
import { MailController } from './mail/mail.controller.js';
import { MailService } from './mail/mail.service.js';
import { PapersController } from './papers/papers.controller.js';
import { PhotosController } from './photos/photos.controller.js';
import { ComputeService } from './plans/compute.service.js';
import { PiecesService } from './rack/pieces.service.js';
import { RackController } from './rack/rack.controller.js';
import { RackService } from './rack/rack.service.js';
import { StoreModule } from './store/store.module.js';
import { ChangesController } from './trees/changes.controller.js';
import { Changes } from './trees/changes.service.js';
import { TreesController } from './trees/trees.controller.js';
import { TreesService } from './trees/trees.service.js';
import { StudioController } from './studio/studio.controller.js';
import { StudioService } from './studio/studio.service.js';
import { BenchesService } from './walk/benches.service.js';
import { WalkController } from './walk/walk.controller.js';
import { WorkController } from './work/work.controller.js';
import { WorkService } from './work/work.service.js';
import { YardController } from './yard/yard.controller.js';

/** Tries are counted by the address that they come from. */
const THROTTLE = ThrottlerModule.forRoot([{ ttl: 60_000, limit: 600 }]);

@Module({ imports: [THROTTLE], providers: [AccessService], controllers: [AccessController], exports: [AccessService] })
class AccessModule {}

@Module({ providers: [ComputeService], exports: [ComputeService] })
class ComputeModule {}

@Module({
  imports: [ComputeModule],
  providers: [TreesService, KnownService, Changes],
  controllers: [TreesController, KnownController, ChangesController],
  exports: [TreesService, KnownService],
})
class TreesModule {}

@Module({ imports: [TreesModule], controllers: [ActsController, PhotosController] })
class ActsModule {}

@Module({ imports: [TreesModule, ComputeModule], providers: [WorkService], controllers: [WorkController], exports: [WorkService] })
class WorkModule {}

@Module({
  imports: [TreesModule, ComputeModule, AccessModule],
  providers: [BenchService, BenchesService, MailService],
  controllers: [BenchController, WalkController, MailController],
})
class BenchModule {}

@Module({
  imports: [TreesModule, ComputeModule],
  providers: [RackService, PiecesService],
  controllers: [RackController],
  exports: [RackService, PiecesService],
})
class RackModule {}

@Module({ imports: [TreesModule, ComputeModule, RackModule, WorkModule], controllers: [PapersController] })
class PapersModule {}

@Module({ imports: [TreesModule], controllers: [DevicesController] })
class DevicesModule {}

@Module({ providers: [StudioService], controllers: [StudioController] })
class StudioModule {}

@Module({ controllers: [YardController] })
class YardModule {}

@Module({
  providers: [{ provide: APP_GUARD, useClass: Gate }],
  imports: [StoreModule, AccessModule, BenchModule, TreesModule, ActsModule, RackModule, WorkModule, PapersModule, StudioModule, DevicesModule, YardModule],
})
export class AppModule {}
