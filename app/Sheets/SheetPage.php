<?php

declare(strict_types=1);

namespace App\Sheets;

use App\Text\Amount;
use Carbon\CarbonImmutable;
use Cellarium\Core\Sheet\ClientSheet;
use Cellarium\Core\Sheet\SheetAccess;
use Cellarium\Core\Sheet\SheetChange;
use Cellarium\Core\Sheet\SheetKind;
use Cellarium\Core\Sheet\SheetSite;
use Cellarium\Core\Sheet\SignedSheet;
use Cellarium\Core\Words\Count;
use Illuminate\Support\Str;

/** A sheet as it is read and printed: on two pages of A4 at the most, however much it tells; the rest is counted. */
final readonly class SheetPage
{
    private const MOST_CHANGES = 9;

    private const MOST_ACCESS = 7;

    private const MOST_SITES = 8;

    /** Letters of a name, a path, or what somebody has typed; all of it stands in the file. */
    private const MOST_LETTERS = 64;

    public ClientSheet $sheet;

    public function __construct(public SignedSheet $signed, private bool $twentyFourHours = true)
    {
        $this->sheet = $signed->sheet;
    }

    /** In the time zone of the sheet, whoever reads it. */
    public function when(?int $moment, string $format = 'j M Y H:i'): string
    {
        return $moment === null ? 'never' : CarbonImmutable::createFromTimestamp($moment, $this->sheet->cover->zone)
            ->format($this->twentyFourHours ? $format : str_replace('H:i', 'g:i a', $format));
    }

    public function title(): string
    {
        return match (true) {
            $this->sheet->cover->deployment !== null => 'What was deployed',
            count($this->sheet->sites) === 1 => 'What changed',
            default => 'What changed on '.count($this->sheet->sites).' sites',
        };
    }

    public function isOfOneSite(): bool
    {
        return count($this->sheet->sites) === 1;
    }

    public function period(): string
    {
        $cover = $this->sheet->cover;

        return $this->when($cover->from).' to '.$this->when($cover->until).", $cover->zone";
    }

    /** @return list<array{name: string, value: string, note: string, isGood: bool}> what a client looks for first */
    public function main(): array
    {
        return [$this->changed(), $this->outage(), $this->backup(), $this->access()];
    }

    /** @return list<SheetChange> newest first; where not all of them fit, what went wrong and what was deployed do */
    public function changes(): array
    {
        $shown = array_slice($this->byWeight(), 0, self::MOST_CHANGES);
        usort($shown, static fn (SheetChange $one, SheetChange $other): int => $other->at <=> $one->at);

        return $shown;
    }

    /** @return string what is left out of changes(), by kind; "" for nothing */
    public function moreChanges(): string
    {
        $left = array_slice($this->byWeight(), self::MOST_CHANGES);
        $words = [];
        foreach (SheetKind::cases() as $kind) {
            $count = count(array_filter($left, static fn (SheetChange $one): bool => $one->kind === $kind));
            $count === 0 || $words[] = "$count ".lcfirst($kind->label());
        }

        return $words === [] ? '' : 'And '.count($left).' more: '.implode(', ', $words).'.';
    }

    /** @return list<SheetChange> */
    private function byWeight(): array
    {
        $weight = static fn (SheetChange $one): int => match (true) {
            ! $one->isGood => 0,
            $one->kind === SheetKind::ByHand => 2,
            default => 1,
        };
        $all = $this->sheet->changes;
        usort($all, static fn (SheetChange $one, SheetChange $other): int => [$weight($one), -$one->at]
            <=> [$weight($other), -$other->at]);

        return $all;
    }

    /** @return list<SheetAccess> what is open comes first, then what was closed last */
    public function accesses(): array
    {
        $all = $this->sheet->access;
        usort($all, static fn (SheetAccess $one, SheetAccess $other): int => [$one->isOpen() ? 0 : 1, -$one->closedAt]
            <=> [$other->isOpen() ? 0 : 1, -$other->closedAt]);

        return array_slice($all, 0, self::MOST_ACCESS);
    }

    public function moreAccess(): string
    {
        return self::more(count($this->sheet->access), self::MOST_ACCESS);
    }

    /** @return list<SheetSite> */
    public function sites(): array
    {
        return array_slice($this->sheet->sites, 0, self::MOST_SITES);
    }

    public function moreSites(): string
    {
        return self::more(count($this->sheet->sites), self::MOST_SITES);
    }

    /** What was taken before a change, and what is proven of it. */
    public function backupOf(SheetChange $change): string
    {
        $backup = $change->backup;

        return $backup === null ? '' : "number $backup->number, ".Amount::files($backup->files).', '
            .Amount::bytes($backup->bytes).', read back '.$this->when($backup->verifiedAt, 'j M H:i')
            .($backup->rehearsedAt === null ? '' : ', rehearsed '.$this->when($backup->rehearsedAt, 'j M'));
    }

    /** As much of a name, a path or what somebody has typed as a line or two take. */
    public function brief(string $text): string
    {
        return Str::limit($text, self::MOST_LETTERS, '…');
    }

    public function by(SheetChange $change): string
    {
        return $change->by === '' ? $change->kind->label() : $change->by;
    }

    public function openedBy(SheetAccess $access): string
    {
        return match (true) {
            $access->isAccount => 'known here since',
            $access->by === '' => 'found at the host',
            default => "by $access->by",
        };
    }

    private static function more(int $count, int $most): string
    {
        return $count <= $most ? '' : 'And '.($count - $most).' more.';
    }

    /** @return array{name: string, value: string, note: string, isGood: bool} */
    private function changed(): array
    {
        $counts = [];
        foreach (SheetKind::cases() as $kind) {
            $count = count($this->sheet->changesOf($kind));
            $count === 0 || $counts[] = "$count ".lcfirst($kind->label());
        }
        $bad = count(array_filter($this->sheet->changes, static fn (SheetChange $one): bool => ! $one->isGood));

        return [
            'name' => 'Changes',
            'value' => (string) count($this->sheet->changes),
            'note' => match (true) {
                $counts === [] => 'nothing was changed',
                $bad === 0 => implode(', ', $counts).'; all as meant',
                default => implode(', ', $counts)."; $bad not as meant",
            },
            'isGood' => $bad === 0,
        ];
    }

    /** @return array{name: string, value: string, note: string, isGood: bool} */
    private function outage(): array
    {
        $milliseconds = $this->sheet->outage();
        $unmeasured = $this->sheet->unmeasured();

        return [
            'name' => 'Visitors without a site',
            'value' => match (true) {
                $this->sheet->changes === [] => '0 s',
                $milliseconds === null => 'not measured',
                default => Amount::seconds($milliseconds / 1000),
            },
            'note' => match (true) {
                $this->sheet->changes === [] => 'nothing was replaced',
                $milliseconds === null => 'nobody asked meanwhile',
                $unmeasured > 0 => "at the most; $unmeasured not measured, or not all the time",
                default => 'at the most, as the start page answered meanwhile',
            },
            'isGood' => $milliseconds === 0 || $this->sheet->changes === [],
        ];
    }

    /** @return array{name: string, value: string, note: string, isGood: bool} */
    private function backup(): array
    {
        $last = array_map(static fn (SheetSite $site): ?int => $site->lastBackupAt, $this->sheet->sites);
        $without = count(array_filter($last, is_null(...)));
        $known = array_filter($last, is_int(...));
        $late = count(array_filter($this->sheet->sites, static fn (SheetSite $site): bool => $site->isLate));

        return [
            'name' => 'Last backup, read back',
            'value' => $known === [] ? 'none' : $this->when(min($known), 'j M H:i'),
            'note' => match (true) {
                $known === [] => 'there is no backup',
                $without > 0 => "$without of ".count($last).' sites have none',
                $late > 0 => Count::choose(count($last), '', "$late of ".count($last).' ').'later than promised',
                count($last) > 1 => 'the oldest of '.count($last).' sites',
                default => (string) ($this->sheet->sites[0]->promise ?? ''),
            },
            'isGood' => $without === 0 && $late === 0,
        ];
    }

    /** @return array{name: string, value: string, note: string, isGood: bool} */
    private function access(): array
    {
        $users = $this->sheet->users();
        $open = count(array_filter($users, static fn (SheetAccess $one): bool => $one->isOpen()));
        $closed = count($users) - $open;
        $unproven = count(array_filter(
            $users,
            static fn (SheetAccess $one): bool => ! $one->isOpen() && $one->refusalProvenAt === null,
        ));

        return [
            'name' => 'Access beside the account itself',
            'value' => "$open open",
            'note' => match (true) {
                $closed === 0 => 'none was closed in this time',
                $unproven === 0 => "$closed closed, each refused when tried",
                default => "$closed closed, $unproven of them not proven to be refused",
            },
            'isGood' => $unproven === 0,
        ];
    }
}
