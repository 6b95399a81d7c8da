<?php

declare(strict_types=1);

namespace App\Record;

use Illuminate\Log\Logger;
use Monolog\Formatter\LineFormatter;
use Monolog\Handler\FormattableHandlerInterface;
use Monolog\Logger as Monolog;

/** Log lines carry messages and places, never the arguments of a stack trace: one of them may be a secret. */
final class QuietTraces
{
    public function __invoke(Logger $logger): void
    {
        $monolog = $logger->getLogger();
        foreach ($monolog instanceof Monolog ? $monolog->getHandlers() : [] as $handler) {
            if ($handler instanceof FormattableHandlerInterface) {
                $formatter = new LineFormatter(null, 'Y-m-d H:i:s', false, true);
                $formatter->includeStacktraces(false);
                $handler->setFormatter($formatter);
            }
        }
    }
}
