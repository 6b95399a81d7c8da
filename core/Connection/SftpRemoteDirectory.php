<?php

declare(strict_types=1);

namespace Cellarium\Core\Connection;

use Cellarium\Core\Manifest\EntryKind;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Path\WireName;
use phpseclib3\Net\SFTP;

/** SFTP (version 3 of its draft) on phpseclib: one connection, opened when first used, dropped when it fails. */
final class SftpRemoteDirectory implements
    CopiesFiles,
    RemoteDirectory,
    RenamesTogether,
    ResumesSending,
    SetsModes,
    TriesPaths
{
    private ?SFTP $sftp = null;

    private readonly StepDeadline $deadline;

    /** What "/" is on the server, without a slash at its end. */
    private string $base = '';

    /** @param  (\Closure(int): bool)|null  $carryOn hears the bytes moved so far in a transfer; false breaks it off */
    public function __construct(
        private readonly Endpoint $endpoint,
        private readonly ConnectionSettings $settings = new ConnectionSettings,
        private readonly ?\Closure $carryOn = null,
    ) {
        $this->deadline = new StepDeadline($settings);
    }

    public function list(RemotePath $directory): array
    {
        return $this->listed("listing $directory", fn (): string => $this->real($directory));
    }

    public function landing(): array
    {
        return $this->listed('listing where the sign-in lands', static fn (): string => '.');
    }

    public function listAt(string $raw): array
    {
        return $this->listed("listing $raw", static fn (): string => $raw);
    }

    public function sees(string $raw): bool
    {
        return $this->on("looking for $raw", static fn (SFTP $sftp): bool => $sftp->stat($raw) !== false);
    }

    public function answers(): array
    {
        return [];
    }

    public function stat(RemotePath $path): ?RemoteEntry
    {
        $what = "looking at $path";

        return $this->on($what, function (SFTP $sftp) use ($path, $what): ?RemoteEntry {
            $facts = $sftp->lstat($this->real($path));
            if ($facts === false) {
                $failure = $this->refused($sftp, $what);

                return $failure->reason === FailureReason::NotFound ? null : throw $failure;
            }

            return $this->entry($path->depth() === 0 ? '' : WireName::toWire($path->name()), $facts);
        });
    }

    public function read(RemotePath $file, $sink, ?int $most = null): int
    {
        $what = "reading $file";

        return $this->on($what, function (SFTP $sftp) use ($file, $sink, $most, $what): int {
            $bytes = 0;
            $take = function (string $chunk) use ($sink, $what, $most, &$bytes): void {
                if ($most !== null && $bytes + strlen($chunk) > $most) {
                    throw RemoteFailure::while($what, FailureReason::Incomplete, "$most bytes came, and it went on");
                }
                if (@fwrite($sink, $chunk) !== strlen($chunk)) {
                    throw RemoteFailure::while($what, FailureReason::LocalFile);
                }
                $this->moved($bytes += strlen($chunk), $what);
            };

            return $sftp->get($this->real($file), $take) === false ? throw $this->refused($sftp, $what) : $bytes;
        }, $most);
    }

    public function size(RemotePath $file): ?int
    {
        return $this->on("looking at $file", function (SFTP $sftp) use ($file): ?int {
            $facts = $sftp->lstat($this->real($file));

            return $facts === false || ! is_int($facts['size'] ?? null) ? null : $facts['size'];
        });
    }

    public function write(RemotePath $file, $source, int $size): void
    {
        $this->put($file, $source, $size, -1);
    }

    public function writeFrom(RemotePath $file, $source, int $from, int $size): bool
    {
        $this->put($file, $source, $size - $from, $from);

        return true;
    }

    /**
     * @param  resource  $source
     * @param  int  $size  bytes that it gives
     * @param  int  $from  where they go in the file; -1 for a file that is made anew
     */
    private function put(RemotePath $file, $source, int $size, int $from): void
    {
        $what = "writing $file";

        $this->tell($what, function (SFTP $sftp) use ($file, $source, $size, $from, $what): bool {
            $sent = 0;
            $give = static function (int $length) use ($source, &$sent): ?string {
                $chunk = fread($source, max(1, $length));
                $sent += strlen((string) $chunk);

                return $chunk === false || $chunk === '' ? null : $chunk;
            };
            $heard = fn (int $bytes) => $this->moved($bytes, $what);
            $put = $sftp->put(
                $this->real($file),
                $give, // @phpstan-ignore argument.type (documented: a source that is called)
                SFTP::SOURCE_CALLBACK,
                $from,
                -1,
                $heard,
            );
            if ($put && $sent !== $size) {
                throw RemoteFailure::while($what, FailureReason::LocalFile);
            }

            return $put;
        }, $size);
    }

    public function rename(RemotePath $from, RemotePath $to): void
    {
        $this->tell("renaming $from to $to", function (SFTP $sftp) use ($from, $to): bool {
            // The extension replaces a file as rename(2) does; the command of version 3 alone refuses to.
            if (isset($sftp->getSupportedExtensions()['posix-rename@openssh.com'])) {
                return $sftp->posix_rename($this->real($from), $this->real($to));
            }

            $renamed = $sftp->rename($this->real($from), $this->real($to));
            if (! $renamed && $this->stat($from) !== null && $sftp->delete($this->real($to), false)) {
                $renamed = $sftp->rename($this->real($from), $this->real($to));
            }

            return $renamed;
        });
    }

    public function renameTogether(array $renames): array
    {
        $what = "renaming {$renames[0][0]} and what goes with it";

        return $this->on($what, function (SFTP $sftp) use ($renames): array {
            $pairs = [];
            foreach ($renames as [$from, $to]) {
                $pairs[] = [$this->real($from), $this->real($to)];
            }

            return SftpRenames::send($sftp, $pairs);
        });
    }

    public function copy(RemotePath $from, RemotePath $to): bool
    {
        return $this->on("copying $from to $to", function (SFTP $sftp) use ($from, $to): bool {
            if (! isset($sftp->getSupportedExtensions()['copy-data'])) {
                return false;
            }

            return $sftp->copy($this->real($from), $this->real($to))
                ?: throw $this->refused($sftp, "copying $from to $to");
        });
    }

    public function remove(RemotePath $file): void
    {
        $this->tell("removing $file", fn (SFTP $sftp): bool => $sftp->delete($this->real($file), false));
    }

    public function makeDirectory(RemotePath $directory): void
    {
        $this->tell(
            "making $directory",
            fn (SFTP $sftp): bool => $sftp->mkdir($this->real($directory))
                || $this->stat($directory)?->kind === EntryKind::Directory,
        );
    }

    public function removeDirectory(RemotePath $directory): void
    {
        $this->tell("removing $directory", fn (SFTP $sftp): bool => $sftp->rmdir($this->real($directory)));
    }

    public function setMode(RemotePath $path, int $mode): void
    {
        $this->tell(
            "setting the mode of $path",
            fn (SFTP $sftp): bool => $sftp->chmod($mode, $this->real($path)) !== false,
        );
    }

    /** @param  \Closure(SFTP): bool  $work */
    private function tell(string $what, \Closure $work, int $most = 0): void
    {
        $this->on($what, function (SFTP $sftp) use ($what, $work): bool {
            return $work($sftp) ?: throw $this->refused($sftp, $what);
        }, $most);
    }

    /**
     * @param  \Closure(): string  $real
     * @return list<RemoteEntry>
     */
    private function listed(string $what, \Closure $real): array
    {
        return $this->on($what, function (SFTP $sftp) use ($what, $real): array {
            $rows = $sftp->rawlist($real());
            if ($rows === false) {
                throw $this->refused($sftp, $what);
            }
            if (count($rows) > $this->settings->mostEntries) {
                throw RemoteFailure::while(
                    $what,
                    FailureReason::TooMuch,
                    "it lists more than {$this->settings->mostEntries} names",
                );
            }
            $entries = [];
            foreach ($rows as $name => $facts) {
                if ($name !== '.' && $name !== '..') {
                    // A name of digits alone arrives as a number.
                    $entry = $this->entry(
                        (string) $name,
                        is_array($facts) ? $facts : throw RemoteFailure::while($what, FailureReason::NotUnderstood),
                    );
                    $target = $entry->kind === EntryKind::Link ? $sftp->readlink($real()."/$name") : false;
                    $entries[] = is_string($target) ? $entry->pointingAt(WireName::fromWire($target)) : $entry;
                }
            }

            return $entries;
        }, $this->settings->mostListingBytes);
    }

    /** @param  array<mixed>  $facts */
    private function entry(string $name, array $facts): RemoteEntry
    {
        if ($name !== '' && strpbrk($name, "/\0") !== false) {
            throw RemoteFailure::while('listing', FailureReason::NotUnderstood, $name);
        }
        $number = static fn (string $key): ?int => is_int($facts[$key] ?? null) ? $facts[$key] : null;
        $kind = match ($number('type')) {
            1 => EntryKind::File,
            2 => EntryKind::Directory,
            3 => EntryKind::Link,
            default => EntryKind::Other,
        };
        $mode = $number('mode');

        return new RemoteEntry(
            $name === '' ? '' : WireName::fromWire($name),
            $kind,
            $kind === EntryKind::File ? $number('size') : null,
            $number('mtime'),
            $mode === null ? null : $mode & 07777,
        );
    }

    private function real(RemotePath $path): string
    {
        $real = $this->base.($path->depth() === 0 ? '' : WireName::toWire($path->toString()));

        return $real === '' ? '/' : $real;
    }

    private function moved(int $bytes, string $what): void
    {
        if ($this->carryOn !== null && ! ($this->carryOn)($bytes)) {
            throw RemoteFailure::while($what, FailureReason::Disconnected);
        }
    }

    /**
     * @template T
     *
     * @param  \Closure(SFTP): T  $work
     * @param  int|null  $most  bytes that it moves; null where nobody knows
     * @return T
     */
    private function on(string $what, \Closure $work, ?int $most = 0): mixed
    {
        try {
            $sftp = $this->sftp ??= $this->signIn();
            $this->deadline->begin($most);

            return $work($sftp);
        } catch (RemoteFailure $failure) {
            // What was broken off in the middle of a file leaves answers on their way, too.
            if ($failure->reason->isTransient() || $failure->reason === FailureReason::LocalFile) {
                $this->sftp = null;
            }
            throw $failure;
        } catch (\Exception $broken) {
            // Where time is over while it waits for a packet, the library goes on without one, and understands nothing.
            $isLate = $this->deadline->isOver() || $this->sftp?->isTimeout() === true;
            $reason = $isLate ? FailureReason::TimedOut : SshSession::reason($broken);
            // An answer of this connection may still be on its way, so it is not used again.
            $this->sftp = null;
            throw RemoteFailure::while(
                $what,
                $reason,
                $broken->getMessage(),
                $broken,
            );
        }
    }

    private function signIn(): SFTP
    {
        $sftp = SshSession::open($this->endpoint, $this->settings, $this->deadline);
        $start = $this->endpoint->start === null
            ? $sftp->realpath('.')
            : WireName::toWire($this->endpoint->start->toString());
        if (! is_string($start)) {
            throw $this->refused($sftp, 'finding the directory of the login');
        }
        $this->base = rtrim($start, '/');

        return $sftp;
    }

    private function refused(SFTP $sftp, string $what): RemoteFailure
    {
        $said = (string) $sftp->getLastSFTPError();
        $reason = match (true) {
            $this->deadline->isOver() || $sftp->isTimeout() => FailureReason::TimedOut,
            ! $sftp->isConnected() => FailureReason::Disconnected,
            str_starts_with($said, 'NET_SFTP_STATUS_NO_SUCH_') => FailureReason::NotFound,
            str_starts_with($said, 'NET_SFTP_STATUS_NO_SPACE'),
            str_starts_with($said, 'NET_SFTP_STATUS_QUOTA') => FailureReason::NoSpace,
            default => FailureReason::Forbidden,
        };
        if (
            $reason === FailureReason::Forbidden
            && str_starts_with($what, 'writing')
            && self::isFull($sftp, $this->base)
        ) {
            $reason = FailureReason::NoSpace; // Version 3 has no word of its own for a full disk.
        }

        return RemoteFailure::while(
            $what,
            $reason,
            $said === '' ? null : (string) preg_replace('/\ANET_SFTP_STATUS_\w+: /', '', $said),
        );
    }

    private static function isFull(SFTP $sftp, string $where): bool
    {
        $facts = isset($sftp->getSupportedExtensions()['statvfs@openssh.com'])
            ? $sftp->statvfs($where === '' ? '/' : $where)
            : false;

        return $facts !== false && $facts['bavail'] === 0;
    }
}
