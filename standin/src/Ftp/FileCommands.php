<?php

declare(strict_types=1);

namespace Cellarium\Standin\Ftp;

/** Directories, names, times and modes. */
final readonly class FileCommands
{
    public function __construct(private FtpSession $session)
    {
    }

    /** @return array<string, \Closure(string): void> by verb */
    public function handlers(): array
    {
        return [
            'PWD' => $this->printDirectory(...),
            'XPWD' => $this->printDirectory(...),
            'CWD' => $this->changeDirectory(...),
            'XCWD' => $this->changeDirectory(...),
            'CDUP' => fn (string $argument) => $this->changeDirectory('..'),
            'XCUP' => fn (string $argument) => $this->changeDirectory('..'),
            'MKD' => $this->makeDirectory(...),
            'XMKD' => $this->makeDirectory(...),
            'RMD' => $this->removeDirectory(...),
            'XRMD' => $this->removeDirectory(...),
            'DELE' => $this->delete(...),
            'RNFR' => $this->renameFrom(...),
            'RNTO' => $this->renameTo(...),
            'SIZE' => $this->size(...),
            'MDTM' => $this->modified(...),
            'MFMT' => $this->setModified(...),
            'MLST' => $this->facts(...),
            'SITE' => $this->site(...),
        ];
    }

    private function printDirectory(string $argument): void
    {
        $this->session->signedIn();
        $this->session->reply(257, '"'.str_replace('"', '""', $this->session->directory).'" is the working directory');
    }

    private function changeDirectory(string $argument): void
    {
        [$virtual, $real] = $this->session->path($argument);
        if (! is_dir($real)) {
            throw Reply::notFound($virtual);
        }
        $this->session->directory = $virtual;
        $this->session->reply(250, "Now in $virtual");
    }

    private function makeDirectory(string $argument): void
    {
        [$virtual, $real] = $this->session->path($argument);
        if (file_exists($real)) {
            throw new Reply("$virtual: exists already", 550);
        }
        if (! @mkdir($real, 0755)) {
            throw Reply::notFound(dirname($virtual));
        }
        chmod($real, 0755);
        $this->session->reply(257, '"'.str_replace('"', '""', $virtual).'" made');
    }

    private function removeDirectory(string $argument): void
    {
        [$virtual, $real] = $this->session->path($argument);
        if ($virtual === '/' || ! is_dir($real)) {
            throw Reply::notFound($virtual);
        }
        if (! @rmdir($real)) {
            throw new Reply("$virtual: not empty", 550);
        }
        $this->session->reply(250, "$virtual removed");
    }

    private function delete(string $argument): void
    {
        [$virtual, $real] = $this->file($argument);
        $bytes = is_link($real) ? 0 : (int) filesize($real);
        if (! @unlink($real)) {
            throw Reply::forbidden($virtual);
        }
        $this->session->signedIn()->addUsed(-$bytes);
        $this->session->reply(250, "$virtual deleted");
    }

    private function renameFrom(string $argument): void
    {
        [$virtual, $real] = $this->session->path($argument);
        if ($virtual === '/' || ! file_exists($real)) {
            throw Reply::notFound($virtual);
        }
        $this->session->renameFrom = $real;
        $this->session->reply(350, 'To which name?');
    }

    private function renameTo(string $argument): void
    {
        $from = $this->session->renameFrom ?? throw new Reply('RNFR first', 503);
        $this->session->renameFrom = null;
        [$virtual, $real] = $this->session->path($argument);
        if ($this->session->signedIn()->faults->pinned && is_dir($from)) {
            throw new Reply("$virtual: the directory is in use", 550);
        }
        $replaced = is_file($real) && ! is_link($real) ? (int) filesize($real) : 0;
        if (! @rename($from, $real)) {
            throw new Reply("$virtual: cannot take this name", 553);
        }
        clearstatcache();
        $this->session->signedIn()->addUsed(-$replaced);
        $this->session->reply(250, "Renamed to $virtual");
    }

    private function size(string $argument): void
    {
        [, $real] = $this->file($argument);
        $this->session->reply(213, (string) Listing::sizeOf($real));
    }

    private function modified(string $argument): void
    {
        [, $real] = $this->file($argument);
        clearstatcache(true, $real);
        $this->session->reply(213, gmdate('YmdHis', (int) filemtime($real)));
    }

    private function setModified(string $argument): void
    {
        if (preg_match('/\A(\d{14}) (.+)\z/', $argument, $match) !== 1) {
            throw new Reply('MFMT YYYYMMDDHHMMSS path', 501);
        }
        [$virtual, $real] = $this->file($match[2]);
        $time = \DateTimeImmutable::createFromFormat('!YmdHis', $match[1], new \DateTimeZone('UTC'));
        if ($time === false || ! @touch($real, $time->getTimestamp())) {
            throw Reply::forbidden($virtual);
        }
        $this->session->reply(213, "Modify=$match[1]; $virtual");
    }

    private function facts(string $argument): void
    {
        [$virtual, $real] = $this->session->path($argument === '' ? '.' : $argument);
        $this->session->reply(250, 'Facts', Listing::facts($real, $virtual), 'End');
    }

    private function site(string $argument): void
    {
        $this->session->signedIn();
        if (preg_match('/\ACHMOD ([0-7]{3,4}) (.+)\z/i', $argument, $match) !== 1) {
            throw new Reply('SITE CHMOD mode path', 504);
        }
        [$virtual, $real] = $this->session->path($match[2]);
        if (is_link($real) || ! @chmod($real, (int) octdec($match[1]))) {
            throw Reply::notFound($virtual);
        }
        $this->session->reply(200, "$virtual has mode $match[1]");
    }

    /**
     * @return array{string, string}
     *
     * @throws Reply 550 when there is no such file
     */
    private function file(string $argument): array
    {
        [$virtual, $real] = $this->session->path($argument);
        if (! is_file($real)) {
            throw Reply::notFound($virtual);
        }

        return [$virtual, $real];
    }
}
