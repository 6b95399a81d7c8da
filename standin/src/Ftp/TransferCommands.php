<?php

declare(strict_types=1);

namespace Cellarium\Standin\Ftp;

use Amp\ByteStream\ClosedException;
use Amp\ByteStream\StreamException;

/** Everything that goes over a data connection. */
final readonly class TransferCommands
{
    private const CHUNK = 65536;

    public function __construct(private FtpSession $session)
    {
    }

    /** @return array<string, \Closure(string): void> by verb */
    public function handlers(): array
    {
        return [
            'LIST' => $this->customList(...),
            'NLST' => fn (string $argument) => $this->list(
                $argument,
                static fn (string $real, string $name): string => $name,
                false,
            ),
            'MLSD' => $this->machineList(...),
            'RETR' => $this->retrieve(...),
            'STOR' => fn (string $argument) => $this->store($argument, false),
            'APPE' => fn (string $argument) => $this->store($argument, true),
        ];
    }

    private function customList(string $argument): void
    {
        $dos = $this->session->faults()->listing === 'dos';
        $options = preg_match('/\A-([a-zA-Z]+)(?: |\z)/', $argument, $match) === 1 ? $match[1] : '';
        $path = (string) preg_replace('/\A-[a-zA-Z]+ ?/', '', $argument);
        $this->list($path, $dos ? Listing::dosLine(...) : Listing::unixLine(...), $dos || str_contains($options, 'a'));
    }

    /**
     * @param  \Closure(string, string): string  $line from real path and name
     * @param  bool  $hidden  whether names that begin with a dot are shown
     */
    private function list(string $argument, \Closure $line, bool $hidden): void
    {
        [$virtual, $real] = $this->session->path($argument === '' ? '.' : $argument);
        if (! is_dir($real)) {
            is_file($real) ? $this->send($line($real, basename($virtual))."\r\n") : throw Reply::notFound($virtual);

            return;
        }
        $names = array_filter(Listing::names($real), static fn (string $name): bool => $hidden || $name[0] !== '.');
        $this->sendLines(
            array_map(static fn (string $name): string => $line("$real/$name", $name), array_values($names)),
        );
    }

    private function machineList(string $argument): void
    {
        if ($this->session->faults()->listing !== null) {
            throw new Reply('MLSD is not known here', 502);
        }
        [$virtual, $real] = $this->session->path($argument === '' ? '.' : $argument);
        if (! is_dir($real)) {
            throw new Reply("$virtual: not a directory", is_file($real) ? 501 : 550);
        }
        $lines = array_map(
            static fn (string $name): string => Listing::facts("$real/$name", $name),
            Listing::names($real),
        );
        $empty = $this->session->faults()->listingFault === 'empty-mlsd';
        $this->sendLines($empty ? [] : [Listing::facts($real, $virtual, 'cdir'), ...$lines]);
    }

    /** @param  list<string>  $lines */
    private function sendLines(array $lines): void
    {
        $text = implode('', array_map(static fn (string $line): string => "$line\r\n", $lines));
        $this->send(match ($this->session->faults()->listingFault) {
            'empty' => '',
            'cut' => substr($text, 0, -6),
            default => $text,
        });
    }

    private function send(string $text): void
    {
        $stream = fopen('php://temp', 'w+b');
        assert($stream !== false);
        fwrite($stream, $text);
        rewind($stream);
        $this->sendStream($stream, 'Here is the listing');
    }

    private function retrieve(string $argument): void
    {
        [$virtual, $real] = $this->session->path($argument);
        $stream = is_file($real) ? @fopen($real, 'rb') : throw Reply::notFound($virtual);
        if ($stream === false) {
            throw Reply::forbidden($virtual);
        }
        fseek($stream, $this->takeRestart());
        $this->sendStream($stream, 'Here it comes');
    }

    /** @param  resource  $stream is closed at the end */
    private function sendStream($stream, string $greeting): void
    {
        $this->session->reply(150, $greeting);
        $this->session->startTransfer(function () use ($stream): void {
            try {
                $data = $this->session->data->connection();
                $limit = $this->session->faults()->closeDataAfter;
                $sent = 0;
                while (! feof($stream) && ($chunk = fread($stream, self::CHUNK)) !== false) {
                    if ($limit !== null && $sent + strlen($chunk) > $limit) {
                        $data->write(substr($chunk, 0, max(0, $limit - $sent)));
                        throw new Reply('The data connection was closed early', 426);
                    }
                    $data->write($chunk);
                    $sent += strlen($chunk);
                    $this->session->countPayload(strlen($chunk));
                }
                $this->session->data->finish();
                $this->session->reply(226, 'Complete');
            } catch (ClosedException|StreamException) {
                throw new Reply('The data connection broke', 426);
            } finally {
                fclose($stream);
            }
        });
    }

    private function store(string $argument, bool $append): void
    {
        [$virtual, $real] = $this->session->path($argument);
        if ($virtual === '/' || is_dir($real)) {
            throw Reply::badName();
        }
        $offset = $this->takeRestart();
        clearstatcache(true, $real);
        $before = is_file($real) ? (int) filesize($real) : 0;
        $stream = @fopen($real, match (true) {
            $append => 'ab',
            $offset > 0 => 'r+b',
            default => 'wb',
        });
        if ($stream === false) {
            throw is_dir(dirname($real)) ? Reply::forbidden($virtual) : Reply::notFound(dirname($virtual));
        }
        if (! $append) {
            $this->session->signedIn()->addUsed(-max(0, $before - $offset));
        }
        if ($offset > 0) {
            ftruncate($stream, $offset);
            fseek($stream, $offset);
        }
        @chmod($real, 0644);
        $this->session->reply(150, 'Send it');
        $this->session->startTransfer(fn () => $this->receive($stream, $real));
    }

    /** @param  resource  $stream is closed at the end */
    private function receive($stream, string $real): void
    {
        $account = $this->session->signedIn();
        $login = $this->session->login;
        assert($login !== null);
        $faults = $account->faults;
        $received = 0;
        $kept = 0;
        try {
            $data = $this->session->data->connection();
            $room = $account->roomFor($login);
            while (($chunk = $data->read()) !== null) {
                $received += strlen($chunk);
                if ($received > $room) {
                    continue; // Taken in and thrown away: a client that still sends would not hear the 552 otherwise.
                }
                if ($faults->closeDataAfter !== null && $received > $faults->closeDataAfter) {
                    throw new Reply('The data connection was closed early', 426);
                }
                $kept += (int) fwrite($stream, $chunk);
                $this->session->countPayload(strlen($chunk));
            }
            if ($this->session->data->aborted) {
                throw new ClosedException('cancelled');
            }
            if ($received > $room) {
                throw Reply::full();
            }
            if ($faults->lie) {
                $kept = max(0, $kept - intdiv($received + 1, 2));
                ftruncate($stream, $kept);
            }
            fflush($stream);
            if ($faults->alter && $kept > 0) {
                fseek($stream, -1, SEEK_END);
                fwrite($stream, '~');
            }
            Listing::claim($real, $faults->claim ? $received : null);
            $this->session->data->close();
            $this->session->reply(226, 'Complete');
        } catch (ClosedException|StreamException) {
            throw new Reply('The data connection broke', 426);
        } finally {
            fclose($stream);
            clearstatcache(true, $real);
            $account->addUsed($kept);
        }
    }

    private function takeRestart(): int
    {
        $offset = $this->session->restartAt;
        $this->session->restartAt = 0;

        return $offset;
    }
}
