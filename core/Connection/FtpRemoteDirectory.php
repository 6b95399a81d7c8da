<?php

declare(strict_types=1);

namespace Cellarium\Core\Connection;

use Cellarium\Core\Manifest\EntryKind;
use Cellarium\Core\Path\RemotePath;
use CurlHandle;

/**
 * FTP and FTP over TLS on libcurl, over one connection that is used again.
 */
final class FtpRemoteDirectory implements
    ComputesHashes,
    CopiesFiles,
    LooksAgain,
    RemoteDirectory,
    RenamesTogether,
    ResumesSending,
    SetsModes,
    TriesPaths
{
    /** So much is taken from the network at once, in bytes. */
    private const BUFFER = 1 << 19;

    private readonly FtpSession $session;

    private readonly FtpLister $lister;

    private readonly FtpRenamer $renamer;

    private readonly FtpHasher $hasher;

    /** @param  (\Closure(int): bool)|null  $carryOn hears the bytes moved so far in a transfer; false breaks it off */
    public function __construct(
        Endpoint $endpoint,
        private readonly ConnectionSettings $settings = new ConnectionSettings,
        ?\Closure $carryOn = null,
    ) {
        $this->session = new FtpSession($endpoint, $settings, $carryOn);
        $this->lister = new FtpLister($this->session, $settings);
        $this->session->listedBy($this->lister);
        $this->renamer = new FtpRenamer($this->session);
        $this->hasher = new FtpHasher($this->session);
    }

    public function list(RemotePath $directory): array
    {
        return $this->lister->list($directory);
    }

    public function stat(RemotePath $path): ?RemoteEntry
    {
        return $this->lister->stat($path);
    }

    public function landing(): array
    {
        return $this->lister->landing();
    }

    public function listAt(string $raw): array
    {
        return $this->lister->listAt($raw);
    }

    public function sees(string $raw): bool
    {
        return $this->lister->sees($raw);
    }

    public function namesOtherwise(RemotePath $directory, array $names): array
    {
        return $this->lister->namesOtherwise($directory, $names);
    }

    public function size(RemotePath $file): ?int
    {
        return $this->session->size($file);
    }

    public function hash(RemotePath $file): ?ServerHash
    {
        return $this->hasher->hash($file);
    }

    public function rename(RemotePath $from, RemotePath $to): void
    {
        $this->renamer->rename($from, $to);
    }

    public function renameTogether(array $renames): array
    {
        return $this->renamer->renameTogether($renames);
    }

    public function copy(RemotePath $from, RemotePath $to): bool
    {
        return $this->renamer->copy($from, $to);
    }

    /** What is known by now about speaking TLS with this server. */
    public function tls(): TlsUse
    {
        return $this->session->connection->tls();
    }

    public function answers(): array
    {
        return $this->session->connection->replies();
    }

    public function read(RemotePath $file, $sink, ?int $most = null): int
    {
        $taken = 0;
        $take = static function (CurlHandle $curl, string $chunk) use ($sink, $most, &$taken): int {
            $taken += strlen($chunk);

            return $most !== null && $taken > $most ? -1 : (int) @fwrite($sink, $chunk);
        };
        try {
            $this->session->transfer(
                "reading $file",
                $this->session->url($file),
                [CURLOPT_BUFFERSIZE => self::BUFFER] + ($most === null && self::isPlainFile($sink)
                    ? [CURLOPT_FILE => $sink]
                    : [CURLOPT_WRITEFUNCTION => $take]) + $this->settings->deadline($most),
                $file,
            );
        } catch (RemoteFailure $failure) {
            throw $most !== null && $taken > $most ? self::tooMuch($file, $most) : $failure;
        }

        $this->session->isBinaryNow();

        return $this->session->connection->number(CURLINFO_SIZE_DOWNLOAD_T);
    }

    private static function tooMuch(RemotePath $file, int $most): RemoteFailure
    {
        return RemoteFailure::while(
            "reading $file",
            FailureReason::Incomplete,
            "$most bytes came, and it went on",
        );
    }

    public function write(RemotePath $file, $source, int $size): void
    {
        $this->store($file, $source, $size, []);
    }

    public function writeFrom(RemotePath $file, $source, int $from, int $size): bool
    {
        try {
            $this->store(
                $file,
                $source,
                $size - $from,
                // Right before STOR, since the server forgets it at any other command (RFC 3659, 5.3).
                [CURLOPT_PREQUOTE => ["REST $from"]],
            );
        } catch (RemoteFailure $failure) {
            // Over TLS a refusal is seen as a handshake for the data that does not come about. What else is wrong shows
            // when the whole file is sent.
            $away = [FailureReason::Disconnected, FailureReason::TimedOut, FailureReason::LocalFile];

            return in_array($failure->reason, $away, true) ? throw $failure : false;
        }

        return true;
    }

    /**
     * @param  resource  $source
     * @param  int  $size  bytes that it gives
     * @param  array<int, mixed>  $more  options of libcurl
     */
    private function store(RemotePath $file, $source, int $size, array $more): void
    {
        $options = $more + [
            CURLOPT_UPLOAD => true,
            CURLOPT_UPLOAD_BUFFERSIZE => self::BUFFER,
            CURLOPT_INFILESIZE => $size,
        ] + (self::isPlainFile($source)
            ? [CURLOPT_INFILE => $source]
            : [CURLOPT_READFUNCTION => static fn (CurlHandle $curl, mixed $none, int $length): string => (string) fread(
                $source,
                max(1, $length),
            )]);
        $start = ftell($source);
        // With TLS 1.3 bytes are on their way before the server refuses the connection they go through.
        $rewind = static fn (): bool => $start !== false && fseek($source, $start) === 0;
        try {
            $this->session->transfer("writing $file", $this->session->url($file), $options, $file->parent(), $rewind);
        } catch (RemoteFailure $failure) {
            $failure->reason === FailureReason::DataRefused && $size > 0 && $this->removeEmpty($file);
            throw $failure;
        }
        if ($this->session->connection->number(CURLINFO_SIZE_UPLOAD_T) !== $size) {
            throw RemoteFailure::while("writing $file", FailureReason::LocalFile);
        }
        $this->session->isBinaryNow();
    }

    /** Whether libcurl can read and write it by itself, which is quicker than being handed each piece. */
    private static function isPlainFile(mixed $stream): bool
    {
        return is_resource($stream) && stream_get_meta_data($stream)['wrapper_type'] === 'plainfile';
    }

    /**
     * Servers make the file before the connection for its bytes stands, and leave it there empty when that is refused.
     */
    private function removeEmpty(RemotePath $file): void
    {
        try {
            $this->session->size($file) === 0 && $this->remove($file);
        } catch (RemoteFailure) {
            // What is told is why the file could not be written; its name is one of ours and found again by it.
        }
    }

    public function remove(RemotePath $file): void
    {
        $this->session->command("removing $file", ["DELE {$this->session->real($file)}"], $file);
    }

    public function makeDirectory(RemotePath $directory): void
    {
        try {
            $this->session->command(
                "making $directory",
                ["MKD {$this->session->real($directory)}"],
                $directory->parent(),
            );
        } catch (RemoteFailure $failure) {
            if (! $failure->reason->isTransient() && $this->stat($directory)?->kind === EntryKind::Directory) {
                return;
            }
            throw $failure;
        }
    }

    public function removeDirectory(RemotePath $directory): void
    {
        $this->session->command("removing $directory", ["RMD {$this->session->real($directory)}"], $directory);
    }

    public function setMode(RemotePath $path, int $mode): void
    {
        if (str_contains($this->session->real($path), '"')) {
            // What follows SITE is taken apart at them by one server, which then means another file.
            throw RemoteFailure::while(
                "setting the mode of $path, whose quotation marks some servers would take for the name of another file",
                FailureReason::Forbidden,
            );
        }
        $this->session->command(
            "setting the mode of $path",
            [sprintf('SITE CHMOD %03o %s', $mode, $this->session->real($path))],
            $path,
        );
    }
}
