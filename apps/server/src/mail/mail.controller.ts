import { Controller, Get } from '@nestjs/common';
import { ApiOperation, ApiTags } from '@nestjs/swagger';
import type { MailView } from '@ustle/contract';
import { MailService } from './mail.service.js';

@ApiTags('season')
@Controller('api/mail')
export class MailController {
  constructor(private readonly mail: MailService) {}

  @Get()
  @ApiOperation({ summary: 'The notices that were sent, as they lie in the simulated mail box' })
  all(): Promise<MailView[]> {
    return this.mail.all();
  }
}
