<?php

declare(strict_types=1);

namespace App\Files;

use App\Models\ChangeByHand;
use Cellarium\Core\File\FileChange;
use Cellarium\Core\Json\JsonFields;
use Cellarium\Core\Reference\TornReference;

/** Pages of a site whose references a change by hand would break. */
final class TornPages
{
    /** Pages that were looked into. */
    public int $pages = 0;

    /** Of these, read from the host, since what is kept here is older or none is kept. */
    public int $fetched = 0;

    /** @var list<array{string, string}> page and reason of those that could not be read */
    public array $unread = [];

    /** @var list<TornReference> */
    public array $torn = [];

    /** @var list<MendedPage> */
    public array $mends = [];

    /** How many pages would break. */
    public function broken(): int
    {
        return count(array_unique(array_map(static fn (TornReference $torn): string => $torn->page, $this->torn)));
    }

    /** Of the references, how many can be mended. */
    public function mendable(): int
    {
        return count(array_filter($this->torn, static fn (TornReference $torn): bool => $torn->written !== null));
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return [
            'pages' => $this->pages,
            'fetched' => $this->fetched,
            'unread' => $this->unread,
            'torn' => array_map(static fn (TornReference $torn): array => [
                $torn->page,
                $torn->line,
                $torn->raw,
                $torn->target,
                $torn->written,
            ], $this->torn),
            'mends' => array_map(static fn (MendedPage $mend): array => [
                'page' => $mend->page,
                'sha256' => $mend->sha256,
                'save' => $mend->save->toArray(),
            ], $this->mends),
        ];
    }

    /** Null where nobody has looked. */
    public static function ofChange(ChangeByHand $change): ?self
    {
        $kept = $change->refers;
        if ($kept === null) {
            return null;
        }
        $pages = new self;
        $pages->pages = $kept['pages'];
        $pages->fetched = $kept['fetched'];
        $pages->unread = $kept['unread'];
        $pages->torn = array_map(static fn (array $torn): TornReference => new TornReference(...$torn), $kept['torn']);
        $pages->mends = array_map(static fn (array $mend): MendedPage => new MendedPage(
            $mend['page'],
            $mend['sha256'],
            FileChange::fromFields(new JsonFields($mend['save'])),
        ), $kept['mends']);

        return $pages;
    }
}
