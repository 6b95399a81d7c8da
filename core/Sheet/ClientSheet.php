<?php

declare(strict_types=1);

namespace Cellarium\Core\Sheet;

use Cellarium\Core\Json\JsonFields;

/**
 * The sheet that an agency gives its client to hold: what changed, what it rests on, who had access, what it cost
 * visitors.
 */
final readonly class ClientSheet
{
    public const FORMAT = 'cellarium-sheet';

    public const VERSION = 1;

    /**
     * @param  string  $colour  of the agency, "#" and six hexadecimal digits
     * @param  string  $madeBy  a person's name
     * @param  int  $madeAt  Unix time
     * @param  int  $recordNumber  how many lines the record had when it was made
     * @param  string  $recordSeal  of the last of them, see Cellarium\Core\Record\RecordChain; "" for none
     * @param  list<SheetSite>  $sites
     * @param  list<SheetChange>  $changes  oldest first
     * @param  list<SheetAccess>  $access  in the order they were opened
     */
    public function __construct(
        public string $agency,
        public string $colour,
        public string $client,
        public SheetCover $cover,
        public string $madeBy,
        public int $madeAt,
        public int $recordNumber,
        public string $recordSeal,
        public array $sites,
        public array $changes,
        public array $access,
    ) {
        preg_match('/\A#[0-9a-f]{6}\z/', $colour) === 1
            || throw new \InvalidArgumentException("$colour is no colour.");
    }

    /** Milliseconds that visitors found no site, at the most; null where that was measured for no change at all. */
    public function outage(): ?int
    {
        $measured = array_filter(array_map(static fn (SheetChange $one) => $one->outage, $this->changes));

        return $measured === [] ? null : array_sum(array_map(static fn ($one): int => $one->milliseconds, $measured));
    }

    /** Deployments and ways back for which it was not measured for how long visitors found no site. */
    public function unmeasured(): int
    {
        return count(array_filter($this->changes, static fn (SheetChange $one): bool => $one->outage?->isWhole !== true
            && in_array($one->kind, [SheetKind::Deployed, SheetKind::BroughtBack], true)));
    }

    /** @return list<SheetChange> */
    public function changesOf(SheetKind $kind): array
    {
        return array_values(array_filter($this->changes, static fn (SheetChange $one): bool => $one->kind === $kind));
    }

    /** @return list<SheetAccess> beside the accounts themselves */
    public function users(): array
    {
        return array_values(array_filter($this->access, static fn (SheetAccess $one): bool => ! $one->isAccount));
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return [
            'format' => self::FORMAT,
            'version' => self::VERSION,
            'agency' => $this->agency,
            'colour' => $this->colour,
            'client' => $this->client,
            'covers' => $this->cover->toArray(),
            'made_by' => $this->madeBy,
            'made_at' => SheetTime::text($this->madeAt),
            'record' => ['lines' => $this->recordNumber, 'seal' => $this->recordSeal],
            'outage_milliseconds' => $this->outage(),
            'sites' => array_map(static fn (SheetSite $one): array => $one->toArray(), $this->sites),
            'changes' => array_map(static fn (SheetChange $one): array => $one->toArray(), $this->changes),
            'access' => array_map(static fn (SheetAccess $one): array => $one->toArray(), $this->access),
        ];
    }

    /** @throws \UnexpectedValueException for anything else than toArray() gives */
    public static function fromFields(JsonFields $fields): self
    {
        if ($fields->text('format') !== self::FORMAT || $fields->number('version') !== self::VERSION) {
            throw new \UnexpectedValueException('This is no sheet of a kind that is known here.');
        }

        return new self(
            $fields->text('agency'),
            $fields->text('colour'),
            $fields->text('client'),
            SheetCover::fromFields($fields->fields('covers')),
            $fields->text('made_by'),
            SheetTime::read($fields, 'made_at'),
            $fields->fields('record')->number('lines'),
            $fields->fields('record')->text('seal'),
            array_map(SheetSite::fromFields(...), $fields->each('sites')),
            array_map(SheetChange::fromFields(...), $fields->each('changes')),
            array_map(SheetAccess::fromFields(...), $fields->each('access')),
        );
    }
}
