<?php

declare(strict_types=1);

namespace Tests\Hosting;

use Cellarium\Core\Storage\ContentKeys;
use Cellarium\Core\Storage\ContentSweep;
use Cellarium\Core\Storage\Mark;
use Cellarium\Core\Storage\S3Objects;
use Cellarium\Core\Storage\S3Settings;
use Cellarium\Core\Storage\SealedContentStore;
use Cellarium\Core\Storage\StoreFailure;
use Cellarium\Core\Storage\StoreFault;
use Cellarium\Core\Storage\StoreSettings;
use PHPUnit\Framework\Attributes\After;
use PHPUnit\Framework\TestCase;
use Tests\Support\DelayingProxy;
use Tests\Support\S3Server;
use Tests\Support\Scratch;

/**
 * The store where contents lie at a server that speaks S3: the same promises as on a disk, and a way to it that breaks.
 */
final class S3StoreTest extends TestCase
{
    use Scratch;

    private S3Server $server;

    private string $served;

    private string $own;

    private ContentKeys $keys;

    protected function setUp(): void
    {
        $this->served = $this->directory();
        $this->server = new S3Server($this->served);
        $this->own = $this->directory();
        $this->keys = ContentKeys::generate();
    }

    #[After]
    protected function stopServer(): void
    {
        $this->server->stop();
    }

    private function settings(?S3Settings $s3 = null): StoreSettings
    {
        return new StoreSettings($this->own, $this->keys, $s3 ?? $this->server->settings());
    }

    private function store(): SealedContentStore
    {
        return $this->settings()->open();
    }

    public function test_contents_are_kept_read_found_again_and_listed(): void
    {
        $store = $this->store();
        $sizes = [0, 10, 70_000, 6_000_000];
        $texts = array_map(static fn (int $size): string => $size === 0 ? '' : random_bytes($size), $sizes);
        $hashes = array_map(static fn (string $text): string => $store->put(str_split($text, 100_000))->sha256, $texts);
        foreach ($texts as $number => $text) {
            self::assertSame($text, $store->text($hashes[$number]));
            self::assertTrue($store->isIntact($hashes[$number], strlen($text)));
        }
        sort($hashes);
        $objects = $this->settings()->objects();
        self::assertSame($hashes, array_keys(iterator_to_array($objects->sizes())));
        self::assertSame([$hashes[3]], array_keys(iterator_to_array($objects->sizes($hashes[3]))));
        self::assertFalse($store->has(hash('sha256', 'nothing')));
        self::assertFalse($store->refresh(hash('sha256', 'nothing')));
        self::assertSame([], glob("$this->own/incoming/*"), 'nothing stays on this machine');
        exec('rm -rf '.escapeshellarg("$this->own/known"));
        self::assertTrue($store->refresh($hashes[0]), 'what this machine has forgotten is asked for');
        self::assertFileExists("$this->own/known/".substr($hashes[0], 0, 2).'/'.substr($hashes[0], 2));
    }

    public function test_what_nothing_refers_to_goes_there_as_well(): void
    {
        $store = $this->store();
        $kept = $store->put(['kept'])->sha256;
        $gone = $store->put(['gone'])->sha256;
        $again = $store->put(['found again'])->sha256;
        unset($store);
        foreach ([$kept, $gone, $again] as $sha256) {
            touch("$this->own/known/".substr($sha256, 0, 2).'/'.substr($sha256, 2), 1_700_000_000);
        }
        self::assertTrue($this->store()->refresh($again));
        $settings = $this->settings();
        $sweep = static fn (int $now) => (new ContentSweep($settings->objects(), $settings->work()))->sweep(
            [$kept],
            time() - 60,
            $now,
            true,
        );
        $swept = $sweep(time());
        self::assertSame(1, $swept->asideFiles);
        self::assertGreaterThan(40, $swept->asideBytes);
        $all = static fn (): array => array_keys(iterator_to_array($settings->objects()->sizes()));
        self::assertEqualsCanonicalizing([$kept, $again], $all());
        self::assertSame('gone', $this->store()->text($gone), 'it is read where it lies aside');
        self::assertTrue($this->store()->refresh($gone));
        self::assertEqualsCanonicalizing([$kept, $again, $gone], $all(), 'and is back');
        self::assertSame([], iterator_to_array($settings->objects()->inAside()));

        foreach ([$gone, $again] as $sha256) {
            touch("$this->own/known/".substr($sha256, 0, 2).'/'.substr($sha256, 2), 1_700_000_000);
        }
        self::assertSame([2, 0], [$sweep(time())->asideFiles, $sweep(time() + 6 * 86400)->deletedFiles]);
        self::assertSame('gone', $this->store()->text($this->store()->put(['gone'])->sha256), 'it is stored again');
        self::assertSame(1, $sweep(time() + 8 * 86400)->deletedFiles);
        self::assertSame([true, true, false], array_map($this->store()->has(...), [$kept, $gone, $again]));
    }

