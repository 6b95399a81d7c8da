<?php

declare(strict_types=1);

namespace App\Providers;

use App\Accounts\LeftPassword;
use App\Accounts\LeftToken;
use App\Backups\TakeBackup;
use App\Errands\ErrandRecovery;
use App\Failure\Problem;
use App\Files\ChangeRecovery;
use App\Files\FileWorkers;
use App\FtpUsers\CarryOutBulk;
use App\Hosting\AskingHosts;
use App\Hosting\Connections;
use App\Http\Middleware\SlowRequests;
use App\Packages\KnownSites;
use App\Packages\Types;
use App\People\Access;
use App\Plans\MakePlan;
use App\Runs\CarryOutDeployment;
use App\Runs\TidyDeployment;
use App\Storage\RunLimits;
use App\Storage\Spool;
use App\Storage\Stores;
use App\Text\Breakable;
use App\Text\DisplayText;
use App\Text\When;
use App\Watch\MailFiles;
use App\Watch\Recovery;
use App\Work\FairQueueConnector;
use App\Work\RecoversForgotten;
use App\Work\RecoversOrphans;
use Carbon\CarbonImmutable;
use Cellarium\Core\Backup\BackupShelf;
use Cellarium\Core\Connection\ConnectionPool;
use Cellarium\Core\Connection\HostSlots;
use Cellarium\Core\Credential\CommonWords;
use Cellarium\Core\Credential\PasswordStrength;
use Cellarium\Core\File\PhpSyntax;
use Cellarium\Core\Package\ArchiveLimits;
use Cellarium\Core\Package\Fit\ClientSites;
use Cellarium\Core\Package\PackageIntake;
use Cellarium\Core\Package\Type\TypeSource;
use Cellarium\Core\Storage\ContentStore;
use Cellarium\Core\Storage\FileLocks;
use Cellarium\Core\Storage\Locks;
use Cellarium\Core\Storage\SealedContentStore;
use Cellarium\Core\Storage\StoreSettings;
use Cellarium\Core\Storage\WorkInProgress;
use Cellarium\Core\Transfer\TransferPools;
use Cellarium\Core\Transfer\WorkerPools;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Mail\MailManager;
use Illuminate\Queue\Worker;
use Illuminate\Support\Facades\Date;
use Illuminate\Support\Facades\Queue;
use Illuminate\Support\ServiceProvider;
use Illuminate\View\Compilers\BladeCompiler;
use Psr\Clock\ClockInterface;
use Symfony\Component\HttpFoundation\BinaryFileResponse;
use Symfony\Component\Process\PhpExecutableFinder;

final class CellariumServiceProvider extends ServiceProvider
{
    public function register(): void
    {
        $var = (string) config('cellarium.var');
        $this->app->singleton(StoreSettings::class, static fn (): StoreSettings => Stores::settings());
        $this->app->singleton(WorkInProgress::class, fn ($app) => $app->make(StoreSettings::class)->work());
        $this->app->singleton(SealedContentStore::class, fn ($app) => new SealedContentStore(
            $app->make(StoreSettings::class)->objects(),
            $app->make(StoreSettings::class)->keys,
            $app->make(WorkInProgress::class),
        ));
        $this->app->alias(SealedContentStore::class, ContentStore::class);
        $this->app->singleton(SlowRequests::class); // It is asked twice: as a request begins and when it has ended.
        $this->app->singleton(Access::class);
        $this->app->singleton(Locks::class, fn () => new FileLocks("$var/locks"));
        $this->app->singleton(AskingHosts::class);
        $this->app->singleton(Spool::class, fn () => new Spool("$var/spool"));
        $this->app->singleton(BackupShelf::class, fn () => new BackupShelf("$var/backups"));
        $this->app->singleton(Connections::class, function () use ($var): Connections {
            $most = max(1, (int) config('cellarium.host_connections'));
            $slots = new HostSlots("$var/locks", $most);

            return new Connections(
                config('cellarium.hosts_file'),
                config('cellarium.authorities'),
                $slots,
                new ConnectionPool(
                    $slots,
                    new HostSlots("$var/locks/resting", max(1, intdiv($most, 4))),
                    idleSeconds: (float) config('cellarium.idle_seconds'),
                ),
                $this->app->make(AskingHosts::class),
            );
        });
        $this->app->singleton(
            PackageIntake::class,
            fn ($app) => new PackageIntake(
                $app->make(ContentStore::class),
                $app->make(ClockInterface::class),
                $app->make(ArchiveLimits::class),
                $app->make(TypeSource::class),
                $app->make(ClientSites::class),
            ),
        );
        $pools = static fn ($app, StoreSettings $store): WorkerPools => new WorkerPools(
            $store,
            $app->make(Connections::class)->slots,
            RunLimits::bytesASecond(),
        );
        $this->app->bind(
            TransferPools::class,
            static fn ($app) => $pools($app, $app->make(StoreSettings::class)->bulk()),
        );
        // Few contents, which nobody flushes at an end.
        $this->app->when(FileWorkers::class)
            ->needs(TransferPools::class)
            ->give(static fn ($app) => $pools($app, $app->make(StoreSettings::class)));
        $this->app->when(Recovery::class)->needs('$orphans')->giveTagged(RecoversOrphans::class);
        $this->app->when(Recovery::class)->needs('$forgotten')->giveTagged(RecoversForgotten::class);
        $this->app->bind(ClientSites::class, KnownSites::class);
        $this->app->singleton(TypeSource::class, static fn (): Types => new Types(resource_path('package-types')));
        $this->app->alias(TypeSource::class, Types::class);
        $this->app->singleton(
            ArchiveLimits::class,
            static fn () => new ArchiveLimits(
                (int) config('cellarium.archive.entries'),
                (int) config('cellarium.archive.bytes'),
                (int) config('cellarium.archive.ratio'),
            ),
        );
        $this->app->singleton(
            PasswordStrength::class,
            static fn () => new PasswordStrength(
                CommonWords::fromText((string) file_get_contents(CommonWords::SHIPPED)),
            ),
        );
        $this->app->bind(PhpSyntax::class, static fn (): PhpSyntax => new PhpSyntax(
            (new PhpExecutableFinder)->find(false) ?: PHP_BINARY,
        ));
        $this->app->bind(
            ClockInterface::class,
            fn () => new class implements ClockInterface
            {
                public function now(): \DateTimeImmutable
                {
                    return CarbonImmutable::now();
                }
            },
        );
    }

