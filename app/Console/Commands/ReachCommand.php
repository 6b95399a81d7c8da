<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Models\Client;
use App\Models\FtpUser;
use App\Models\FtpUserState;
use App\Reach\FleetScopes;
use Cellarium\Core\People\Permission;
use Cellarium\Core\Reach\Flag;
use Cellarium\Core\Reach\LoginScope;
use Cellarium\Core\Reach\SiteReach;

final class ReachCommand extends CellariumCommand
{
    protected const PERMISSION = Permission::LookAtAgency;

    protected $signature = 'cellarium:reach {account? : only this one: its number, label, host, LOGIN@HOST, or the '
        .'domain of one of its sites} {--json : one JSON list on standard output}';

    protected $description = 'Tell who can touch what over all accounts, those that stand out first';

    public function handle(): int
    {
        $name = $this->argument('account');
        $scopes = FleetScopes::scopes($name === null ? null : [$this->accountNamed((string) $name)->id])->logins;
        if (! $this->wantsJson()) {
            foreach ($scopes as $scope) {
                $this->components->twoColumnDetail(
                    "{$scope->login->login} in {$scope->login->directory}: {$scope->reach->sentence()}",
                    implode(', ', array_map(static fn (Flag $flag): string => $flag->label(), $scope->flags)),
                );
            }
            $scopes !== [] || $this->line('No FTP user is open.');

            return self::PROVEN;
        }
        $users = FtpUser::whereIn(
            'id',
            array_map(static fn (LoginScope $scope): int|string => $scope->login->key, $scopes),
        )
            ->get(['id', 'state', 'ends', 'closes_at', 'ends_reason'])
            ->keyBy('id');
        $clients = Client::pluck('name', 'id');
        $rows = [];
        foreach ($scopes as $scope) {
            $user = $users->get($scope->login->key);
            $user === null
                || ($rows[] = [
                    'account' => $scope->account->key,
                    'login' => $scope->login->login,
                    'directory' => $scope->login->directory->toString(),
                    'open' => $user->state === FtpUserState::Open,
                    'closes' => $user->endsAs(),
                    'sites' => array_map(
                        static fn (SiteReach $site): array => [
                            'site' => $site->domain,
                            'extent' => $site->extent->value,
                        ],
                        $scope->reach->touched(),
                    ),
                    'clients' => array_map(
                        static fn (string $client): string => (string) $clients[(int) $client],
                        $scope->reach->clients(),
                    ),
                    'flags' => array_column($scope->flags, 'value'),
                ]);
        }
        $this->json($rows);

        return self::PROVEN;
    }
}
