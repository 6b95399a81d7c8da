<?php

declare(strict_types=1);

namespace Cellarium\Core\Hosting;

enum HostJobState: string
{
    case Running = 'running';
    case Done = 'done';
    case Failed = 'failed';
}
