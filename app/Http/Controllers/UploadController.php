<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Errands\Errands;
use App\Models\Errand;
use App\Models\ErrandState;
use App\Models\Person;
use App\Models\Site;
use App\Models\Upload;
use App\Packages\TakePackage;
use App\Packages\Uploads;
use App\Plans\TakeFiles;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Storage\StoreFailure;
use Cellarium\Core\Upload\UploadChecksum;
use Cellarium\Core\Upload\UploadMetadata;
use Cellarium\Core\Upload\UploadRefusal;
use Cellarium\Core\Upload\UploadRefused;
use Illuminate\Http\RedirectResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\Support\Facades\DB;

/** The server's side of tus 1.0: core, creation, checksum, expiration and termination. */
final class UploadController
{
    private const VERSION = '1.0.0';

    private const EXTENSIONS = 'creation,checksum,expiration,termination';

    private const CHUNK = 65_536;

    public function __construct(private readonly Uploads $uploads)
    {
    }

    public function offers(): Response
    {
        return self::answer(204, [
            'Tus-Version' => self::VERSION,
            'Tus-Extension' => self::EXTENSIONS,
            'Tus-Max-Size' => (string) Uploads::mostBytes(),
            'Tus-Checksum-Algorithm' => implode(',', UploadChecksum::ALGORITHMS),
        ]);
    }

    public function begin(Request $request): Response
    {
        return $this->guarded($request, function () use ($request): Response {
            $length = self::number($request, 'Upload-Length');
            if ($length < 1) {
                throw UploadRefused::because(UploadRefusal::NotUnderstood);
            }
            if ($length > Uploads::mostBytes()) {
                throw UploadRefused::because(UploadRefusal::TooMuch);
            }
            $said = UploadMetadata::parse((string) $request->header('Upload-Metadata', ''));
            $site = ctype_digit($said['site'] ?? '') ? Site::find((int) $said['site']) : null;
            $upload = $this->uploads->begin(
                $this->person($request),
                $said['filename'] ?? 'package',
                $length,
                $site?->id,
                $site === null || ! isset($said['into']) ? null : (RemotePath::tryFromString($said['into'])
                    ?? throw UploadRefused::because(UploadRefusal::NotUnderstood))->toString(),
            );

            return self::answer(201, ['Location' => "/uploads/$upload->id", ...self::expiry($upload)]);
        });
    }

    public function offset(Upload $upload): Response
    {
        $this->open($upload);

        return self::answer(200, [
            'Upload-Offset' => (string) $this->uploads->file($upload)->offset(),
            'Upload-Length' => (string) $upload->length,
            'Cache-Control' => 'no-store',
            ...self::expiry($upload),
        ]);
    }

    public function append(Request $request, Upload $upload): Response
    {
        $this->open($upload);

        return $this->guarded($request, function () use ($request, $upload): Response {
            if ($request->header('Content-Type') !== 'application/offset+octet-stream') {
                return self::answer(415, []);
            }
            $checksum = $request->header('Upload-Checksum');
            $file = $this->uploads->file($upload);
            $offset = $file->append(
                self::number($request, 'Upload-Offset'),
                self::chunks($request),
                is_string($checksum) ? UploadChecksum::fromString($checksum) : null,
            );
            $upload->update(['expires_at' => now()->addDays(Uploads::DAYS)]);
            $file->isWhole() && $this->check($upload);

            return self::answer(204, ['Upload-Offset' => (string) $offset, ...self::expiry($upload)]);
        });
    }

    public function remove(Upload $upload): Response
    {
        $this->uploads->remove($upload);

        return self::answer(204, []);
    }

    /** To where what has arrived is checked, and from there to the package. */
    public function finish(Upload $upload): RedirectResponse
    {
        if ($upload->errand_id === null && ! $this->uploads->file($upload)->isWhole()) {
            return redirect('/packages')->with(
                'trouble',
                "Not all of $upload->file_name has arrived. Choose it again; it goes on where it ended.",
            );
        }

        return redirect("/errands/{$this->check($upload)}");
    }

    /** @return int the number of the errand; of two that ask at once both get the same */
    private function check(Upload $upload): int
    {
        return DB::transaction(function () use ($upload): int {
            $locked = Upload::lockForUpdate()->findOrFail($upload->id);
            // How it ended is read before the file: what was refused is gone by then, and is not asked for again.
            $isOpen = Errand::whereKey($locked->errand_id)
                ->whereNotIn('state', [ErrandState::Failed, ErrandState::Cancelled])
                ->exists();
            // Of a worker that was killed all is there still, and nothing of it is sent again.
            if (! $isOpen && $this->uploads->file($upload)->isWhole()) {
                $locked->errand_id = null;
            }
            $locked->errand_id ??= Errands::order(
                $upload->into === null ? TakePackage::class : TakeFiles::class,
                $upload->into === null ? '/packages' : "/sites/$upload->site_id/files",
                null,
                ['upload' => $upload->id, 'site' => $upload->site_id],
            )->id;
            $locked->save();

            return $locked->errand_id;
        });
    }

    /** What is complete takes no piece any more (tus 1.0 answers 410 for what is gone). */
    private function open(Upload $upload): void
    {
        abort_if($upload->errand_id !== null && $this->uploads->file($upload)->offset() === 0, 410);
    }

    private function person(Request $request): Person
    {
        $person = $request->user();
        assert($person instanceof Person);

        return $person;
    }

    /** @param  \Closure(): Response  $work */
    private function guarded(Request $request, \Closure $work): Response
    {
        if ($request->header('Tus-Resumable') !== self::VERSION) {
            return self::answer(412, ['Tus-Version' => self::VERSION]);
        }
        try {
            return $work();
        } catch (UploadRefused $refused) {
            return self::answer($refused->reason->value, [], $refused->getMessage());
        } catch (StoreFailure $failure) {
            // What has arrived is there still; the client asks again, and goes on once there is room.
            report($failure);

            return self::answer(507, [], $failure->getMessage());
        }
    }

    /** @return \Generator<string> */
    private static function chunks(Request $request): \Generator
    {
        $body = $request->getContent(true);
        while (! feof($body)) {
            $chunk = fread($body, self::CHUNK);
            if ($chunk === false) {
                return;
            }
            yield $chunk;
        }
    }

    /**
     * @return int<0, max>
     *
     * @throws UploadRefused
     */
    private static function number(Request $request, string $header): int
    {
        $written = (string) $request->header($header);

        return preg_match('/\A\d{1,15}\z/', $written) === 1
            ? max(0, (int) $written)
            : throw UploadRefused::because(UploadRefusal::NotUnderstood);
    }

    /** @return array<string, string> as HTTP writes a date (RFC 9110, 5.6.7) */
    private static function expiry(Upload $upload): array
    {
        return ['Upload-Expires' => $upload->expires_at->utc()->format('D, d M Y H:i:s').' GMT'];
    }

    /** @param  array<string, string>  $headers */
    private static function answer(int $status, array $headers, string $words = ''): Response
    {
        return response($words, $status, ['Tus-Resumable' => self::VERSION, ...$headers]);
    }
}
