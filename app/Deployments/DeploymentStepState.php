<?php

declare(strict_types=1);

namespace App\Deployments;

/** The state of a step of a deployment. */
enum DeploymentStepState: string
{
    case Done = 'done';

    case Here = 'here';

    case Open = 'open';

    case Failed = 'failed';

    public function words(): string
    {
        return match ($this) {
            self::Done => 'done',
            self::Here => 'here now',
            self::Open => 'not yet',
            self::Failed => 'failed',
        };
    }
}
