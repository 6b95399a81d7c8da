<?php

declare(strict_types=1);

use App\Failure\Problem;
use App\Http\Middleware\AsksNoHost;
use App\Http\Middleware\CookiesBehindTls;
use App\Http\Middleware\FreshSignIn;
use App\Http\Middleware\KeepsAddress;
use App\Http\Middleware\PlainInput;
use App\Http\Middleware\SecurityHeaders;
use App\Http\Middleware\SignedIn;
use App\Http\Middleware\SlowRequests;
use App\Http\Middleware\StartSession;
use App\Http\Middleware\TokenSignIn;
use Illuminate\Auth\Middleware\Authorize;
use Illuminate\Contracts\Auth\Middleware\AuthenticatesRequests;
use Illuminate\Foundation\Application;
use Illuminate\Foundation\Configuration\Exceptions;
use Illuminate\Foundation\Configuration\Middleware;
use Illuminate\Http\Middleware\HandleCors;
use Illuminate\Http\Request;
use Illuminate\Session\Middleware\StartSession as StartsEverySession;

$root = dirname(__DIR__);

return Application::configure(basePath: $root)
    ->withRouting(web: $root.'/routes/web.php', api: $root.'/routes/api.php', commands: $root.'/routes/console.php')
    ->withMiddleware(function (Middleware $middleware): void {
        // Its package is missing, see framework-gaps.php; no page is for other origins.
        $middleware->remove(HandleCors::class);
        $middleware->prepend(SlowRequests::class);
        $middleware->web(replace: [StartsEverySession::class => StartSession::class]);
        $middleware->append(AsksNoHost::class);
        $middleware->append(SecurityHeaders::class);
        $middleware->append(CookiesBehindTls::class);
        $middleware->append(KeepsAddress::class);
        $middleware->append(PlainInput::class);
        // Names of files may begin or end with a blank.
        $middleware->trimStrings(['at', 'folder', 'called', 'names.*', 'chosen', 'content']);
        // The web server before the pages says whose request it is; nobody else reaches them.
        $middleware->trustProxies(
            at: ['127.0.0.1'],
            headers: Request::HEADER_X_FORWARDED_FOR | Request::HEADER_X_FORWARDED_PROTO,
        );
        $middleware->alias([
            'signed-in' => SignedIn::class,
            'fresh' => FreshSignIn::class,
            'token' => TokenSignIn::class,
        ]);
        // Permissions come first: who may not come in is not asked for a password.
        $middleware->appendToPriorityList(Authorize::class, FreshSignIn::class);
        $middleware->appendToPriorityList(AuthenticatesRequests::class, SignedIn::class);
        $middleware->appendToPriorityList(AuthenticatesRequests::class, TokenSignIn::class);
        $middleware->redirectGuestsTo('/sign-in');
        $middleware->redirectUsersTo('/');
    })
    ->withExceptions(fn (Exceptions $exceptions) => Problem::register($exceptions))
    ->create()
    ->useStoragePath(($_ENV['CELLARIUM_VAR'] ?? getenv('CELLARIUM_VAR') ?: $root.'/var').'/storage');
