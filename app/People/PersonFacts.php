<?php

declare(strict_types=1);

namespace App\People;

use App\Models\Client;
use Cellarium\Core\People\Role;
use Illuminate\Validation\Rule;

/** A person's facts and role, as a maintainer typed them. */
final readonly class PersonFacts
{
    public function __construct(
        public string $name,
        public string $email,
        public Role $role,
        public ?int $clientId = null,
        public bool $mayFetchBackups = false,
    ) {
    }

    /** @return array<string, mixed> the rules of the form */
    public static function rules(?int $person): array
    {
        return [
            'name' => ['required', 'string', 'max:100', 'regex:/\A[^\p{C}]*\S[^\p{C}]*\z/u'],
            'email' => ['required', 'string', 'max:200', 'email', Rule::unique('people', 'email')->ignore($person)],
            'role' => ['required', Rule::enum(Role::class)],
            'client_id' => [
                'required_if:role,'.Role::ClientsPerson->value,
                'nullable',
                'integer',
                Rule::in(Client::pluck('id')),
            ],
            'may_fetch_backups' => ['nullable', 'boolean'],
        ];
    }

    /** @return array<string, string> */
    public static function words(): array
    {
        return [
            'name.*' => 'Write their name.',
            'email.required' => 'Write the e-mail address they sign in with.',
            'email.unique' => 'Somebody here has this e-mail address already.',
            'email.*' => 'This is no e-mail address.',
            'role.*' => 'Choose a role.',
            'client_id.*' => 'Choose the client they belong to.',
        ];
    }

    /** @param  array<string, mixed>  $given  as the rules let it pass */
    public static function fromForm(array $given): self
    {
        $role = Role::from((string) $given['role']);
        $isClients = $role === Role::ClientsPerson;

        return new self(
            trim((string) $given['name']),
            SignInGuard::folded((string) $given['email']),
            $role,
            $isClients ? (int) $given['client_id'] : null,
            $isClients && (bool) ($given['may_fetch_backups'] ?? false),
        );
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return [
            'name' => $this->name,
            'email' => $this->email,
            'role' => $this->role,
            'client_id' => $this->clientId,
            'may_fetch_backups' => $this->mayFetchBackups,
        ];
    }
}
