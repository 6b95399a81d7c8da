<?php

declare(strict_types=1);

namespace App\Watch;

use Symfony\Component\Mailer\Exception\TransportException;
use Symfony\Component\Mailer\SentMessage;
use Symfony\Component\Mailer\Transport\AbstractTransport;

/** Writes each mail to a file (RFC 5322, .eml) in place of sending it: for the demo world, and to look at them. */
final class MailFiles extends AbstractTransport
{
    public function __construct(private readonly string $directory)
    {
        parent::__construct();
    }

    protected function doSend(SentMessage $message): void
    {
        is_dir($this->directory) || mkdir($this->directory, 0700, true);
        $file = $this->directory.'/'.gmdate('Ymd-His').'-'.bin2hex(random_bytes(4)).'.eml';
        file_put_contents($file, $message->toString()) === false
            && throw new TransportException("$file cannot be written.");
        chmod($file, 0600);
    }

    public function __toString(): string
    {
        return 'file';
    }
}
