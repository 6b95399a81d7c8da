<?php

declare(strict_types=1);

namespace Cellarium\Standin\Ftp;

/** Signing in, encryption, what the server can do, and the parameters of transfers. */
final readonly class SessionCommands
{
    public function __construct(private FtpSession $session)
    {
    }

    /** @return array<string, \Closure(string): void> by verb */
    public function handlers(): array
    {
        $say = fn (int $code, string $text): \Closure => function (string $argument) use ($code, $text): void {
            $this->session->reply($code, $text);
        };

        return [
            'USER' => $this->user(...),
            'PASS' => $this->pass(...),
            'AUTH' => $this->auth(...),
            'PBSZ' => $say(200, 'PBSZ=0'),
            'PROT' => $this->prot(...),
            'CCC' => $say(534, 'The control connection stays encrypted'),
            'FEAT' => $this->features(...),
            'OPTS' => $this->options(...),
            'SYST' => $say(215, 'UNIX Type: L8'),
            'NOOP' => $say(200, 'Ready'),
            'HELP' => $say(214, 'See RFC 959, 2389, 2428, 3659, 4217'),
            'STAT' => $say(211, 'Ready'),
            'QUIT' => $say(221, 'Goodbye'),
            'ALLO' => $say(202, 'Not needed here'),
            'TYPE' => $this->type(...),
            'MODE' => $this->only('S'),
            'STRU' => $this->only('F'),
            'PASV' => $this->passive(...),
            'EPSV' => $this->extendedPassive(...),
            'PORT' => $say(502, 'Only passive connections here'),
            'EPRT' => $say(502, 'Only passive connections here'),
            'REST' => $this->restart(...),
        ];
    }

    private function user(string $name): void
    {
        $this->session->account = null;
        $this->session->login = null;
        $this->session->pendingUser = $name;
        $this->session->reply(331, 'Password, please');
    }

    private function pass(#[\SensitiveParameter] string $password): void
    {
        $session = $this->session;
        $found = $session->pendingUser === '' ? null : $session->world->signIn($session->pendingUser, $password);
        $session->pendingUser = '';
        if ($found === null) {
            throw new Reply('Login or password is not right', 530);
        }
        [$account, $login] = $found;
        if ($account->faults->demandTls && ! $session->encrypted) {
            throw new Reply('Policy requires TLS', 534);
        }
        if ($account->faults->refuse) {
            throw new Reply('Too many connections, try later', 421);
        }
        $scoped = $login->login !== $account->name;
        $lands = $scoped && $account->faults->landHome ? '/' : $login->directory;
        $kept = ! $scoped || ! $account->faults->noJail;
        $root = rtrim($account->home.$lands, '/');
        if (! is_dir($root)) {
            throw new Reply('The directory of this login is gone', 530);
        }
        $session->account = $account;
        $session->login = $login;
        $session->jail = new Jail($kept ? $root : $account->home);
        $session->directory = $kept ? '/' : $lands;
        $session->reply(230, 'Signed in');
    }

    private function auth(string $mechanism): void
    {
        if (! in_array(strtoupper($mechanism), ['TLS', 'TLS-C', 'SSL'], true)) {
            throw new Reply('Only TLS', 504);
        }
        $this->session->reply(234, 'Proceed with TLS');
        $this->session->startTls();
    }

    private function prot(string $level): void
    {
        $level = strtoupper($level);
        if (! $this->session->encrypted) {
            throw new Reply('AUTH TLS first', 503);
        }
        if ($level !== 'P' && $level !== 'C') {
            throw new Reply('P or C', 536);
        }
        $this->session->protectData = $level === 'P';
        $this->session->reply(200, "PROT $level");
    }

    private function features(string $argument): void
    {
        $this->session->reply(
            211,
            'What this server can do',
            'AUTH TLS',
            'EPSV',
            'MDTM',
            'MFMT',
            ...($this->session->faults()->listing === null ? ['MLST type*;size*;modify*;unix.mode*;perm*;'] : []),
            ...['PBSZ', 'PROT', 'REST STREAM', 'SIZE', 'TVFS', 'UTF8', 'End'],
        );
    }

    private function options(string $argument): void
    {
        $known = preg_match('/\A(UTF8 ON|MLST\b.*)\z/i', $argument) === 1;
        $this->session->reply($known ? 200 : 501, $known ? 'Noted' : 'Not an option here');
    }

    private function type(string $type): void
    {
        if (preg_match('/\A(I|A|A N|L 8)\z/i', $type) !== 1) {
            throw new Reply('Types I and A only', 504);
        }
        $this->session->reply(200, "Type $type; bytes go as they are");
    }

    private function only(string $value): \Closure
    {
        return function (string $argument) use ($value): void {
            if (strtoupper($argument) !== $value) {
                throw new Reply("Only $value", 504);
            }
            $this->session->reply(200, "$value it is");
        };
    }

    private function passive(string $argument): void
    {
        $this->session->signedIn();
        $address = $this->session->data->listen();
        if (str_contains($address->getAddress(), ':')) {
            throw new Reply('Use EPSV over IPv6', 425);
        }
        $port = $address->getPort();
        $named = $this->session->faults()->passiveAddress ?? $address->getAddress();
        $this->session->reply(
            227,
            sprintf('Entering Passive Mode (%s,%d,%d)', strtr($named, '.', ','), $port >> 8, $port & 255),
        );
    }

    private function extendedPassive(string $argument): void
    {
        $this->session->signedIn();
        if ($this->session->faults()->passiveAddress !== null) {
            throw new Reply('EPSV is not known here', 502);
        }
        if (strtoupper($argument) === 'ALL') {
            $this->session->reply(200, 'EPSV only from now on');

            return;
        }
        $address = $this->session->data->listen();
        $this->session->reply(229, "Entering Extended Passive Mode (|||{$address->getPort()}|)");
    }

    private function restart(string $offset): void
    {
        if (preg_match('/\A\d{1,15}\z/', $offset) !== 1) {
            throw new Reply('REST takes a number of bytes', 501);
        }
        $this->session->restartAt = (int) $offset;
        $this->session->reply(350, "Next transfer starts at $offset");
    }
}