    public function test_a_store_bears_the_mark_of_its_installation(): void
    {
        $objects = $this->settings()->objects();
        $mark = Mark::generate();
        $refused = static function (Mark $mark) use ($objects): string {
            try {
                $objects->mustHave($mark);
            } catch (StoreFailure $failure) {
                return $failure->getMessage();
            }

            return '';
        };
        self::assertStringContainsString('has no mark', $refused($mark));
        $objects->take($mark);
        self::assertSame('', $refused($mark));
        self::assertStringContainsString('another installation', $refused(Mark::generate()));
        self::assertSame([], iterator_to_array($objects->sizes()), 'it is none of the contents');
    }

    public function test_a_store_that_is_away_is_told_as_away_and_nothing_is_called_missing_or_damaged(): void
    {
        $store = $this->store();
        $sha256 = $store->put(['there'])->sha256;
        $this->server->stop();
        foreach ([
            'reading' => fn () => $store->text($sha256),
            'comparing' => fn () => $store->isIntact($sha256, 5),
            'looking' => fn () => $store->has(hash('sha256', 'else')),
            'storing' => fn () => $store->put(['else']),
            'listing' => fn () => iterator_to_array($this->settings()->objects()->sizes()),
        ] as $doing => $do) {
            try {
                $do();
                self::fail("$doing told something.");
            } catch (StoreFailure $failure) {
                self::assertSame(StoreFault::Unreachable, $failure->fault, "$doing: {$failure->getMessage()}");
            }
        }
        self::assertSame([], glob("$this->own/incoming/*"));
        $this->server->start();
        self::assertSame('there', $store->text($sha256));
    }

    public function test_a_store_that_answers_slowly_is_waited_for(): void
    {
        $slow = new DelayingProxy(120, [$this->server->port]);
        try {
            $settings = $this->server->settings();
            $far = new S3Settings(
                'http://'.DelayingProxy::ADDRESS.":{$this->server->port}",
                $settings->region,
                $settings->bucket,
                $settings->prefix,
                $settings->key,
                $settings->secret,
            );
            $store = $this->settings($far)->open();
            $text = random_bytes(300_000);
            $sha256 = $store->put(str_split($text, 50_000))->sha256;
            self::assertSame($text, $store->text($sha256));
            self::assertTrue($store->isIntact($sha256, strlen($text)));
            self::assertFalse($store->has(hash('sha256', 'nothing')));
        } finally {
            $slow->stop();
        }
        self::assertSame($text, $this->store()->text($sha256), 'all of it came there');
    }

    public function test_a_store_that_takes_what_it_is_asked_and_never_answers_is_told_as_away(): void
    {
        $sha256 = $this->store()->put(['there'])->sha256;
        $mute = stream_socket_server('tcp://127.0.0.1:0');
        self::assertNotFalse($mute);
        $settings = $this->server->settings();
        $objects = S3Objects::connect(new S3Settings(
            'http://'.stream_socket_get_name($mute, false),
            $settings->region,
            $settings->bucket,
            $settings->prefix,
            $settings->key,
            $settings->secret,
        ), $this->directory(), 1);
        foreach ([
            'reading' => static fn () => stream_get_contents($objects->open($sha256)),
            'looking' => static fn () => $objects->has($sha256),
            'listing' => static fn () => iterator_to_array($objects->sizes()),
        ] as $doing => $do) {
            try {
                $do();
                self::fail("$doing told something.");
            } catch (StoreFailure $failure) {
                self::assertSame(StoreFault::Unreachable, $failure->fault, "$doing: {$failure->getMessage()}");
            }
        }
        fclose($mute);
    }

    /** @param  \Closure(StoreSettings): void  $ask */
    private function hostile(string $kind, string $elsewhere, \Closure $ask): void
    {
        $process = proc_open(
            [PHP_BINARY, dirname(__DIR__).'/Support/hostile-s3.php', $kind, $elsewhere],
            [['pipe', 'r'], ['pipe', 'w']],
            $pipes,
        );
        self::assertIsResource($process);
        try {
            $own = $this->server->settings();
            $ask(new StoreSettings($this->own, $this->keys, new S3Settings(
                'http://127.0.0.1:'.trim((string) fgets($pipes[1])),
                $own->region,
                'b',
                'p',
                $own->key,
                $own->secret,
            )));
        } finally {
            proc_terminate($process);
            proc_close($process);
        }
    }

