<?php

declare(strict_types=1);

namespace Cellarium\Standin\Http;

use Amp\ByteStream\BufferedReader;
use Amp\ByteStream\BufferException;
use Amp\ByteStream\ClosedException;
use Amp\ByteStream\StreamException;
use Amp\CancelledException;
use Amp\Socket\BindContext;
use Amp\Socket\ResourceServerSocket;
use Amp\Socket\Socket;
use Amp\TimeoutCancellation;

use function Amp\async;
use function Amp\Socket\listen;

/** HTTP/1.1 with kept connections, as much of RFC 9112 as a small site and the control service need. */
final class HttpService
{
    private const MAX_HEAD = 16384;

    private const MAX_BODY = 1048576;

    private readonly ResourceServerSocket $server;

    /** @param  \Closure(Request): Response  $answer */
    public function __construct(string $address, private readonly \Closure $answer)
    {
        $this->server = listen($address, (new BindContext)->withTcpNoDelay()->withBacklog(256));
    }

    public function run(): void
    {
        async(function (): void {
            while ($socket = $this->server->accept()) {
                async($this->serve(...), $socket)->ignore();
            }
        })->ignore();
    }

    public function address(): string
    {
        return $this->server->getAddress()->toString();
    }

    private function serve(Socket $socket): void
    {
        $reader = new BufferedReader($socket);
        try {
            do {
                $request = $this->read($reader);
                if ($request instanceof Response) {
                    $socket->write($request->message(false));
                    break;
                }
                try {
                    $response = ($this->answer)($request);
                } catch (\Throwable $fault) {
                    fwrite(STDERR, 'standin: '.$fault->getMessage()."\n");
                    $response = Response::text(500, 'The stand-in failed; its standard error says how.');
                }
                if ($response->status === Response::LOST) {
                    break;
                }
                $socket->write($response->message($request->method === 'HEAD'));
            } while (strtolower($request->header('connection')) !== 'close');
        } catch (ClosedException|StreamException|CancelledException|BufferException) {
            // The peer is gone or silent.
        } finally {
            $socket->close();
        }
    }

    private function read(BufferedReader $reader): Request|Response
    {
        $head = $reader->readUntil("\r\n\r\n", new TimeoutCancellation(60), self::MAX_HEAD);
        $lines = explode("\r\n", $head);
        if (preg_match('#\A([A-Z]+) (/[^ ?]*)(?:\?([^ ]*))? HTTP/1\.[01]\z#', array_shift($lines), $start) !== 1) {
            return Response::text(400, 'Not a request that is understood here.');
        }
        $headers = [];
        foreach ($lines as $line) {
            [$name, $value] = explode(':', $line, 2) + [1 => ''];
            $headers[strtolower($name)] = trim($value);
        }
        $length = (int) ($headers['content-length'] ?? 0);
        if ($length > self::MAX_BODY || isset($headers['transfer-encoding'])) {
            return Response::text(413, 'The body is too large.');
        }
        $body = $length > 0 ? $reader->readLength($length, new TimeoutCancellation(60)) : '';

        return new Request($start[1], $start[2], $start[3] ?? '', $headers, $body);
    }
}
