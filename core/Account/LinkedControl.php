<?php

declare(strict_types=1);

namespace Cellarium\Core\Account;

use Cellarium\Core\Credential\Secret;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Record\Fields;

/** Speaks the control protocol, version 1 (docs/control-protocol.md), over HTTP with a bearer token. */
final readonly class LinkedControl implements HostingControl
{
    /** @param  non-empty-string  $base "https://control.host.example", without a slash at its end */
    public function __construct(
        private string $base,
        private Secret $token,
        private ?string $authorities = null,
    ) {
    }

    public function space(): Space
    {
        $space = $this->ask('asking for the space used', 'GET', '/v1/account')->fields('space');

        return new Space($space->number('used'), $space->number('limit'));
    }

    public function renewPassword(Secret $password): void
    {
        $this->ask('renewing the password', 'PATCH', '/v1/account', ['password' => $password->reveal()]);
    }

    public function createFtpUser(string $name, Secret $password, RemotePath $directory, ?int $spaceLimit): string
    {
        return $this->ask("creating the FTP user $name", 'POST', '/v1/ftp-users', [
            'name' => $name, 'password' => $password->reveal(), 'directory' => $directory->toString(), 'space_limit' => $spaceLimit,
        ])->text('login');
    }

    public function closeFtpUser(string $login): void
    {
        if ($this->ask("closing the FTP user $login", 'PATCH', '/v1/ftp-users/'.rawurlencode($login), ['open' => false])->flag('open')) {
            throw ControlFailure::while("closing the FTP user $login", ControlFault::NotUnderstood, 'it is still open');
        }
    }

    public function removeFtpUser(string $login): void
    {
        $this->ask("removing the FTP user $login", 'DELETE', '/v1/ftp-users/'.rawurlencode($login));
    }

    /**
     * @param  non-empty-string  $method
     * @param  array<string, mixed>|null  $body
     */
    private function ask(string $what, string $method, string $path, #[\SensitiveParameter] ?array $body = null): Fields
    {
        $curl = curl_init();
        curl_setopt_array($curl, [
            CURLOPT_URL => "$this->base$path",
            CURLOPT_PROTOCOLS => CURLPROTO_HTTP | CURLPROTO_HTTPS,
            CURLOPT_CUSTOMREQUEST => $method,
            CURLOPT_RETURNTRANSFER => true,
            CURLOPT_CONNECTTIMEOUT => 10,
            CURLOPT_TIMEOUT => 30,
            CURLOPT_PROXY => '',
            CURLOPT_HTTPHEADER => ['Authorization: Bearer '.$this->token->reveal(), 'Content-Type: application/json', 'Accept: application/json'],
        ] + ($body === null ? [] : [CURLOPT_POSTFIELDS => json_encode($body, JSON_THROW_ON_ERROR | JSON_UNESCAPED_SLASHES)])
          + ($this->authorities === null || $this->authorities === '' ? [] : [CURLOPT_CAINFO => $this->authorities]));
        $text = curl_exec($curl);
        $status = curl_getinfo($curl, CURLINFO_RESPONSE_CODE);
        if (! is_string($text)) {
            throw ControlFailure::while($what, ControlFault::Unreachable, curl_error($curl));
        }
        if ($status === 204) {
            return new Fields([]);
        }
        try {
            $answer = Fields::fromJson($text);
            if ($status >= 400) {
                throw ControlFailure::while($what, ControlFault::tryFrom($answer->text('error')) ?? ControlFault::NotUnderstood, $answer->text('message'));
            }

            return $answer;
        } catch (\UnexpectedValueException $wrong) {
            throw ControlFailure::while($what, ControlFault::NotUnderstood, $wrong->getMessage());
        }
    }
}
