import { Controller, Sse, type MessageEvent } from '@nestjs/common';
import { ApiOperation, ApiTags } from '@nestjs/swagger';
import { interval, map, merge, type Observable } from 'rxjs';
import { Changes } from './changes.service.js';

/** A line that says nothing is let go of by what stands between; something is said so often. */
const ALIVE_MS = 25_000;

@ApiTags('trees')
@Controller('api')
export class ChangesController {
  constructor(private readonly changes: Changes) {}

  @Sse('changes')
  @ApiOperation({ summary: 'Which tree was changed, and by which device, as it happens (server-sent events)' })
  heard(): Observable<MessageEvent> {
    return merge(this.changes.heard().pipe(map((data) => ({ data }))), interval(ALIVE_MS).pipe(map(() => ({ type: 'alive', data: '' }))));
  }
}
