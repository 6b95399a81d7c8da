<?php

declare(strict_types=1);

namespace Cellarium\Core\Package\Mend;

use Cellarium\Core\Package\Finding\PackageFinding;

/** One finding, and what would be done about it. */
final readonly class Mend
{
    private function __construct(public MendKind $kind, public PackageFinding $finding)
    {
    }

    /** Null where nothing can be done here. */
    public static function forFinding(PackageFinding $finding): ?self
    {
        $kind = MendKind::for($finding->code);
        $can = match ($kind) {
            null => false,
            MendKind::CorrectReference, MendKind::PointReference => $finding->suggestion !== null
                && $finding->offset !== null,
            MendKind::LeaveOut => $finding->path !== null,
            default => $finding->path !== null && $finding->suggestion !== null,
        };

        return $kind === null || ! $can ? null : new self($kind, $finding);
    }

    /**
     * @param  list<PackageFinding>  $findings
     * @return list<self> in their order
     */
    public static function all(array $findings): array
    {
        return array_values(array_filter(array_map(self::forFinding(...), $findings)));
    }

    /** Tells it from all others of its package. */
    public function key(): string
    {
        return implode(':', [
            $this->finding->code->value,
            (string) $this->finding->offset,
            (string) $this->finding->path,
        ]);
    }
}
