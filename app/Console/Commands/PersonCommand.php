<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Failure\Problem;
use App\Models\Client;
use App\Models\Person;
use App\People\People;
use App\People\PersonFacts;
use App\People\SignInGuard;
use Cellarium\Core\Credential\Secret;
use Cellarium\Core\People\Permission;
use Cellarium\Core\People\Role;

/** For when nobody can sign in who could do it on the page People: whoever has the console has everything anyway. */
final class PersonCommand extends CellariumCommand
{
    protected const PERMISSION = Permission::ManagePeople;

    protected const BY_ITSELF = true;

    protected $signature = 'cellarium:person {email : with which they sign in} {--name= : of somebody new, or another '
        .'name} {--role= : maintainer, helper or clients_person} {--client= : the name of a client’s person’s client} '
        .'{--renew-password : a link to choose another; the old one opens nothing any more} {--drop-second-factor : '
        .'the password alone opens, until another is set up} {--close : no longer signs in, and is signed out} '
        .'{--open : signs in again} {--json : one JSON object on standard output}';

    protected $description = 'Make somebody, or change, close and open them; give another password or take the second '
        .'factor off';

    public function handle(People $people): int
    {
        $email = SignInGuard::folded((string) $this->argument('email'));
        $person = Person::where('email', $email)->first();
        $link = $person === null ? $people->invite($this->facts($email, null)) : $this->change($people, $person);
        $person = Person::where('email', $email)->firstOrFail();
        $address = $link === null
            ? null
            : rtrim((string) config('app.url'), '/')."/welcome#{$link->reveal()}";
        $closed = $person->isClosed() ? 'closed' : 'open';
        $this->wantsJson()
            ? $this->json([
                'ok' => true,
                'name' => $person->name,
                'role' => $person->role->value,
                'state' => $closed,
                'second_factor' => $person->hasSecondFactor(),
                'link' => $address,
            ])
            : $this->tell($person, $closed, $address);

        return self::PROVEN;
    }

    private function change(People $people, Person $person): ?Secret
    {
        if ($this->option('open') === true) {
            $people->open($person, $person->revision);
        }
        if ($this->option('name') !== null || $this->option('role') !== null || $this->option('client') !== null) {
            $person->refresh();
            $people->change($person, $this->facts($person->email, $person), $person->revision);
        }
        if ($this->option('drop-second-factor') === true) {
            $people->dropSecondFactor($person->refresh(), $person->revision);
        }
        if ($this->option('close') === true) {
            $people->close($person->refresh(), $person->revision);

            return null;
        }

        return $this->option('renew-password') === true
            ? $people->renewPassword($person->refresh(), $person->revision)
            : null;
    }

    private function facts(string $email, ?Person $known): PersonFacts
    {
        filter_var($email, FILTER_VALIDATE_EMAIL) !== false || throw new Problem("$email is no e-mail address.");
        $name = trim((string) ($this->option('name') ?? $known?->name));
        $name !== '' || throw new Problem("Nobody has the address $email yet. Say with --name who it is.");
        $role = Role::tryFrom((string) ($this->option('role') ?? $known->role->value ?? ''))
            ?? throw new Problem('Say with --role what they are: maintainer, helper or clients_person.');
        $client = $this->option('client') === null
            ? $known?->client_id
            : Client::where('name', $this->option('client'))->firstOr(
                fn () => throw new Problem("There is no client called {$this->option('client')}."),
            )->id;
        $role !== Role::ClientsPerson || $client !== null || throw new Problem('Say with --client whose person it is.');

        return new PersonFacts(
            $name,
            $email,
            $role,
            $role === Role::ClientsPerson ? $client : null,
            $role === Role::ClientsPerson && $known?->may_fetch_backups === true,
        );
    }

    private function tell(Person $person, string $state, ?string $link): void
    {
        $this->components->info(
            "$person->name, {$person->role->label()}, $state, "
                .($person->hasSecondFactor() ? 'with a second factor' : 'without a second factor'),
        );
        if ($link !== null) {
            $this->line('They choose their password here, once, within '.People::LINK_HOURS.' hours:');
            $this->line($link);
        }
    }
}
