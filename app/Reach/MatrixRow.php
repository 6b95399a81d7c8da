<?php

declare(strict_types=1);

namespace App\Reach;

use App\Models\FtpUser;
use Cellarium\Core\Reach\Flag;
use Cellarium\Core\Reach\LoginScope;

/** One FTP user in the matrix of who reaches what. */
final readonly class MatrixRow
{
    /** Extents that go beyond one job. */
    private const WIDE = ['account', 'clients', 'sites'];

    public string $extent;

    public bool $wide;

    public function __construct(public LoginScope $scope, public FtpUser $user)
    {
        $this->extent = ReachMatrix::extent($scope);
        $this->wide = in_array($this->extent, self::WIDE, true);
    }

    public function extentTone(string $column): string
    {
        return match (true) {
            $column !== $this->extent => '',
            $this->wide => 'is-now',
            default => 'is-proven',
        };
    }

    public function has(Flag $flag): bool
    {
        return in_array($flag, $this->scope->flags, true);
    }

    public static function tone(Flag $flag): string
    {
        return $flag === Flag::Idle || $flag === Flag::NoEnd ? 'soon' : 'now';
    }

    /** @return list<array{tone: string, words: string}> what stands out, as words */
    public function marks(): array
    {
        $marks = $this->wide ? [['tone' => 'now', 'words' => ReachMatrix::EXTENTS[$this->extent]]] : [];
        foreach (array_filter(ReachMatrix::OTHERS, $this->has(...)) as $flag) {
            $marks[] = [
                'tone' => self::tone($flag),
                'words' => $flag === Flag::Idle ? "idle {$this->scope->idleDays} days" : $flag->label(),
            ];
        }

        return $marks;
    }
}
