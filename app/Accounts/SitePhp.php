<?php

declare(strict_types=1);

namespace App\Accounts;

use App\Hosting\Connections;
use App\Models\RecordKind;
use App\Models\Site;
use App\Record\Record;
use Cellarium\Core\Connection\RemoteFailure;
use Cellarium\Core\DocumentRoot\PhpAnswer;
use Cellarium\Core\DocumentRoot\PhpProbe;
use Cellarium\Core\DocumentRoot\ServedSite;
use Cellarium\Core\Path\RemotePath;
use Illuminate\Support\Str;

/** Asks a site which PHP it runs, and writes down what it said. */
final readonly class SitePhp
{
    public function __construct(private Connections $connections, private AccountCheck $check)
    {
    }

    /**
     * @param  RemotePath|null  $served  a directory mounted below the site; null for its document root
     *
     * @throws RemoteFailure
     */
    public function ask(Site $site, ?RemotePath $served = null): PhpAnswer
    {
        $served ??= $site->root();
        $remote = $this->connections->remote($site->account);
        $site->token === null || $this->check->removeToken($site);
        $nonce = strtolower(Str::random(20));
        // Written down first: a program that a killed process left behind is removed later.
        $site->update(['token' => $served->child(PhpProbe::fileName($nonce))->toString()]);
        $answer = PhpProbe::ask(
            new ServedSite(
                $remote,
                $this->connections->web(),
                $site->addresses(),
                $this->connections->endpoint($site->account)->address,
            ),
            $served,
            $nonce,
        );
        $ofSite = $served->equals($site->root()) && $answer->trouble === null;
        $site->update(['token' => null] + ($ofSite ? ['php' => [
            'version' => $answer->version,
            'extensions' => $answer->extensions,
            'asked_at' => now()->toIso8601String(),
        ]] : []));
        Record::write(RecordKind::PhpAsked, self::sentence($site, $answer), $site);

        return $answer;
    }

    public static function sentence(Site $site, PhpAnswer $answer): string
    {
        return match (true) {
            $answer->trouble !== null => "$site->domain did not say which PHP it runs: $answer->trouble",
            $answer->version === null => "$site->domain runs no PHP: it shows programs as they are",
            default => "$site->domain runs PHP $answer->version with ".count($answer->extensions).' extensions',
        };
    }
}