    public function boot(): void
    {
        $this->app->tag([
            CarryOutDeployment::class,
            TakeBackup::class,
            MakePlan::class,
            ChangeRecovery::class,
            ErrandRecovery::class,
        ], [RecoversOrphans::class, RecoversForgotten::class]);
        $this->app->tag([
            CarryOutBulk::class,
            TidyDeployment::class,
            LeftPassword::class,
            LeftToken::class,
        ], RecoversForgotten::class);
        Queue::addConnector('fair', fn (): FairQueueConnector => new FairQueueConnector(
            $this->app->make('db'),
            $this->app->make(Locks::class),
        ));
        Queue::before(fn () => $this->app->make(AskingHosts::class)->beginJob());
        Queue::after(fn () => $this->app->make(AskingHosts::class)->endJob());
        Queue::exceptionOccurred(fn () => $this->app->make(AskingHosts::class)->endJob());
        // Nobody pauses workers by a word in the cache, which each would ask for all the time.
        Worker::$pausable = false;
        // Between its jobs a worker closes the connections it no longer uses.
        Queue::looping(function (): void {
            $pool = $this->app->make(Connections::class)->pool;
            $pool->rest();
            $pool->tend();
            // What the last job put into the store is referred to by now.
            $this->app->make(WorkInProgress::class)->end();
            // A database that is away is told of by the worker itself.
            rescue(
                fn () => $this->app->make(Recovery::class)->soon(),
                null,
                static fn (\Throwable $failure): bool => ! Problem::isExpected($failure),
            );
        });
        // Not before a page is shown: on the command line the directory of compiled pages may be missing.
        $this->callAfterResolving('blade.compiler', static function (BladeCompiler $compiler): void {
            $compiler->setEchoFormat('\\'.DisplayText::class.'::escaped(%s)');
            // Fields give back what they were given, to the letter.
            $compiler->directive('exactly', static fn (string $expression): string => "<?php echo e($expression); ?>");
            // Whether whoever looks may go where a link or a button leads: the routes say so, pages have no rules.
            $compiler->if('leads', static fn (string $to, string $method = 'GET'): bool => app(Access::class)
                ->leads($to, $method));
            // Sentences with domains, paths and what servers said in them.
            $compiler->directive(
                'words',
                static fn (string $sentence): string => '<?php echo \\'.Breakable::class."::sentence($sentence); ?>",
            );
        });
        CarbonImmutable::macro('shown', function (string $format): string {
            /** @var CarbonImmutable $this */
            return When::shown($this, $format);
        });
        Access::defineGates();
        // Not before a mail is sent: pages need none of that.
        $this->callAfterResolving('mail.manager', static function (MailManager $mail): void {
            $mail->extend('file', static fn (): MailFiles => new MailFiles(config('cellarium.var').'/mail'));
        });
        // The web server that is named in bin/fastcgi.conf sends files that were spooled by itself.
        BinaryFileResponse::trustXSendfileTypeHeader();
        Date::use(CarbonImmutable::class);
        Model::preventLazyLoading(! $this->app->isProduction() && $this->app->runningUnitTests());
        Model::preventSilentlyDiscardingAttributes();
        Model::preventAccessingMissingAttributes();
    }
}
