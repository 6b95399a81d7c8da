<?php

declare(strict_types=1);

namespace App\People;

use App\Models\Person;
use Cellarium\Core\People\Permission;
use Illuminate\Auth\Access\Response;
use Illuminate\Http\Request;
use Illuminate\Routing\Route;
use Illuminate\Routing\Router;
use Illuminate\Support\Facades\Gate;
use Illuminate\Support\Facades\Log;
use Symfony\Component\HttpKernel\Exception\HttpExceptionInterface;

/**
 * Permissions as gates. Every route names its permission (routes/web.php), each permission is a gate, and what a page
 * offers asks the route it leads to: no page has rules of its own. What belongs to which client is seen to by the
 * models, see App\Models\OfClients.
 */
final class Access
{
    /** @var array<string, Permission|null> by method and address, numbers left out */
    private array $found = [];

    public function __construct(private readonly Router $router)
    {
    }

    public static function defineGates(): void
    {
        foreach (Permission::cases() as $permission) {
            Gate::define(
                $permission->value,
                static fn (Person $person): Response => self::answer($person, $permission),
            );
        }
    }

    /** Whether somebody has a permission; of what is not theirs, a client's person is told that it does not exist. */
    public static function answer(Person $person, Permission $permission): Response
    {
        return match (true) {
            $person->may($permission) => Response::allow(),
            ! $person->role->isOfTheAgency() => self::noted($person, $permission, Response::denyAsNotFound()),
            default => self::noted($person, $permission, Response::deny(
                "This is for maintainers: {$permission->words()}. You are a {$person->role->label()}; ask a maintainer "
                    .'to do it, or to change your role.',
            )),
        };
    }

    /** Who tries what is not theirs stands in the log: once is a slip, often is a question. */
    private static function noted(Person $person, Permission $permission, Response $refusal): Response
    {
        Log::notice("Refused: $person->email ({$person->role->value}) asked for what needs $permission->value.");

        return $refusal;
    }

    /** Whether whoever is signed in may go where a link or a button leads. */
    public function leads(string $address, string $method = 'GET'): bool
    {
        $person = Person::viewer();
        if ($person === null) {
            return true; // The page itself was allowed; it is one without sign-in.
        }
        $permission = $this->permission($address, $method);

        return $permission === null || $person->may($permission);
    }

    /** Whether there is a route for what somebody sends, and it is for whoever is signed in. */
    public function takes(string $address, string $method): bool
    {
        try {
            return $this->leads($address, $method);
        } catch (\LogicException) {
            return false;
        }
    }

    /** The permission a route names; null where it needs none. */
    public static function forRoute(Route $route): ?Permission
    {
        foreach ($route->gatherMiddleware() as $middleware) {
            if (is_string($middleware) && str_starts_with($middleware, 'can:')) {
                return Permission::from(substr($middleware, 4));
            }
        }

        return null;
    }

    private function permission(string $address, string $method): ?Permission
    {
        $path = (string) parse_url($address, PHP_URL_PATH);
        $key = "$method ".preg_replace('/\d+/', '1', $path);
        if (! array_key_exists($key, $this->found)) {
            try {
                $this->found[$key] = self::forRoute($this->router->getRoutes()->match(Request::create($path, $method)));
            } catch (HttpExceptionInterface $nowhere) {
                throw new \LogicException("A page leads to $method $path, which is no route.", 0, $nowhere);
            }
        }

        return $this->found[$key];
    }
}
