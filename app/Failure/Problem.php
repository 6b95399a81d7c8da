<?php

declare(strict_types=1);

namespace App\Failure;

use Cellarium\Core\Backup\ListingDoubted;
use Cellarium\Core\Backup\RehearsalFailed;
use Cellarium\Core\Connection\RemoteFailure;
use Cellarium\Core\Deployment\RunRefused;
use Cellarium\Core\File\FileChangeRefused;
use Cellarium\Core\File\NotText;
use Cellarium\Core\Hosting\ControlFailure;
use Cellarium\Core\Intake\ListRefused;
use Cellarium\Core\Package\PackageRefused;
use Cellarium\Core\Package\Type\TypeRefused;
use Cellarium\Core\Path\PathRefused;
use Cellarium\Core\Plan\PlanImpossible;
use Cellarium\Core\Sheet\SheetRefused;
use Cellarium\Core\Storage\StoreFailure;
use Cellarium\Core\Storage\TooMuchToSweep;
use Cellarium\Core\Transfer\Cancelled;
use Cellarium\Core\Transfer\SurveyStopped;
use Cellarium\Core\Transfer\TransferFailed;
use Illuminate\Foundation\Configuration\Exceptions;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\View;
use RuntimeException;
use Symfony\Component\HttpFoundation\Response;

/** A failure of the world outside, in the words people read; never a stack trace. */
final class Problem extends RuntimeException
{
    private const EXPECTED = [
        RemoteFailure::class,
        ControlFailure::class,
        PackageRefused::class,
        TypeRefused::class,
        PathRefused::class,
        PlanImpossible::class,
        RunRefused::class,
        ListingDoubted::class,
        FileChangeRefused::class,
        NotText::class,
        TransferFailed::class,
        StoreFailure::class,
        ListRefused::class,
        SurveyStopped::class,
        RehearsalFailed::class,
        SheetRefused::class,
        Cancelled::class,
        TooMuchToSweep::class,
        self::class,
    ];

    public static function isExpected(\Throwable $failure): bool
    {
        foreach (self::EXPECTED as $class) {
            if ($failure instanceof $class) {
                return true;
            }
        }

        return DatabaseAway::caused($failure);
    }

    /** What happened and what to do next, in one or two sentences. */
    public static function words(\Throwable $failure): string
    {
        if (DatabaseAway::caused($failure)) {
            return 'The database does not answer, so nothing can be shown or begun. Runs that are at work on a server '
                .'go on, and what became of them is written down once it answers. Look at the log of MariaDB; ./stop '
                .'and ./start begin anew.';
        }
        $cause = $failure instanceof RunRefused ? $failure->getPrevious() ?? $failure : $failure;
        $cause = $cause instanceof TransferFailed ? $cause->failure : $cause;
        // These two begin with what was tried; the others are sentences, which may begin with the name of a file.
        $begins = $cause instanceof RemoteFailure || $cause instanceof ControlFailure;
        $sentence = rtrim($begins ? ucfirst($cause->getMessage()) : $cause->getMessage(), '.').'.';

        return $cause instanceof RemoteFailure ? $sentence.' '.$cause->reason->nextStep() : $sentence;
    }

    public static function register(Exceptions $exceptions): void
    {
        $exceptions->dontReport(self::EXPECTED);
        $exceptions->report(static function (\PDOException $failure): bool {
            $away = DatabaseAway::caused($failure);
            $away && DatabaseAway::tell();

            return ! $away;
        });
        $exceptions->shouldRenderJsonWhen(
            static fn (Request $request): bool => $request->is('api/*') || $request->expectsJson(),
        );
        $exceptions->dontFlash(['code']); // Of a link that opens once.
        $exceptions->render(static function (\Throwable $failure, Request $request): ?Response {
            if (! self::isExpected($failure)) {
                return null;
            }
            $words = self::words($failure);
            $isPage = $request->header('HX-Request') !== 'true' && ! $request->is('api/*');
            if (DatabaseAway::caused($failure) && $isPage) {
                return response(
                    View::make('errors.plain', [
                        'title' => 'The database does not answer',
                        'words' => $words,
                        'again' => $request->isMethod('GET'),
                    ]),
                    503,
                    ['Retry-After' => '5'],
                );
            }
            if ($request->is('api/*')) {
                return response()->json(['error' => $words], DatabaseAway::caused($failure) ? 503 : 422);
            }
            if ($request->header('HX-Request') === 'true') {
                return response(View::make('parts.trouble', ['trouble' => $words]), 200);
            }

            if ($request->isMethod('GET') && $request->expectsJson()) {
                return response()->json(['message' => $words], 422);
            }

            return $request->isMethod('GET')
                ? response(View::make('problem', ['trouble' => $words]), 422)
                : redirect()
                    ->back()
                    ->withInput(
                        $request->except([
                            '_token',
                            'password',
                            'passphrase',
                            'passphrase_again',
                            'private_key',
                            'letter',
                            'text',
                            'list',
                            'package',
                        ]),
                    )
                    ->with('trouble', $words);
        });
    }
}
