<?php

declare(strict_types=1);

namespace App\People;

use App\Models\Person;
use App\Models\RecordKind;
use App\Record\Record;
use Cellarium\Core\Credential\Secret;
use Cellarium\Core\People\OneTimeCode;
use Cellarium\Core\People\Role;
use ParagonIE\ConstantTime\Base32;

/** The second factor of a sign-in: codes of an authenticator app, and recovery codes for when it is lost. */
final class SecondFactor
{
    public const NEEDED = 'Your role needs a second factor. Set it up now; then go on.';

    private const RECOVERY_CODES = 10;

    private const RECOVERY_CODE_BYTES = 7;

    public static function isMissing(Person $person): bool
    {
        return ! $person->hasSecondFactor() && self::isNeeded($person);
    }

    /** Whom the settings ask for one: nobody, maintainers, agency or everybody. */
    public static function isNeeded(Person $person): bool
    {
        return match ((string) config('cellarium.second_factor')) {
            'nobody' => false,
            'agency' => $person->role->isOfTheAgency(),
            'everybody' => true,
            default => $person->role === Role::Maintainer,
        };
    }

    /**
     * Takes a code of the app, or a recovery code, a single time each: of two sign-ins with the same code at the same
     * moment one is refused.
     */
    public static function accepts(Person $person, #[\SensitiveParameter] string $typed): bool
    {
        $typed = preg_replace('/[\s-]+/', '', $typed) ?? '';
        if ($person->second_factor === null) {
            return false;
        }
        if (preg_match('/\A\d{6}\z/', $typed) !== 1) {
            return self::takeRecoveryCode($person, strtolower($typed));
        }
        $step = OneTimeCode::fromBase32($person->second_factor)->stepOf(
            $typed,
            now()->getTimestamp(),
            $person->second_factor_step,
        );

        return $step !== null
            && Person::whereKey($person->id)
                ->where('second_factor_step', '<', $step)
                ->toBase()
                ->update(['second_factor_step' => $step]) === 1;
    }

    /**
     * From now on it is asked for.
     *
     * @return list<Secret> the recovery codes, shown this once
     */
    public static function begin(Person $person, OneTimeCode $key, int $step): array
    {
        $codes = self::newCodes();
        $person->forceFill([
            'second_factor' => $key->toBase32()->reveal(),
            'second_factor_step' => $step,
            'recovery_codes' => array_map(self::hash(...), $codes),
        ])->save();
        Record::write(RecordKind::SecondFactorSet, "$person->name set up a second factor", person: $person);
        SignInNotice::send($person, 'A second factor was set up for your sign-in to Cellarium.');

        return $codes;
    }

    public static function end(Person $person): void
    {
        $person->update(['second_factor' => null, 'second_factor_step' => 0, 'recovery_codes' => []]);
        Record::write(RecordKind::SecondFactorDropped, "$person->name took their second factor off", person: $person);
        SignInNotice::send($person, 'Your second factor for Cellarium was turned off.');
    }

    /** @return list<Secret> shown this once; the ones before open nothing any more */
    public static function renewCodes(Person $person): array
    {
        $codes = self::newCodes();
        $person->update(['recovery_codes' => array_map(self::hash(...), $codes)]);
        Record::write(RecordKind::SecondFactorSet, "$person->name made new recovery codes", person: $person);

        return $codes;
    }

    /** @return list<Secret> */
    private static function newCodes(): array
    {
        return array_map(
            static fn (): Secret => new Secret(
                substr(Base32::encodeUnpadded(random_bytes(self::RECOVERY_CODE_BYTES)), 0, 10),
            ),
            range(1, self::RECOVERY_CODES),
        );
    }

    private static function takeRecoveryCode(Person $person, #[\SensitiveParameter] string $typed): bool
    {
        $before = $person->getRawOriginal('recovery_codes');
        $hashes = self::hashes(new Secret($typed));
        $left = array_values(array_filter(
            $person->recovery_codes,
            static fn (string $hash): bool => ! in_array($hash, $hashes, true),
        ));
        if (count($left) === count($person->recovery_codes)) {
            return false;
        }
        // Compared with what was read, so that it is taken once.
        $taken = Person::whereKey($person->id)
            ->where('recovery_codes', $before)
            ->toBase()
            ->update(['recovery_codes' => json_encode($left, JSON_THROW_ON_ERROR)]) === 1;
        $taken && Record::write(
            RecordKind::RecoveryCodeUsed,
            "$person->name signed in with a recovery code; ".count($left).' are left',
            person: $person,
        );

        return $taken;
    }

    private static function hash(Secret $code): string
    {
        return self::hashes($code)[0];
    }

    /** @return non-empty-list<string> under the application's key, and under those it had before */
    private static function hashes(Secret $code): array
    {
        return array_map(
            static fn (string $key): string => hash_hmac('sha256', $code->reveal(), $key),
            [(string) config('app.key'), ...array_values((array) config('app.previous_keys', []))],
        );
    }
}
