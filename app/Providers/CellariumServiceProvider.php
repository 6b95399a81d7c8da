<?php

declare(strict_types=1);

namespace App\Providers;

use App\Hosting\Connections;
use Carbon\CarbonImmutable;
use Cellarium\Core\Backup\BackupShelf;
use Cellarium\Core\Backup\ContentStore;
use Cellarium\Core\Backup\FileContentStore;
use Cellarium\Core\Package\ArchiveLimits;
use Cellarium\Core\Package\PackageIntake;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Support\Facades\Date;
use Illuminate\Support\ServiceProvider;
use Psr\Clock\ClockInterface;

final class CellariumServiceProvider extends ServiceProvider
{
    public function register(): void
    {
        $var = (string) config('cellarium.var');
        $this->app->singleton(ContentStore::class, fn () => new FileContentStore("$var/contents"));
        $this->app->singleton(BackupShelf::class, fn () => new BackupShelf("$var/backups"));
        $this->app->singleton(Connections::class, fn () => new Connections(config('cellarium.hosts_file'), config('cellarium.authorities')));
        $this->app->singleton(PackageIntake::class, fn ($app) => new PackageIntake($app->make(ContentStore::class), new ArchiveLimits(
            (int) config('cellarium.archive.entries'), (int) config('cellarium.archive.bytes'), (int) config('cellarium.archive.ratio'),
        )));
        $this->app->bind(ClockInterface::class, fn () => new class implements ClockInterface
        {
            public function now(): \DateTimeImmutable
            {
                return CarbonImmutable::now();
            }
        });
    }

    public function boot(): void
    {
        Date::use(CarbonImmutable::class);
        Model::preventLazyLoading(! $this->app->isProduction() && $this->app->runningUnitTests());
        Model::preventSilentlyDiscardingAttributes();
        Model::preventAccessingMissingAttributes();
    }
}
