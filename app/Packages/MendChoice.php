<?php

declare(strict_types=1);

namespace App\Packages;

use Cellarium\Core\Package\Finding\FindingCode;
use Cellarium\Core\Package\Finding\PackageFinding;
use Cellarium\Core\Package\Mend\Mend;

/** The mends chosen for a package: all that is safe, all of a kind, or one. */
final readonly class MendChoice
{
    private const ALL = 'all';

    private function __construct(private ?FindingCode $code, private ?string $key)
    {
    }

    /** @param  string  $written  "all", "reference_case", or the key of one mend */
    public static function tryFromString(string $written): ?self
    {
        return match (true) {
            $written === self::ALL => new self(null, null),
            FindingCode::tryFrom($written) !== null => new self(FindingCode::from($written), null),
            str_contains($written, ':') => new self(null, $written),
            default => null,
        };
    }

    public static function allThatIsSafe(): self
    {
        return new self(null, null);
    }

    /**
     * @param  list<PackageFinding>  $findings
     * @return list<Mend>
     */
    public function of(array $findings): array
    {
        return array_values(array_filter(Mend::all($findings), fn (Mend $mend): bool => match (true) {
            $this->key !== null => $mend->key() === $this->key,
            $this->code !== null => $mend->finding->code === $this->code,
            default => $mend->kind->isSafe(),
        }));
    }

    public function toString(): string
    {
        return $this->key ?? $this->code->value ?? self::ALL;
    }
}
