<?php

declare(strict_types=1);

namespace Cellarium\Core\Deployment;

use Cellarium\Core\Manifest\Manifest;
use Cellarium\Core\Manifest\PageNames;
use Cellarium\Core\Plan\Change;
use Cellarium\Core\Plan\Plan;
use Cellarium\Core\Plan\PlanItem;
use Cellarium\Core\Reference\Documents;
use Cellarium\Core\Reference\Fault;
use Cellarium\Core\Reference\ReferenceKind;
use Cellarium\Core\Reference\Resolver;
use Cellarium\Core\Storage\ContentStore;

/** References within a site from the files that a plan changes. */
final class SiteReferences
{
    /** So many documents, and so many bytes of them, are read within a second or two; no site by hand has more. */
    private const MOST_DOCUMENTS = 3_000;

    private const MOST_BYTES = 30_000_000;

    /** @var \WeakMap<Plan, array{self|null}>|null */
    private static ?\WeakMap $read = null;

    /**
     * @param  array<string, list<string>>  $loads  what comes with a file by itself, by path
     * @param  list<string>  $overHttp  changed pages that load something over http from elsewhere
     * @param  array<string, true>  $shown  what changed pages load or offer and is no page itself, as keys
     * @param  list<AskedReference>  $asked  what changed files ask for within the site beside $shown, each address once
     */
    private function __construct(
        public readonly array $loads,
        public readonly array $shown,
        public readonly array $overHttp,
        public readonly array $asked,
    ) {
    }

    /**
     * Null where there is too much to read. A document that cannot be understood refers to nothing.
     *
     * @param  string|null  $public  the directory visitors come in at, where it is not the top
     */
    public static function fromPlan(Plan $plan, ContentStore $store, ?string $public): ?self
    {
        // A run asks for them when it gives names, and again for its proof.
        self::$read ??= new \WeakMap;
        if (! isset(self::$read[$plan])) {
            self::$read[$plan] = [self::read($plan, $store, $public)];
        }

        return self::$read[$plan][0];
    }

    private static function read(Plan $plan, ContentStore $store, ?string $public): ?self
    {
        $documents = array_filter(
            $plan->files(Change::Add, Change::Replace),
            static fn (PlanItem $item): bool => $item->target?->sha256 !== null
                && ($public === null || str_starts_with($item->path->toString(), "$public/"))
                && Documents::isOne($item->path->toString(), $item->target->size),
        );
        $bytes = array_sum(array_map(static fn (PlanItem $item): int => $item->bytes(), $documents));
        if (count($documents) > self::MOST_DOCUMENTS || $bytes > self::MOST_BYTES) {
            return null;
        }
        $resolver = new Resolver(self::afterwards($plan), [], $public ?? '');
        $loads = [];
        $shown = [];
        $overHttp = [];
        $asked = [];
        foreach ($documents as $item) {
            $path = $item->path->toString();
            try {
                $text = $store->text((string) $item->target?->sha256);
                $document = Documents::read($path, $text);
            } catch (\RuntimeException) {
                continue;
            }
            foreach ($document->references as $reference) {
                $found = $resolver->resolve($path, $document, $reference);
                $target = $found->target;
                $found->fault === Fault::PlainHttp && $overHttp[$path] = $path;
                $asks = AskedReference::fromReference(
                    $item->path,
                    $text,
                    $document,
                    $reference,
                    $found,
                    (string) $public,
                );
                $asks === null || $asked[$asks->key()] ??= $asks;
                if ($target === null || $target === $path) {
                    continue;
                }
                $reference->kind === ReferenceKind::Load && $loads[$path][$target] = $target;
                PageNames::isPage($item->path) && $shown[$target] = true;
            }
        }
        $isNoPage = static fn (string $path): bool => preg_match('/\.(?:x?html?|php|phtml)\z/i', $path) !== 1;

        return new self(
            array_map(array_values(...), $loads),
            array_filter($shown, static fn (int|string $path): bool => $isNoPage((string) $path), ARRAY_FILTER_USE_KEY),
            array_values($overHttp),
            array_values(array_filter(
                $asked,
                static fn (AskedReference $one): bool => $one->target === null || ! $isNoPage($one->target),
            )),
        );
    }

    private static function afterwards(Plan $plan): Manifest
    {
        return Manifest::fromEntries((static function () use ($plan): \Generator {
            foreach ($plan->items as $item) {
                $entry = match ($item->change) {
                    Change::SetAside, Change::LeftAway => null,
                    Change::Keep => $item->live,
                    default => $item->target ?? $item->live,
                };
                if ($entry !== null) {
                    yield $entry;
                }
            }
        })());
    }
}
