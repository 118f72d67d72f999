import { Injectable, type OnModuleDestroy } from '@nestjs/common';
import type { Change } from '@ustle/contract';
import { Subject, type Observable } from 'rxjs';

/** What was stored of trees, told to every page that listens. */
@Injectable()
export class Changes implements OnModuleDestroy {
  private readonly all = new Subject<Change>();

  tell(change: Change): void {
    this.all.next(change);
  }

  heard(): Observable<Change> {
    return this.all;
  }

  onModuleDestroy(): void {
    this.all.complete();
  }
}
