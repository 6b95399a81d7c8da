<?php

declare(strict_types=1);

namespace Cellarium\Standin\Web;

use Amp\CancelledException;
use Amp\Process\Process;
use Amp\TimeoutCancellation;
use Cellarium\Standin\Http\Request;
use Cellarium\Standin\Http\Response;

use function Amp\async;
use function Amp\ByteStream\buffer;

/** Runs a site's PHP file through php-cgi (RFC 3875), one process a request. */
final readonly class PhpRunner
{
    private const SECONDS = 20;

    public function __construct(private string $program = 'php-cgi')
    {
    }

    public function run(Request $request, string $file): Response
    {
        $process = Process::start(
            [$this->program, '-d', 'cgi.force_redirect=0', '-d', 'display_errors=1'],
            dirname($file),
            [
                'PATH' => '/usr/bin:/bin',
                'GATEWAY_INTERFACE' => 'CGI/1.1',
                'SERVER_PROTOCOL' => 'HTTP/1.1',
                'SERVER_NAME' => $request->host(),
                'HTTP_HOST' => $request->header('host'),
                'HTTP_COOKIE' => $request->header('cookie'),
                'REQUEST_METHOD' => $request->method,
                'REQUEST_URI' => $request->path.($request->query === '' ? '' : "?$request->query"),
                'SCRIPT_NAME' => $request->path,
                'SCRIPT_FILENAME' => $file,
                'QUERY_STRING' => $request->query,
                'CONTENT_TYPE' => $request->header('content-type'),
                'CONTENT_LENGTH' => (string) strlen($request->body),
            ],
        );
        $errors = async(fn (): string => buffer($process->getStderr()));
        $process->getStdin()->write($request->body);
        $process->getStdin()->end();
        try {
            $output = buffer($process->getStdout(), new TimeoutCancellation(self::SECONDS));
            $process->join(new TimeoutCancellation(self::SECONDS));
        } catch (CancelledException) {
            $process->kill();

            return Response::text(503, 'The page took too long.');
        }
        $errors->await();
        [$head, $body] = explode("\r\n\r\n", $output, 2) + [1 => ''];
        $headers = [];
        $status = 200;
        foreach (explode("\r\n", $head) as $line) {
            [$name, $value] = explode(':', $line, 2) + [1 => ''];
            strtolower($name) === 'status' ? $status = (int) $value : $headers[$name] = trim($value);
        }

        return new Response($status, $body, $headers);
    }
}