    public function test_a_store_that_leads_elsewhere_is_followed_nowhere(): void
    {
        $elsewhere = stream_socket_server('tcp://127.0.0.1:0');
        self::assertNotFalse($elsewhere);
        $there = 'http://'.stream_socket_get_name($elsewhere, false).'/b/';
        $this->hostile('redirects', $there, static function (StoreSettings $settings): void {
            $objects = $settings->objects();
            $sha256 = hash('sha256', 'it');
            foreach ([
                'storing' => static fn () => $settings->open()->put(['it']),
                'reading' => static fn () => stream_get_contents($objects->open($sha256)),
                'looking' => static fn () => $objects->refresh($sha256),
                'listing' => static fn () => iterator_to_array($objects->sizes()),
            ] as $doing => $do) {
                try {
                    $do();
                    self::fail("$doing told something.");
                } catch (StoreFailure $failure) {
                    self::assertSame(StoreFault::Unreachable, $failure->fault, "$doing: {$failure->getMessage()}");
                }
            }
        });
        self::assertFalse(@stream_socket_accept($elsewhere, 0.0));
    }

    public function test_a_store_that_forgets_what_it_said_it_has_is_found_out_by_reading_back(): void
    {
        $this->hostile('forgets', '', static function (StoreSettings $settings): void {
            $store = $settings->open();
            $sha256 = $store->put(['it'])->sha256;
            self::assertTrue($store->has($sha256), 'it said so');
            self::assertFalse($store->isIntact($sha256, 2));
            self::assertFalse($store->refresh($sha256), 'so that the next backup stores it anew');
        });
    }

    public function test_a_store_that_answers_everything_with_nothing_is_none_of_ours(): void
    {
        $this->hostile('empty', '', static function (StoreSettings $settings): void {
            try {
                $settings->objects()->mustHave(Mark::generate());
                self::fail('It was taken for ours.');
            } catch (StoreFailure $failure) {
                self::assertSame(StoreFault::NotOurs, $failure->fault);
            }
        });
    }

    public function test_a_listing_without_end_is_broken_off(): void
    {
        $this->hostile('lists', '', static function (StoreSettings $settings): void {
            $names = 0;
            try {
                foreach ($settings->objects()->sizes('aa') as $ignored) {
                    $names++;
                }
                self::fail("It came to an end after $names.");
            } catch (StoreFailure $failure) {
                self::assertSame(StoreFault::Unreachable, $failure->fault, $failure->getMessage());
            }
        });
    }

    public function test_what_a_store_lost_is_told_and_stored_anew(): void
    {
        $store = $this->store();
        $sha256 = $store->put(['it'])->sha256;
        exec('find '.escapeshellarg($this->served).' -path "*'.substr($sha256, 2, 20).'*" -exec rm -rf {} +');
        self::assertTrue($store->has($sha256), 'this machine remembers it');
        self::assertFalse($store->isIntact($sha256, 2));
        self::assertFalse($this->store()->refresh($sha256));
        $store->put(['it']);
        self::assertTrue($this->store()->isIntact($sha256, 2));
    }

    public function test_a_key_that_is_refused_is_told_and_not_taken_for_an_empty_store(): void
    {
        $sha256 = $this->store()->put(['there'])->sha256;
        $store = $this->settings($this->server->settings('another'))->open();
        try {
            $store->text($sha256);
            self::fail('It was read.');
        } catch (StoreFailure $failure) {
            self::assertSame(StoreFault::Unreachable, $failure->fault);
            self::assertStringNotContainsString('another', $failure->getMessage());
        }
    }

    public function test_what_lies_there_is_sealed_and_a_bit_of_it_that_changed_is_noticed(): void
    {
        $sha256 = $this->store()->put([str_repeat('low water ', 100)])->sha256;
        exec('grep -rl "low water" '.escapeshellarg($this->own), $readable);
        self::assertSame([], $readable);
        $objects = $this->settings()->objects();
        $sealed = (string) stream_get_contents($objects->open($sha256));
        $altered = $objects->incoming();
        $sealed[60] = chr(ord($sealed[60]) ^ 1);
        file_put_contents($altered, $sealed);
        $objects->publish($altered, $sha256);
        self::assertFalse($this->store()->isIntact($sha256, 1000));
    }
}
