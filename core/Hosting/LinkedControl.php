<?php

declare(strict_types=1);

namespace Cellarium\Core\Hosting;

use Cellarium\Core\Credential\Secret;
use Cellarium\Core\Json\JsonFields;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Web\ServiceCaller;

/** Speaks the control protocol, version 1 (docs/control-protocol.md), over HTTP with a bearer token. */
final readonly class LinkedControl implements HostingControl
{
    private ControlService $service;

    /** @param  non-empty-string  $base "https://control.host.example", without a slash at its end */
    public function __construct(string $base, Secret $token, ServiceCaller $web)
    {
        $this->service = new ControlService($base, $token, $web);
    }

    public function space(): Space
    {
        $space = $this->service->ask('asking for the space used', 'GET', '/v1/account')->fields('space');

        return new Space($space->number('used'), $space->number('limit'));
    }

    public function renewPassword(Secret $password): void
    {
        $this->service->ask('renewing the password', 'PATCH', '/v1/account', ['password' => $password->reveal()]);
    }

    public function loginRules(): ?LoginRules
    {
        $account = $this->service->ask('asking for the rules of logins', 'GET', '/v1/account');
        if (! $account->has('ftp_users')) {
            return null; // A host that speaks the protocol's first form.
        }
        try {
            return LoginRules::fromFields($account->fields('ftp_users'));
        } catch (\InvalidArgumentException|\UnexpectedValueException $wrong) {
            throw ControlFailure::while(
                'asking for the rules of logins',
                ControlFault::NotUnderstood,
                $wrong->getMessage(),
            );
        }
    }

    public function ftpUsers(): array
    {
        $what = 'asking for the FTP users';

        return ControlService::understood(
            $what,
            fn (): array => array_map(
                self::user(...),
                $this->service->ask($what, 'GET', '/v1/ftp-users')->each('ftp_users'),
            ),
        );
    }

    public function ftpUser(string $login): ?HostedUser
    {
        $what = "asking for the FTP user $login";
        try {
            $answer = $this->service->ask($what, 'GET', self::at($login));
        } catch (ControlFailure $failure) {
            return $failure->reason === ControlFault::NoSuchUser ? null : throw $failure;
        }

        return ControlService::understood($what, static fn (): HostedUser => self::user($answer));
    }

    public function createFtpUser(
        string $name,
        Secret $password,
        RemotePath $directory,
        ?int $spaceLimit,
        bool $readOnly = false,
    ): HostedUser {
        $what = "creating the FTP user $name";
        $answer = $this->service->ask(
            $what,
            'POST',
            '/v1/ftp-users',
            [
                'name' => $name,
                'password' => $password->reveal(),
                'directory' => $directory->toString(),
                'space_limit' => $spaceLimit,
            ] + ($readOnly ? ['access' => 'read-only'] : []),
        );

        return ControlService::understood($what, static fn (): HostedUser => self::user($answer));
    }

    public function changeFtpUser(string $login, UserChange $change): HostedUser
    {
        $what = "changing the FTP user $login";
        $answer = $this->service->ask($what, 'PATCH', self::at($login), $change->reveal());
        $user = ControlService::understood($what, static fn (): HostedUser => self::user($answer));
        if ($change->open !== null && $user->open !== $change->open) {
            throw ControlFailure::while(
                $what,
                ControlFault::NotUnderstood,
                $user->open ? 'it is still open' : 'it is still closed',
            );
        }

        return $user;
    }

    public function removeFtpUser(string $login): void
    {
        try {
            $this->service->ask("removing the FTP user $login", 'DELETE', self::at($login));
        } catch (ControlFailure $failure) {
            $failure->reason === ControlFault::NoSuchUser || throw $failure;
        }
    }

    private static function at(string $login): string
    {
        return '/v1/ftp-users/'.rawurlencode($login);
    }

    private static function user(JsonFields $fields): HostedUser
    {
        $login = $fields->text('login');
        // What a host calls a user is typed at USER and shown on pages; it is one word or it is refused.
        if (preg_match('/\A[^\x00-\x20\x7f]{1,255}\z/u', $login) !== 1) {
            throw new \UnexpectedValueException('a login that is no word');
        }

        return new HostedUser(
            $login,
            $fields->text('directory'),
            $fields->numberOrNull('space_limit'),
            $fields->textOrNull('access') === 'read-only',
            $fields->flag('open'),
            $fields->textOrNull('last_used'),
        );
    }
}
