<?php

declare(strict_types=1);

namespace Tests\Support\Builder;

use App\Models\Client;
use App\Models\Person;
use Cellarium\Core\People\OneTimeCode;
use Cellarium\Core\People\Role;

/** Somebody as a test needs them: `PersonBuilder::aPerson()->of($client)->build()`. */
final class PersonBuilder
{
    public const PASSWORD = 'a-word-for-tests';

    private static int $number = 0;

    /** @var array<string, mixed> */
    private array $columns;

    private function __construct(Role $role, string $name)
    {
        $number = ++self::$number;
        $this->columns = [
            'name' => $name,
            'email' => "person$number@marramtide.example",
            'password' => self::PASSWORD,
            'role' => $role,
        ];
    }

    public static function aMaintainer(): self
    {
        return new self(Role::Maintainer, 'Linnet Groyne');
    }

    public static function aHelper(): self
    {
        return new self(Role::Helper, 'Wren Tideway');
    }

    public static function aPersonOf(Client $client): self
    {
        return (new self(Role::ClientsPerson, 'Maud Ostler'))->with(['client_id' => $client->id]);
    }

    public function mayFetchBackups(): self
    {
        return $this->with(['may_fetch_backups' => true]);
    }

    public function withSecondFactor(OneTimeCode $key): self
    {
        return $this->with(['second_factor' => $key->toBase32()->reveal()]);
    }

    /** @param  array<string, mixed>  $columns */
    public function with(array $columns): self
    {
        $this->columns = $columns + $this->columns;

        return $this;
    }

    public function build(): Person
    {
        return Person::create($this->columns)->refresh();
    }
}
