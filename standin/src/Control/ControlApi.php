<?php

declare(strict_types=1);

namespace Cellarium\Standin\Control;

use Cellarium\Standin\Ftp\Jail;
use Cellarium\Standin\Http\Request;
use Cellarium\Standin\Http\Response;
use Cellarium\Standin\Jobs\Databases;
use Cellarium\Standin\Jobs\FileJobs;
use Cellarium\Standin\World\Faults;
use Cellarium\Standin\World\FtpLogin;
use Cellarium\Standin\World\HostedAccount;
use Cellarium\Standin\World\HostedSite;
use Cellarium\Standin\World\World;
use InvalidArgumentException;

use function Amp\delay;

/**
 * The control protocol, version 1, as `docs/control-protocol.md` and `docs/control-protocol.openapi.yaml` describe it.
 *
 * Each account has a bearer token of its own; the operator's token switches faults on and off and is not part of
 * the protocol.
 */
final readonly class ControlApi
{
    private const LONGEST_NAME = 32;

    private const MOST_USERS = 100;

    private FileJobs $jobs;

    public function __construct(private World $world, private int $ftpPort)
    {
        $this->jobs = new FileJobs;
    }

    public function answer(Request $request): Response
    {
        $token = preg_match('/\ABearer ([A-Za-z0-9._~+\/=-]+)\z/i', $request->header('authorization'), $match) === 1
            ? $match[1]
            : '';
        if (preg_match('#\A/operator/faults/([^/]+)\z#', $request->path, $path) === 1) {
            return hash_equals($this->world->operatorToken, $token)
                ? $this->faults($request, rawurldecode($path[1]))
                : $this->unauthorized();
        }
        $account = $token === '' ? null : $this->world->accountByToken($token);
        if ($account === null) {
            return $this->unauthorized();
        }
        $answer = $account->faults->controlFails
            ? $this->problem(500, 'failed', 'Something went wrong here; nothing was changed.')
            : $this->answerFor($account, $request);
        if ($account->faults->controlDelayMs > 0) {
            delay($account->faults->controlDelayMs / 1000);
        }

        return $account->faults->loseAnswer && $request->method !== 'GET' ? new Response(Response::LOST) : $answer;
    }

    private function answerFor(HostedAccount $account, Request $request): Response
    {
        if ($request->path === '/v1/account') {
            return match ($request->method) {
                'GET' => Response::json(200, $this->facts($account)),
                'PATCH' => $this->renew($account, $request),
                default => $this->notAllowed(),
            };
        }
        if ($request->path === '/v1/ftp-users') {
            return match ($request->method) {
                'GET' => Response::json(200, [
                    'ftp_users' => array_map(
                        static fn (FtpLogin $user): array => $user->shown(),
                        array_values($this->scoped($account)),
                    ),
                ]),
                'POST' => $this->create($account, $request),
                default => $this->notAllowed(),
            };
        }
        if (preg_match('#\A/v1/ftp-users/([^/]+)\z#', $request->path, $path) === 1) {
            return $this->one($account, $request, rawurldecode($path[1]));
        }

        if (preg_match('#\A/v1/jobs/([a-z0-9-]{8,64})\z#', $request->path, $path) === 1 && ! $account->faults->noJobs) {
            return $this->job($account, $request, $path[1]);
        }

        return $this->problem(404, 'not_found', 'There is nothing at this address.');
    }

    private function job(HostedAccount $account, Request $request, string $id): Response
    {
        if ($request->method === 'GET') {
            $job = $this->jobs->find($account, $id);

            return $job === null
                ? $this->problem(404, 'no_such_job', "There is no job $id.")
                : Response::json(200, $job->shown());
        }
        if ($request->method !== 'PUT') {
            return $this->notAllowed();
        }
        try {
            return Response::json(202, $this->jobs->begin($account, $id, new Body($request->body))->shown());
        } catch (InvalidArgumentException $wrong) {
            return $this->problem(422, 'invalid', $wrong->getMessage());
        }
    }

    /** @return array<string, mixed> */
    private function facts(HostedAccount $account): array
    {
        return [
            'account' => $account->name,
            'host' => $account->host,
            'ftp_port' => $this->ftpPort,
            'sites' => array_map(static fn (HostedSite $site): array => $site->toArray(), $account->sites),
            'space' => ['used' => $account->used(), 'limit' => $account->spaceLimit()],
            'ftp_users' => [
                'login' => '{name}@'.$account->domain(),
                'signs' => 'a-z0-9._-',
                'longest' => self::LONGEST_NAME,
                'most' => self::MOST_USERS,
                'read_only' => true,
            ],
        ] + ($account->faults->noJobs ? [] : [
            'jobs' => FileJobs::KINDS,
            'databases' => (new Databases($account))->all(),
        ]);
    }

    private function renew(HostedAccount $account, Request $request): Response
    {
        try {
            $account->users[$account->name]->passwordHash = $this->world->hashPassword(
                $this->password((new Body($request->body))->text('password')),
            );
        } catch (InvalidArgumentException $wrong) {
            return $this->problem(422, 'invalid', $wrong->getMessage());
        }
        $this->world->save();

        return Response::json(200, $this->facts($account));
    }

    /** @return array<string, FtpLogin> the account's own login is not one of its FTP users */
    private function scoped(HostedAccount $account): array
    {
        return array_filter($account->users, static fn (FtpLogin $user): bool => $user->login !== $account->name);
    }

    private function create(HostedAccount $account, Request $request): Response
    {
        try {
            $body = new Body($request->body);
            $name = $body->text('name');
            if (preg_match('/\A[a-z0-9][a-z0-9._-]*\z/', $name) !== 1 || strlen($name) > self::LONGEST_NAME) {
                throw new InvalidArgumentException('name: 1 to 32 of a-z, 0-9, dot, hyphen, underscore');
            }
            $login = $name.'@'.$account->domain();
            if ($this->world->loginExists($login)) {
                return $this->problem(409, 'login_exists', "$login exists already.");
            }
            if (count($this->scoped($account)) >= self::MOST_USERS) {
                return $this->problem(409, 'too_many', 'There are '.self::MOST_USERS.' FTP users already.');
            }
            $user = new FtpLogin(
                $login,
                '',
                $this->directory($account, $body->text('directory')),
                $body->number('space_limit'),
                readOnly: $this->readOnly($body),
            );
            $user->passwordHash = $this->world->hashPassword($this->password($body->text('password')));
        } catch (InvalidArgumentException $wrong) {
            return $this->problem(422, 'invalid', $wrong->getMessage());
        }
        $this->give($account, $user);
        $account->users[$login] = $user;
        $this->world->save();

        return Response::json(201, $user->shown());
    }

    private function one(HostedAccount $account, Request $request, string $login): Response
    {
        $user = $this->scoped($account)[$login] ?? null;
        if ($user === null) {
            return $this->problem(404, 'no_such_user', "There is no FTP user $login in this account.");
        }
        if ($request->method === 'GET') {
            return Response::json(200, $user->shown());
        }
        if ($request->method === 'DELETE') {
            $user->open = false;
            unset($account->users[$login]);
            $this->world->save();

            return new Response(204);
        }
        if ($request->method !== 'PATCH') {
            return $this->notAllowed();
        }
        try {
            $this->change($account, $user, new Body($request->body));
        } catch (InvalidArgumentException $wrong) {
            return $this->problem(422, 'invalid', $wrong->getMessage());
        }
        $this->world->save();

        return Response::json(200, $user->shown());
    }

    private function change(HostedAccount $account, FtpLogin $user, Body $body): void
    {
        $directory = $body->has('directory') ? $this->directory($account, $body->text('directory')) : $user->directory;
        $space = $body->has('space_limit') ? $body->number('space_limit') : $user->spaceLimit;
        $hash = $body->has('password')
            ? $this->world->hashPassword($this->password($body->text('password')))
            : $user->passwordHash;
        $readOnly = $body->has('access') ? $this->readOnly($body) : $user->readOnly;
        $open = $body->has('open') ? $body->flag('open') : $user->open;
        $user->closesAt = $user->open && ! $open ? microtime(true) + $account->faults->closeLate : $user->closesAt;
        $user->open = $open;
        $user->readOnly = $readOnly;
        $user->directory = $directory;
        $user->spaceLimit = $space;
        $user->passwordHash = $hash;
        $this->give($account, $user);
    }

    /** What the host gives beyond what was asked, where it is made to. */
    private function give(HostedAccount $account, FtpLogin $user): void
    {
        if ($account->faults->moreThanAsked) {
            $user->spaceLimit = null;
            $user->readOnly = false;
        }
    }

    private function readOnly(Body $body): bool
    {
        return match ($body->has('access') ? $body->text('access') : 'read-write') {
            'read-only' => true,
            'read-write' => false,
            default => throw new InvalidArgumentException('access: read-only or read-write'),
        };
    }

    private function directory(HostedAccount $account, string $path): string
    {
        $jail = new Jail($account->home);
        $virtual = str_starts_with($path, '/') ? $jail->virtual('/', $path) : null;
        $real = $virtual === null ? null : $jail->real($virtual);
        if ($virtual === null || $real === null || ! is_dir($real)) {
            throw new InvalidArgumentException('directory: not a directory of this account');
        }

        return $virtual;
    }

    private function password(#[\SensitiveParameter] string $password): string
    {
        return strlen($password) >= 12 && strlen($password) <= 128
            ? $password
            : throw new InvalidArgumentException('password: 12 to 128 bytes');
    }

    private function faults(Request $request, string $name): Response
    {
        $account = $this->world->account($name);
        if ($account === null) {
            return $this->problem(404, 'no_such_account', "There is no account $name.");
        }
        if ($request->method === 'PUT') {
            try {
                $account->faults = Faults::fromArray((new Body($request->body))->values);
            } catch (InvalidArgumentException $wrong) {
                return $this->problem(422, 'invalid', $wrong->getMessage());
            }
            $this->world->save();
        }

        return Response::json(200, $account->faults->toArray());
    }

    private function unauthorized(): Response
    {
        return $this->problem(401, 'unauthorized', 'The bearer token is missing or not right.');
    }

    private function notAllowed(): Response
    {
        return $this->problem(405, 'method_not_allowed', 'This method means nothing here.');
    }

    private function problem(int $status, string $code, string $text): Response
    {
        return Response::json($status, ['error' => $code, 'message' => $text]);
    }
}
