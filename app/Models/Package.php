<?php

declare(strict_types=1);

namespace App\Models;

use Cellarium\Core\Json\JsonFields;
use Cellarium\Core\Manifest\Manifest;
use Cellarium\Core\Package\Finding\PackageFinding;
use Cellarium\Core\Package\Fit\PackageMarks;
use Cellarium\Core\Package\Fit\PackageTraits;
use Cellarium\Core\Reference\Links;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Database\Eloquent\Relations\HasMany;
use Illuminate\Database\Query\Builder as Rows;
use Illuminate\Support\Facades\DB;

/** One version of a package; its contents lie in the store. */
final class Package extends Model
{
    use OfClients;

    protected $guarded = ['id'];

    protected $casts = [
        'findings' => 'array',
        'stops' => 'boolean',
        'is_named' => 'boolean',
        'mends' => 'array',
        'type_evidence' => 'array',
        'type_choices' => 'array',
        'let_go_at' => 'immutable_datetime',
    ];

    /** @return HasMany<Deployment, $this> */
    public function deployments(): HasMany
    {
        return $this->hasMany(Deployment::class);
    }

    /** @return BelongsTo<self, $this> what it was made from here, by mending */
    public function source(): BelongsTo
    {
        return $this->belongsTo(self::class, 'mended_from');
    }

    /**
     * @param  array<string, mixed>  $facts  its columns
     */
    public static function add(array $facts, Manifest $contents, Links $links, PackageTraits $traits): self
    {
        return DB::transaction(static function () use ($facts, $contents, $links, $traits): self {
            // One that was let go comes back under its number: the deployments there were name it.
            $package = self::updateOrCreate(['sha256' => $facts['sha256']], [...$facts, 'let_go_at' => null]);
            DB::table('package_manifests')->insert([
                'package_id' => $package->id,
                'manifest' => $contents->toText(),
                'links' => $links->toJson(),
                'traits' => json_encode($traits->toArray(), JSON_THROW_ON_ERROR),
            ]);
            DB::table('package_marks')->insert(array_map(
                static fn (string $mark): array => ['package_id' => $package->id, 'mark' => $mark],
                PackageMarks::find($contents, $traits),
            ));

            return $package;
        });
    }

    public function contents(): Manifest
    {
        return Manifest::fromText($this->stored('manifest'));
    }

    /** The text that contents() reads, whatever it is. */
    public function listAsStored(): string
    {
        return (string) DB::table('package_manifests')->where('package_id', $this->id)->value('manifest');
    }

    /** @param  Builder<self>  $query */
    public function scopeKept(Builder $query): void
    {
        $query->whereNull('packages.let_go_at');
    }

    /** Whether its files are no longer here. */
    public function isLetGo(): bool
    {
        return $this->let_go_at !== null;
    }

    /** Which of its files refers to which. */
    public function links(): Links
    {
        return Links::fromJson($this->stored('links'));
    }

    /** What it says of whose it is. */
    public function traits(): PackageTraits
    {
        return PackageTraits::fromFields(JsonFields::fromJson($this->stored('traits')));
    }

    private function stored(string $column): string
    {
        return DB::table('package_manifests')->where('package_id', $this->id)->value($column)
            ?? throw new \LogicException("Package $this->id was written without its $column");
    }

    /** How many findings there are to look at, in words; "" where there is none. */
    public function findingsInWords(): string
    {
        $counts = array_count_values(array_column($this->findings, 'severity'));
        $stop = $counts['stop'] ?? 0;
        $warn = $counts['warn'] ?? 0;
        $note = $counts['note'] ?? 0;

        return implode(', ', array_filter([
            match ($stop) {
                0 => '',
                1 => '1 stops it',
                default => "$stop stop it",
            },
            $warn === 0 ? '' : "$warn to look at",
            match ($note) {
                0 => '',
                1 => '1 note',
                default => "$note notes",
            },
        ]));
    }

    /** Whether every reference was followed and leads where it says. */
    public function leadsRight(): bool
    {
        return array_filter(
            $this->findings,
            static fn (array $finding): bool => str_starts_with($finding['code'], 'reference'),
        ) === [];
    }

    /** @return list<PackageFinding> */
    public function notes(): array
    {
        return array_map(
            static fn (array $row): PackageFinding => PackageFinding::fromFields(new JsonFields($row)),
            array_values($this->findings),
        );
    }

    public function title(): string
    {
        return trim("$this->name $this->version");
    }

    /** @param  Builder<self>  $query */
    protected static function onlyOf(Builder $query, int $client): void
    {
        $query->whereIn(
            'packages.id',
            static fn (Rows $rows) => $rows
                ->select('package_id')
                ->from('deployments')
                ->whereIn('site_id', self::sitesOf($client)),
        );
    }
}
