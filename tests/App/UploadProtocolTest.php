<?php

declare(strict_types=1);

namespace Tests\App;

use App\Models\Errand;
use App\Models\Package;
use App\Models\Upload;
use Illuminate\Database\Events\QueryExecuted;
use Illuminate\Support\Facades\DB;
use Illuminate\Testing\TestResponse;

/** The server's side of tus 1.0 where something is wrong: each refusal has its status, and what is there stays. */
final class UploadProtocolTest extends AppTestCase
{
    /** @param  array<string, string>  $headers */
    private function piece(Upload $upload, string $bytes, array $headers): TestResponse
    {
        return $this->call(
            'PATCH',
            "/uploads/$upload->id",
            [],
            [],
            [],
            $this->transformHeadersToServerVars($headers + [
                'Tus-Resumable' => '1.0.0',
                'Content-Type' => 'application/offset+octet-stream',
                'Upload-Offset' => '0',
            ]),
            $bytes,
        );
    }

    private function begun(): Upload
    {
        $this->actingAs($this->person)
            ->post('/uploads', [], ['Tus-Resumable' => '1.0.0', 'Upload-Length' => '6'])
            ->assertCreated();

        return Upload::firstOrFail();
    }

    public function test_each_refusal_has_its_status_and_what_arrived_stays(): void
    {
        $upload = $this->begun();
        $this->piece($upload, 'abc', [])->assertNoContent()->assertHeader('Upload-Offset', '3');
        $wrong = ['Upload-Offset' => '3', 'Upload-Checksum' => 'sha1 '.base64_encode(sha1('other', true))];

        self::assertSame(409, $this->piece($upload, 'abc', [])->getStatusCode());
        self::assertSame(460, $this->piece($upload, 'def', $wrong)->getStatusCode());
        self::assertSame(412, $this->piece($upload, 'def', ['Tus-Resumable' => '0.2.0'])->getStatusCode());
        self::assertSame(413, $this->piece($upload, 'defghi', ['Upload-Offset' => '3'])->getStatusCode());
        $this->call('HEAD', "/uploads/$upload->id")->assertHeader('Upload-Offset', '3');
    }

    public function test_metadata_that_are_not_understood_are_refused_and_begin_nothing(): void
    {
        foreach (['filename not*base64', 'filename YQ==,filename Yg==', 'site MQ==,into Li4vZXRj'] as $said) {
            $this->actingAs($this->person)
                ->post('/uploads', [], [
                    'Tus-Resumable' => '1.0.0',
                    'Upload-Length' => '6',
                    'Upload-Metadata' => $said,
                ])
                ->assertStatus(400);
        }
        self::assertSame(0, Upload::count());
    }

    public function test_bytes_that_belong_to_no_upload_any_more_are_cleaned_up(): void
    {
        $upload = $this->begun();
        $this->piece($upload, 'abc', []);
        $orphan = config('cellarium.var').'/arriving/999999';
        file_put_contents($orphan, 'of somebody who was removed');
        touch($orphan, time() - 86_400 * 10);
        clearstatcache();
        $this->artisan('cellarium:clean');
        self::assertFileDoesNotExist($orphan);
        self::assertFileExists(config('cellarium.var')."/arriving/$upload->id");
    }

    public function test_what_has_arrived_is_checked_again_where_the_worker_was_killed(): void
    {
        $upload = $this->begun();
        $bytes = (string) file_get_contents($this->zip());
        $upload->update(['length' => strlen($bytes), 'file_name' => 'stones-1.0.zip']);
        file_put_contents(config('cellarium.var')."/arriving/$upload->id", $bytes);
        $killed = Errand::create([
            'kind' => 'take_package',
            'state' => 'failed',
            'back' => '/packages',
            'given' => [],
        ]);
        $upload->update(['errand_id' => $killed->id]);

        $this->get("/uploads/$upload->id/finish")->assertRedirect();
        self::assertNotSame($killed->id, $upload->refresh()->errand_id);
        self::assertSame(1, Package::count());
    }

    public function test_what_is_refused_while_its_page_asks_is_said_as_that(): void
    {
        $upload = $this->begun();
        $upload->update(['length' => 3, 'file_name' => 'letter.zip']);
        $file = config('cellarium.var')."/arriving/$upload->id";
        file_put_contents($file, 'abc');
        $running = Errand::create([
            'kind' => 'take_package',
            'state' => 'running',
            'back' => '/packages',
            'given' => [],
        ]);
        $upload->update(['errand_id' => $running->id]);
        // The worker ends between two questions of the page.
        DB::listen(static function (QueryExecuted $query) use ($file, $running): void {
            if (str_contains($query->sql, 'for update') && is_file($file)) {
                unlink($file);
                $running->update(['state' => 'failed', 'words' => 'This is no archive.']);
            }
        });

        $this->get("/uploads/$upload->id/finish")->assertRedirect("/errands/$running->id");
        self::assertFileDoesNotExist($file);
    }

    public function test_a_disk_that_takes_nothing_is_said_as_that_and_not_led_to_a_page(): void
    {
        $upload = $this->begun();
        $file = config('cellarium.var')."/arriving/$upload->id";
        unlink($file);
        mkdir($file);
        try {
            $answer = $this->piece($upload, 'abc', []);
            self::assertSame(507, $answer->getStatusCode());
            self::assertStringContainsString('could not be written', (string) $answer->getContent());
        } finally {
            rmdir($file);
        }
    }
}
