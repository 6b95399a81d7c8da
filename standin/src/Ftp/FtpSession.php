<?php

declare(strict_types=1);

namespace Cellarium\Standin\Ftp;

use Amp\ByteStream\BufferedReader;
use Amp\ByteStream\BufferException;
use Amp\ByteStream\ClosedException;
use Amp\ByteStream\StreamException;
use Amp\CancelledException;
use Amp\Future;
use Amp\Socket\BindContext;
use Amp\Socket\ResourceSocket;
use Amp\Socket\TlsException;
use Amp\TimeoutCancellation;
use Cellarium\Standin\World\Faults;
use Cellarium\Standin\World\FtpLogin;
use Cellarium\Standin\World\HostedAccount;
use Cellarium\Standin\World\World;

use function Amp\async;
use function Amp\delay;

/**
 * One control connection: reads commands, keeps what they set, sends replies (RFC 959, 2389, 2428, 3659, 4217).
 *
 * A transfer runs beside the command loop, so that ABOR is heard while it lasts.
 */
final class FtpSession
{
    private const CHANGING = [
        'STOR',
        'APPE',
        'STOU',
        'DELE',
        'MKD',
        'XMKD',
        'RMD',
        'XRMD',
        'RNFR',
        'RNTO',
        'MFMT',
        'SITE',
    ];

    public ?HostedAccount $account = null;

    public ?FtpLogin $login = null;

    public ?Jail $jail = null;

    public string $directory = '/';

    public string $pendingUser = '';

    public int $restartAt = 0;

    public ?string $renameFrom = null;

    public bool $encrypted = false;

    public bool $protectData = false;

    public int $payloadBytes = 0;

    public readonly DataChannel $data;

    private BufferedReader $reader;

    private int $commands = 0;

    /** @var Future<void>|null */
    private ?Future $transfer = null;

    /** @var array<string, \Closure(string): void> */
    private array $handlers;

    public function __construct(
        public readonly World $world,
        private readonly ResourceSocket $socket,
        BindContext $bind,
        private readonly int $idleSeconds,
    ) {
        $this->reader = new BufferedReader($socket);
        $this->data = new DataChannel($this, $socket, $bind);
        $this->handlers = (new SessionCommands($this))->handlers()
            + (new FileCommands($this))->handlers()
            + (new TransferCommands($this))->handlers();
    }

    /** @param  bool  $encryptedFirst implicit TLS: the handshake comes before the greeting */
    public function run(bool $encryptedFirst = false): void
    {
        try {
            if ($encryptedFirst) {
                $this->startTls();
            }
            $this->reply(220, 'Harbour file service ready');
            while (($line = $this->readLine()) !== null) {
                if (! $this->obey($line)) {
                    break;
                }
            }
        } catch (ClosedException|StreamException|TlsException|CancelledException) {
            // The peer went away or was cut off; there is nobody left to tell.
        } finally {
            $this->data->close();
            $this->socket->close();
        }
    }

    public function reply(int $code, string $text, string ...$more): void
    {
        if ($this->faults()->delayMs > 0) {
            delay($this->faults()->delayMs / 1000);
        }
        $out = $more === [] ? "$code $text\r\n" : "$code-$text\r\n";
        foreach ($more as $index => $line) {
            $out .= $index === count($more) - 1 ? "$code $line\r\n" : " $line\r\n";
        }
        $this->socket->write($out);
    }

    public function startTls(): void
    {
        $this->socket->setupTls(new TimeoutCancellation(15));
        $this->reader = new BufferedReader($this->socket);
        $this->encrypted = true;
    }

    /** @param  \Closure(): void  $work runs beside the command loop; replies by itself */
    public function startTransfer(\Closure $work): void
    {
        $this->transfer = async(function () use ($work): void {
            try {
                $work();
            } catch (Reply $refusal) {
                $this->data->aborted
                    ? $this->reply(426, 'The transfer was aborted')
                    : $this->reply($refusal->getCode(), $refusal->getMessage());
            } finally {
                $this->data->close();
            }
        });
        $this->transfer->ignore();
    }

    /** Counts payload and cuts the whole session where a fault says so. */
    public function countPayload(int $bytes): void
    {
        $this->payloadBytes += $bytes;
        $limit = $this->faults()->dropAfterBytes;
        if ($limit !== null && $this->payloadBytes > $limit) {
            $this->socket->close();
            throw new ClosedException('cut by a fault');
        }
    }

    public function faults(): Faults
    {
        return $this->account === null ? new Faults : $this->account->faults;
    }

    /** @throws Reply 530 */
    public function signedIn(): HostedAccount
    {
        if (
            $this->account === null
            || $this->login === null
            || ! $this->login->letsIn($this->account->faults->closeNever)
        ) {
            throw new Reply('Please sign in first', 530);
        }

        return $this->account;
    }

    /**
     * The virtual and the real path an argument means.
     *
     * @return array{string, string}
     *
     * @throws Reply 530, 550 outside the jail, 553 not a name
     */
    public function path(string $argument): array
    {
        $this->signedIn();
        $jail = $this->jail ?? throw new Reply('Please sign in first', 530);
        $virtual = $jail->virtual($this->directory, $argument) ?? throw Reply::badName();

        return [$virtual, $jail->real($virtual) ?? throw Reply::forbidden($virtual)];
    }

    private function readLine(): ?string
    {
        try {
            $line = rtrim($this->reader->readUntil("\n", new TimeoutCancellation($this->idleSeconds), 8192), "\r");

            // Telnet's interrupt and data mark, which clients send ahead of ABOR (RFC 959, 4.1.3); the mark may be out
            // of band.
            return (string) preg_replace('/\A(?:\xFF[\xF0-\xFA]?)+/', '', $line);
        } catch (CancelledException) {
            $this->reply(421, 'Idle for too long, closing');
        } catch (BufferException $overrun) {
            if (strlen($overrun->getBuffer()) >= 8192) {
                $this->reply(500, 'The line is too long');
            }
        }

        return null;
    }

    private function obey(string $line): bool
    {
        [$verb, $argument] = explode(' ', $line, 2) + [1 => ''];
        $verb = strtoupper($verb);
        $this->commands++;
        if ($verb === 'ABOR') {
            return $this->abort();
        }
        $this->transfer?->await();
        $this->transfer = null;
        $faults = $this->faults();
        if ($faults->hang && ! in_array($verb, ['USER', 'PASS', 'QUIT'], true)) {
            return true;
        }
        if ($faults->dropAfterCommands !== null && $this->commands > $faults->dropAfterCommands) {
            return false;
        }
        try {
            $handler = $this->handlers[$verb] ?? null;
            if ($this->login?->readOnly === true && in_array($verb, self::CHANGING, true)) {
                $this->reply(550, 'This login may only read');
            } elseif ($handler === null) {
                $this->reply(502, "$verb is not known here");
            } else {
                $handler($argument);
            }
        } catch (Reply $refusal) {
            $this->reply($refusal->getCode(), $refusal->getMessage());

            return $refusal->getCode() !== 421;
        }

        return $verb !== 'QUIT';
    }

    private function abort(): bool
    {
        $running = $this->transfer !== null && ! $this->transfer->isComplete();
        $this->data->abort();
        $this->transfer?->await();
        $this->transfer = null;
        $this->reply($running ? 226 : 225, $running ? 'Transfer aborted' : 'Nothing to abort');

        return true;
    }
}
