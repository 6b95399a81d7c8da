<?php

declare(strict_types=1);

namespace Cellarium\Standin\Http;

final readonly class Response
{
    /** In place of a status: the connection is closed and nothing is said. */
    public const LOST = 0;

    /** @param  array<string, string>  $headers */
    public function __construct(
        public int $status,
        public string $body = '',
        public array $headers = [],
    ) {
    }

    public static function text(int $status, string $text): self
    {
        return new self($status, $text."\n", ['Content-Type' => 'text/plain; charset=utf-8']);
    }

    public static function html(int $status, string $title, string $inner): self
    {
        $title = htmlspecialchars($title);

        return new self(
            $status,
            '<!doctype html><html lang="en"><meta '
                ."charset=\"utf-8\"><title>$title</title><h1>$title</h1>$inner</html>\n",
            ['Content-Type' => 'text/html; charset=utf-8'],
        );
    }

    /** @param  array<mixed>  $data */
    public static function json(int $status, array $data): self
    {
        return new self($status, json_encode($data, JSON_UNESCAPED_SLASHES | JSON_THROW_ON_ERROR)."\n", [
            'Content-Type' => 'application/json',
        ]);
    }

    /** The bytes of the message (RFC 9112); without its body for HEAD. */
    public function message(bool $head): string
    {
        $reason = [
            200 => 'OK',
            201 => 'Created',
            204 => 'No Content',
            301 => 'Moved Permanently',
            304 => 'Not Modified',
            400 => 'Bad Request',
            401 => 'Unauthorized',
            403 => 'Forbidden',
            404 => 'Not Found',
            405 => 'Method Not Allowed',
            409 => 'Conflict',
            413 => 'Content Too Large',
            422 => 'Unprocessable Content',
            500 => 'Internal Server Error',
            502 => 'Bad Gateway',
            503 => 'Service Unavailable',
        ][$this->status] ?? 'Status';
        $out = "HTTP/1.1 $this->status $reason\r\n";
        foreach (
            $this->headers + [
                'Date' => gmdate('D, d M Y H:i:s').' GMT',
                'Content-Length' => (string) strlen($this->body),
            ] as $name => $value
        ) {
            $out .= "$name: ".str_replace(["\r", "\n"], '', $value)."\r\n";
        }

        return "$out\r\n".($head ? '' : $this->body);
    }
}
