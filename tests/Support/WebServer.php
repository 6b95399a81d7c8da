<?php

declare(strict_types=1);

namespace Tests\Support;

use RuntimeException;

/** Debian's nginx on loopback, which serves one directory as any host would. */
final class WebServer
{
    public readonly int $port;

    /** @var resource */
    private $process;

    public function __construct(string $directory, string $documentRoot)
    {
        $this->port = FreePort::find();
        $user = posix_geteuid() === 0 ? 'user root;' : '';
        file_put_contents("$directory/nginx.conf", <<<CONF
            daemon off;
            $user
            pid $directory/nginx.pid;
            error_log $directory/nginx.log;
            events { worker_connections 256; }
            http {
                include /etc/nginx/mime.types;
                access_log off;
                client_body_temp_path $directory/t1;
                proxy_temp_path $directory/t2;
                fastcgi_temp_path $directory/t3;
                uwsgi_temp_path $directory/t4;
                scgi_temp_path $directory/t5;
                server {
                    listen 127.0.0.1:$this->port;
                    root $documentRoot;
                    autoindex on;
                }
            }
            CONF);
        $process = proc_open(
            ['/usr/sbin/nginx', '-e', "$directory/nginx.log", '-p', $directory, '-c', "$directory/nginx.conf"],
            [0 => ['file', '/dev/null', 'r'], 1 => ['file', '/dev/null', 'w'], 2 => ['file', '/dev/null', 'w']],
            $pipes,
        );
        $this->process = $process === false ? throw new RuntimeException('nginx did not start.') : $process;
        $until = microtime(true) + 10;
        while (($socket = @stream_socket_client("tcp://127.0.0.1:$this->port")) === false) {
            microtime(true) < $until
                ? usleep(5000)
                : throw new RuntimeException((string) file_get_contents("$directory/nginx.log"));
        }
        fclose($socket);
    }

    public function stop(): void
    {
        Processes::end($this->process);
    }
}
