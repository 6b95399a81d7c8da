<?php

declare(strict_types=1);

namespace App\People;

use App\Models\ApiToken;
use App\Models\Person;
use App\Models\RecordKind;
use App\Models\TokenScope;
use App\Record\Record;
use Carbon\CarbonImmutable;
use Cellarium\Core\Credential\Secret;

/** Tokens of people, for programs: made once and shown once, found by their hash, revoked at any time. */
final class ApiTokens
{
    /** So that a token that lies about somewhere is known for what it is, by people and by scanners for secrets. */
    private const PREFIX = 'cellarium_';

    private const BYTES = 30;

    /** @return array{ApiToken, Secret} the token itself is shown once and kept nowhere */
    public static function make(
        Person $person,
        string $name,
        TokenScope $scope,
        ?string $packageName,
        ?CarbonImmutable $expires,
    ): array {
        $token = new Secret(self::PREFIX.bin2hex(random_bytes(self::BYTES)));
        $made = ApiToken::create([
            'person_id' => $person->id,
            'name' => $name,
            'scope' => $scope,
            'package_name' => $packageName,
            'sha256' => hash('sha256', $token->reveal()),
            'expires_at' => $expires,
        ]);
        Record::write(
            RecordKind::TokenMade,
            "$person->name made the token $name, to {$scope->words()}"
                .($packageName === null ? '' : " named $packageName").", {$made->words()}",
        );

        return [$made, $token];
    }

    /** The token that is presented, with a person who may still work here; null for all others. */
    public static function find(#[\SensitiveParameter] string $token): ?ApiToken
    {
        if (! str_starts_with($token, self::PREFIX)) {
            return null;
        }
        $found = ApiToken::working()->with('person')->where('sha256', hash('sha256', $token))->first();

        return $found === null || $found->person->isKeptOut() || $found->person->isInvited() ? null : $found;
    }

    public static function revoke(ApiToken $token): void
    {
        if ($token->revoked_at === null) {
            $token->update(['revoked_at' => now()]);
            Record::write(RecordKind::TokenRevoked, "The token $token->name of {$token->person->name} is revoked");
        }
    }
}
