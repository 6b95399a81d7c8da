<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Accounts\AccountCheck;
use App\Models\Account;
use App\Problem;
use Cellarium\Core\Connection\Rung;

final class ConnectCommand extends CellariumCommand
{
    protected $signature = 'cellarium:connect {account : its number, label, host, LOGIN@HOST, or the domain of one of its sites} {--json : one JSON object on standard output}';

    protected $description = 'Climb the ladder of an account from its name to its document roots (exit 0 every rung held, 1 one broke)';

    public function handle(AccountCheck $check): int
    {
        $ascent = $check->connect($this->account());
        if ($this->wantsJson()) {
            $this->json([
                'ok' => $ascent->holds(), 'rungs' => array_map(static fn (Rung $rung): array => array_intersect_key($rung->toArray(), array_flip(['name', 'ok', 'evidence', 'cause', 'next'])), $ascent->rungs),
                'latency_ms' => $ascent->latencyMs, 'features' => $ascent->features,
            ]);
        } else {
            foreach ($ascent->rungs as $rung) {
                $this->components->twoColumnDetail("$rung->name: $rung->evidence", $rung->ok ? 'holds' : 'broke');
                $rung->cause === null ?: $this->line("      $rung->cause".($rung->ok ? '' : '.'));
                $rung->next === null ?: $this->line("      $rung->next");
            }
        }

        return $ascent->holds() ? self::PROVEN : self::REFUSED;
    }

    private function account(): Account
    {
        $name = (string) $this->argument('account');
        [$login, $host] = str_contains($name, '@') ? [substr($name, 0, (int) strrpos($name, '@')), substr($name, (int) strrpos($name, '@') + 1)] : [null, null];
        $found = Account::with('client', 'sites')
            ->where(static fn ($query) => $query->where('label', $name)->orWhere('host', $name)->orWhere('login', $name)->orWhereHas('sites', static fn ($sites) => $sites->where('domain', $name))
                ->orWhere(static fn ($both) => $both->where('login', $login)->where('host', $host)))
            ->when(ctype_digit($name), static fn ($query) => $query->orWhere('id', $name))->orderBy('id')->limit(3)->get();
        if ($found->count() > 1) {
            throw new Problem("$name means several accounts: ".$found->map(static fn (Account $account): string => "$account->id ($account->login@$account->host)")->join(', ').'. Give the number.');
        }

        return $found->first() ?? throw new Problem("There is no account $name. Run cellarium:accounts to see which there are.");
    }
}
