<?php

declare(strict_types=1);

namespace Cellarium\Core\Diagnosis;

use Cellarium\Core\Connection\Answer;
use Cellarium\Core\Connection\ConnectionSettings;
use Cellarium\Core\Connection\Endpoint;
use Cellarium\Core\Connection\FailureReason;
use Cellarium\Core\Connection\FtpDialogue;
use Cellarium\Core\Connection\Pin;
use Cellarium\Core\Connection\Protocol;
use Cellarium\Core\Connection\RemoteFailure;

/** Greeting, encryption, sign-in and data connection of an FTP server. */
final readonly class FtpRungs
{
    private const GREETING_SECONDS = 10;

    public function __construct(private ConnectionSettings $settings)
    {
    }

    /**
     * @param  list<string>  $domains  of the account's sites, for a login that lacks its domain
     * @return \Generator<Rung>
     */
    public function climb(Endpoint $endpoint, array $domains, LadderResult $ascent): \Generator
    {
        try {
            $server = FtpDialogue::connect(
                $endpoint->host,
                (string) $endpoint->address,
                $endpoint->port,
                min(self::GREETING_SECONDS, $this->settings->answerSeconds),
                $endpoint->authorities,
            );
        } catch (RemoteFailure $failure) {
            yield Rung::broke('greeting', ucfirst($failure->getMessage()), $failure->reason);

            return;
        }
        try {
            if ($endpoint->protocol === Protocol::FtpsImplicit) {
                yield $this->encryption($server, $endpoint, $ascent, false);
            }
            yield $this->greeting($server->hear(), $server, $endpoint);
            if ($endpoint->protocol !== Protocol::FtpsImplicit) {
                yield $this->encryption($server, $endpoint, $ascent, true);
            }
            yield $this->signIn($server, $endpoint, $domains);
            yield $this->data($server, $endpoint, $ascent);
        } finally {
            $server->close();
        }
    }

    private function greeting(?Answer $answer, FtpDialogue $server, Endpoint $endpoint): Rung
    {
        $port = $endpoint->port;
        if ($answer === null) {
            $silent = $server->isSilent();
            if ($silent && $endpoint->protocol !== Protocol::FtpsImplicit && $server->encrypt(false)) {
                return Rung::broke(
                    'greeting',
                    "Port $port says nothing, but speaks TLS at once",
                    FailureReason::EncryptionDemanded,
                    'This port is for implicit TLS',
                    'Choose implicit TLS for this account.',
                    new Remedy('protocol', Protocol::FtpsImplicit->value),
                );
            }

            return Rung::broke(
                'greeting',
                $silent ? "Port $port says nothing" : "Port $port closes without a word",
                $silent ? FailureReason::TimedOut : FailureReason::TooManyConnections,
                $silent
                    ? 'This is not the port of the FTP service'
                    : 'The server takes no more connections, or bars this address',
            );
        }
        if ($answer->code === 220) {
            return Rung::holds('greeting', "The server greets: {$answer->text()}");
        }
        if ($answer->mentions('/\ASSH-/')) {
            return Rung::broke(
                'greeting',
                "Port $port answers: {$answer->text()}",
                FailureReason::NotUnderstood,
                'This is an SSH server, which speaks SFTP',
                'Choose SFTP for this account.',
                new Remedy('protocol', Protocol::Sftp->value),
            );
        }
        if ($answer->code === 421) {
            return Rung::broke(
                'greeting',
                "The server turns away: {$answer->text()}",
                FailureReason::TooManyConnections,
            );
        }

        return Rung::broke(
            'greeting',
            "Port $port answers: {$answer->text()}",
            FailureReason::NotUnderstood,
            'This is not an FTP server',
            'Check the port.',
        );
    }

    /** @param  bool  $asked whether AUTH TLS comes first */
    private function encryption(FtpDialogue $server, Endpoint $endpoint, LadderResult $ascent, bool $asked): Rung
    {
        if ($endpoint->protocol === Protocol::Ftp) {
            $offers = $server->say('FEAT')?->mentions('/^ ?AUTH TLS/mi') === true;

            return Rung::holds(
                'encryption',
                (string) $endpoint->protocol->exposes(),
                $offers ? 'This server can do TLS: choose FTP over TLS.' : null,
            );
        }
        if ($asked && ($answer = $server->say('AUTH TLS'))?->code !== 234) {
            return Rung::broke(
                'encryption',
                'Asked for TLS, the server said: '.($answer?->text() ?? 'nothing'),
                FailureReason::EncryptionRefused,
                'The server can not do TLS',
                null,
                new Remedy('protocol', Protocol::Ftp->value),
            );
        }
        if (! $server->encrypt($asked) || $server->certificate === null) {
            return Rung::broke(
                'encryption',
                'The TLS handshake failed: '.($server->distrust ?? 'no certificate came'),
                FailureReason::EncryptionRefused,
                'Server and Cellarium have no version or method of TLS in common, or this is not the port for it',
                'Ask the provider which versions of TLS the service has.',
            );
        }

        return $this->identity($server->certificate, $server->chain, $server->distrust, $endpoint, $ascent);
    }

    /** @param  list<string>  $chain */
    private function identity(
        \OpenSSLCertificate $certificate,
        array $chain,
        ?string $distrust,
        Endpoint $endpoint,
        LadderResult $ascent,
    ): Rung {
        $seen = $ascent->identity = Pin::ofCertificate($certificate);
        $facts = openssl_x509_parse($certificate);
        $field = static function (string $part, string $key) use ($facts): string {
            $value = is_array($facts) && is_array($facts[$part] ?? null) ? $facts[$part][$key] ?? null : null;

            return is_string($value) ? $value : '';
        };
        $commonName = $field('subject', 'CN') ?: 'no name';
        $names = explode(', ', str_replace('DNS:', '', $field('extensions', 'subjectAltName')) ?: $commonName);
        $until = is_array($facts) && is_int($facts['validTo_time_t'] ?? null) ? $facts['validTo_time_t'] : 0;
        $about = 'Certificate for '
            .mb_substr($names[0], 0, 100)
            .(count($names) > 1 ? ' and '.(count($names) - 1).' more' : '')
            .', signed by '
            .implode(', that by ', $chain)
            .', good until '
            .gmdate('j M Y', $until)
            .", SHA-256 $seen->fingerprint";
        if ($endpoint->pin !== null) {
            return $endpoint->pin->fits($seen)
                ? Rung::holds(
                    'encryption',
                    "$about; it is the key that was accepted",
                    $distrust === null ? 'It verifies by itself now.' : null,
                    $seen,
                )
                : Rung::broke(
                    'encryption',
                    $about,
                    FailureReason::IdentityChanged,
                    "Accepted was {$endpoint->pin->fingerprint}",
                    null,
                    new Remedy('identity', $seen->fingerprint),
                    $seen,
                );
        }
        if ($distrust !== null) {
            return Rung::broke(
                'encryption',
                $about,
                FailureReason::CertificateUntrusted,
                "The certificate does not verify: $distrust",
                'Compare the fingerprint with the one the provider tells, and accept it, or ask for a certificate '
                    .'that verifies.',
                new Remedy('identity', $seen->fingerprint),
                $seen,
            );
        }

        return Rung::holds('encryption', "$about; verified for $endpoint->host", null, $seen);
    }

    /** @param  list<string>  $domains */
    private function signIn(FtpDialogue $server, Endpoint $endpoint, array $domains): Rung
    {
        $answer = $server->say("USER $endpoint->login");
        if ($answer !== null && $answer->code >= 300 && $answer->code < 400) {
            $answer = $server->say('PASS '.$endpoint->password->reveal());
        }
        if ($answer === null) {
            return $server->isSilent()
                ? Rung::broke('sign-in', 'The server does not answer the sign-in', FailureReason::TimedOut)
                : Rung::broke(
                    'sign-in',
                    'The server hung up instead of answering the sign-in',
                    FailureReason::Disconnected,
                );
        }
        if ($answer->code === 230 || $answer->code === 202) {
            return Rung::holds('sign-in', "Signed in as $endpoint->login: {$answer->text()}");
        }

        return self::refusal(
            'sign-in',
            "The server said: {$answer->text()}",
            self::signInReason($answer, $endpoint),
            $endpoint,
            $domains,
        );
    }

    private static function signInReason(Answer $answer, Endpoint $endpoint): FailureReason
    {
        return match (true) {
            ! $endpoint->protocol->isEncrypted()
                && ($answer->code === 534 || $answer->mentions('/\b(TLS|SSL|'
                    .'encrypt)/i')) => FailureReason::EncryptionDemanded,
            $answer->code === 421,
            $answer->mentions('/too many|maximum|connections/i') => FailureReason::TooManyConnections,
            $answer->code >= 500 => FailureReason::SignInRefused,
            default => FailureReason::NotUnderstood,
        };
    }

    /** @param  list<string>  $domains */
    public static function refusal(
        string $rung,
        string $evidence,
        FailureReason $reason,
        Endpoint $endpoint,
        array $domains,
    ): Rung {
        if ($reason === FailureReason::EncryptionDemanded) {
            return Rung::broke(
                $rung,
                $evidence,
                $reason,
                remedy: new Remedy('protocol', Protocol::FtpsExplicit->value),
            );
        }
        if ($reason === FailureReason::SignInRefused && $domains !== [] && ! str_contains($endpoint->login, '@')) {
            $full = "$endpoint->login@$domains[0]";

            return Rung::broke(
                $rung,
                $evidence,
                $reason,
                'Login or password is not right, or the login is short of its domain',
                'Many hosts want the '
                    ."whole of $full. It is not tried by itself: hosts lock accounts out after wrong sign-ins.",
                new Remedy('login', $full),
            );
        }
        if ($reason === FailureReason::SignInRefused) {
            return Rung::broke(
                $rung,
                $evidence,
                $reason,
                'Login or password is not right',
                'Compare both with the welcome letter, letter by letter, or renew the password at the provider. It is '
                    .'not tried again by itself: hosts lock accounts out.',
            );
        }

        return Rung::broke($rung, $evidence, $reason);
    }

    /** @param  list<string>  $domains */
    public static function fromFailure(string $rung, RemoteFailure $failure, Endpoint $endpoint, array $domains): Rung
    {
        return self::refusal($rung, ucfirst($failure->getMessage()), $failure->reason, $endpoint, $domains);
    }

    private function data(FtpDialogue $server, Endpoint $endpoint, LadderResult $ascent): Rung
    {
        $from = hrtime(true);
        $features = $server->say('FEAT');
        $ascent->latencyMs = (int) round((hrtime(true) - $from) / 1e6);
        $ascent->features = $features?->code === 211 ? array_map(trim(...), array_slice($features->lines, 1, -1)) : [];
        if ($endpoint->active) {
            return Rung::holds(
                'data',
                'The server opens the data connections to this side, as the account says; the listing shows whether '
                    .'they arrive',
            );
        }
        if ($endpoint->protocol->usesTls()) {
            $server->say('PBSZ 0');
            $server->say('PROT P');
        }
        $answer = $server->say('EPSV');
        if ($answer?->code === 229 && preg_match('/\(\|\|\|(\d{1,5})\|\)/', $answer->text(), $match) === 1) {
            return $this->passive($server, (int) $match[1], 'EPSV', null, (string) $endpoint->address);
        }
        $answer = $server->say('PASV');
        if (
            $answer?->code !== 227
            || preg_match(
                '/(\d{1,3}),(\d{1,3}),(\d{1,3}),(\d{1,3}),(\d{1,3}),(\d{1,3})/',
                $answer->text(),
                $match,
            ) !== 1
        ) {
            return Rung::broke(
                'data',
                'Asked for a data connection, the server said: '.($answer?->text() ?? 'nothing'),
                FailureReason::NotUnderstood,
                'The server has no passive mode',
                'Ask the provider for passive mode.',
            );
        }

        return $this->passive(
            $server,
            (int) $match[5] * 256 + (int) $match[6],
            'PASV',
            "$match[1].$match[2].$match[3].$match[4]",
            (string) $endpoint->address,
        );
    }

    private function passive(FtpDialogue $server, int $port, string $command, ?string $named, string $address): Rung
    {
        if (! $server->reaches($port)) {
            return Rung::broke(
                'data',
                "$command named port $port, which does not answer at $address",
                FailureReason::Unreachable,
                'A firewall lets the control connection through and not the data connections',
                'Ask the provider to open the range of passive ports, and look at the firewall on this side.',
            );
        }
        $remark = null;
        if ($named !== null && $named !== $address) {
            $private =
                filter_var($named, FILTER_VALIDATE_IP, FILTER_FLAG_NO_PRIV_RANGE | FILTER_FLAG_NO_RES_RANGE) === false;
            $remark = 'The server names '
                .($private ? 'the private address' : 'another address,')
                ." $named for data; $address, where the control connection goes, is used instead.";
        }

        return Rung::holds('data', "A data connection opens ($command, port $port)", $remark);
    }
}
