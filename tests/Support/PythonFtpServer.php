<?php

declare(strict_types=1);

namespace Tests\Support;

use Cellarium\Core\Connection\Endpoint;
use Cellarium\Core\Connection\Protocol;
use Cellarium\Core\Credential\Secret;
use RuntimeException;

/**
 * Debian's pyftpdlib: a server nobody here wrote, plain or with TLS.
 *
 * One thing is bent: libcurl 7.88 starts the TLS handshake of a data connection before it sends the command that uses
 * it, and pyftpdlib 1.5.7 takes bytes that come before the command for the end of the connection. It is made to wait.
 */
final class PythonFtpServer
{
    private const PROGRAM = <<<'PY'
    import sys
    from pyftpdlib.authorizers import DummyAuthorizer
    from pyftpdlib.handlers import FTPHandler, TLS_DTPHandler, TLS_FTPHandler
    from pyftpdlib.servers import FTPServer
    class PatientDataConnection(TLS_DTPHandler):
        def readable(self):
            if self._ssl_accepting or not (self.receive or self._initialized):
                return self._ssl_accepting
            return super().readable()
    home, certificate, most, unlisted, masquerade = sys.argv[1], sys.argv[2], int(sys.argv[3]), sys.argv[4], sys.argv[5]
    authorizer = DummyAuthorizer()
    authorizer.add_user('harbour', 'Tide-table-4711-Known', home, perm='elradfmwMT')
    handler = TLS_FTPHandler if certificate else FTPHandler
    handler.authorizer = authorizer
    handler.proto_cmds = {verb: facts for verb, facts in handler.proto_cmds.items() if verb not in unlisted.split()}
    handler.masquerade_address = masquerade or None
    if certificate:
        handler.dtp_handler = PatientDataConnection
        handler.certfile = certificate
        handler.tls_control_required = True
        handler.tls_data_required = True
    server = FTPServer(('127.0.0.1', 0), handler)
    server.max_cons = most
    print(server.socket.getsockname()[1], flush=True)
    server.serve_forever()
    PY;

    /** @var resource */
    private $process;

    public readonly int $port;

    /**
     * @param  string  $certificate  PEM with certificate and key, "" for plain FTP
     * @param  string  $unknown  verbs it does not know, with blanks between
     * @param  string  $passiveAddress  what PASV names instead of the right address
     */
    public function __construct(
        string $home,
        private readonly string $certificate,
        private readonly ?string $authorities,
        int $mostConnections = 100,
        string $unknown = '',
        string $passiveAddress = '',
    ) {
        $process = proc_open(
            [
                '/usr/bin/python3',
                '-W',
                'ignore',
                '-c',
                self::PROGRAM,
                $home,
                $certificate,
                (string) $mostConnections,
                $unknown,
                $passiveAddress,
            ],
            [1 => ['pipe', 'w'], 2 => ['file', '/dev/null', 'w']],
            $pipes,
        );
        $line = $process === false ? false : fgets($pipes[1]);
        if ($process === false || $line === false) {
            throw new RuntimeException('pyftpdlib did not start; install python3-pyftpdlib and python3-openssl.');
        }
        $this->process = $process;
        $this->port = (int) $line;
    }

    public function endpoint(): Endpoint
    {
        return new Endpoint(
            StandinHost::HOST,
            $this->port,
            $this->certificate === '' ? Protocol::Ftp : Protocol::FtpsExplicit,
            'harbour',
            new Secret(StandinHost::PASSWORD),
            '127.0.0.1',
            $this->authorities,
        );
    }

    public function stop(): void
    {
        proc_terminate($this->process, SIGKILL);
        proc_close($this->process);
    }
}
