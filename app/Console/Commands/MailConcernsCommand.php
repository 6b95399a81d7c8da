<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Watch\ConcernMail;
use Cellarium\Core\Words\Count;

final class MailConcernsCommand extends CellariumCommand
{
    protected const BY_ITSELF = true;

    protected $signature = 'cellarium:mail-concerns {--json}';

    protected $description = 'Tell people by e-mail what needs a hand, as they chose; each concern once';

    public function handle(ConcernMail $mail): int
    {
        ['sent' => $sent, 'failed' => $failed] = $mail->send();
        if ($failed > 0) {
            return $this->refuse(
                "$failed mails could not be sent and are tried again in ten minutes; $sent were. The log says why.",
            );
        }
        $this->wantsJson()
            ? $this->json(['ok' => true, 'sent' => $sent])
            : $this->components->info(Count::words($sent, 'mail').' sent.');

        return self::PROVEN;
    }
}
