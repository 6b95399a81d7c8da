<?php

declare(strict_types=1);

namespace Cellarium\Core\Deployment;

use Cellarium\Core\Manifest\Manifest;
use Cellarium\Core\Manifest\ManifestEntry;
use Cellarium\Core\Manifest\PageNames;
use Cellarium\Core\Plan\Change;
use Cellarium\Core\Plan\Plan;
use Cellarium\Core\Plan\PlanItem;
use Cellarium\Core\Storage\ContentStore;
use Cellarium\Core\Web\FetchesMany;
use Cellarium\Core\Web\FetchesPlainly;
use Cellarium\Core\Web\Freshness;
use Cellarium\Core\Web\WebAnswer;
use Cellarium\Core\Web\WebFetcher;
use Psr\Clock\ClockInterface;

/** Fetches what a deployment changed through the domain and compares it with what was sent, the start page first. */
final readonly class LiveProof
{
    /** So many addresses are fetched before what came is looked at. */
    private const TOGETHER = 24;

    /**
     * @param  float  $share  of the addresses of files that are fetched, above 0 to 1; pages come before assets
     * @param  string|null  $hostAddress  IP address to ask, for a domain that is known not to lead there: what it leads
     *                                    to may show the same site, which proves nothing
     * @param  ContentStore|null  $store  holds what was sent; what changed pages refer to is fetched as well then
     * @param  int|null  $most  addresses of files that are fetched at the most; null for all of the share
     * @param  bool  $stopsAtFirst  whether nothing more is fetched once one address does not show what it should
     */
    public function __construct(
        private WebFetcher $fetcher,
        private LiveAddresses $addresses,
        private float $share = 1.0,
        private ?string $hostAddress = null,
        private bool $stopsAtFirst = false,
        private ?ContentStore $store = null,
        private ?int $most = null,
    ) {
    }

    /** How many addresses a deployment could be proven by. */
    public function count(Plan $plan, Manifest $after): int
    {
        return count($this->withOthers($this->expected($plan, $after)));
    }

    /**
     * @param  Manifest  $after  what the server holds now
     * @param  Manifest|null  $before  what it held before, hashes known, to tell what an address shows instead
     * @param  (\Closure(PageProof, string|null, int): void)|null  $asked  hears each proof, the path of the file
     *     that belongs to its address, and of how many
     * @return list<PageProof> the start page first; of the share that is set, and all that must answer besides
     */
    public function prove(Plan $plan, Manifest $after, ?Manifest $before = null, ?\Closure $asked = null): array
    {
        return $this->fetchAll(
            $this->withOthers($this->shareOf($this->expected($plan, $after))),
            [],
            new WhyDifferent($after, $before),
            $asked,
        );
    }

    /**
     * What visitors meet beside the bytes, see LiveLook.
     *
     * @param  list<PageProof>  $proofs  that hold
     * @return list<string> sentences
     */
    public function look(Plan $plan, array $proofs, ClockInterface $clock): array
    {
        return $this->fetcher instanceof FetchesPlainly
            ? (new LiveLook($this->fetcher, $clock))->look(
                $this->addresses->start(),
                $proofs,
                $this->references($plan)->overHttp ?? [],
            )
            : [];
    }

    /**
     * What visitors meet that undoes nothing and is said with the state of the run.
     *
     * @param  list<HeldCopy>|null  $held  null where it was not asked for before
     */
    public function find(Plan $plan, Manifest $after, ?array $held): LiveFindings
    {
        $questions = new LiveQuestions(
            $this->addresses,
            fn (array $urls): array => $this->answers($urls, $this->hostAddress),
        );
        [$unanswered, $notAsked] = $questions->unanswered($this->references($plan)->asked ?? []);

        return new LiveFindings(
            $unanswered,
            $notAsked,
            $questions->refusals($plan),
            $questions->listed($plan, $after),
            $held ?? [],
            $held !== null,
        );
    }

    /**
     * For how long browsers may show what is about to be replaced, asked of what is there now.
     *
     * @return list<HeldCopy> those that are held at all, the longest first
     */
    public function held(Plan $plan, Manifest $before, ClockInterface $clock): array
    {
        if (! $this->fetcher instanceof FetchesPlainly) {
            return [];
        }
        $found = [];
        $replaced = $this->replaced($plan, $before);
        foreach (array_slice(array_keys($replaced), 0, self::TOGETHER) as $url) {
            $answer = $this->fetcher->fetchPlainly((string) $url, $this->hostAddress);
            if ($answer->status === 0) {
                break; // A host that does not answer is not waited for address by address.
            }
            $seconds = $answer->status === 200 ? Freshness::seconds($answer, $clock->now()->getTimestamp()) : 0;
            $seconds === 0 || $found[] = new HeldCopy($replaced[$url], $seconds);
        }
        usort($found, static fn (HeldCopy $one, HeldCopy $other): int => $other->seconds <=> $one->seconds);

        return $found;
    }

    /** @return array<string, string> path by address, pages first */
    private function replaced(Plan $plan, Manifest $before): array
    {
        $found = [];
        $waves = $plan->waves($this->addresses->startPages);
        foreach ([...$waves['start'], ...$waves['pages'], ...$waves['assets']] as $item) {
            $url = $item->change !== Change::Replace || $item->target === null
                ? null
                : $this->addresses->ofFile($item->target);
            $url === null || $found[$url] = $item->path->toString();
        }
        $top = $this->addresses->start();
        $start = $this->addresses->startPage($before);

        return $top === null || $start === null || $found === [] ? $found : [$top => $start->path->toString()] + $found;
    }

    private function references(Plan $plan): ?SiteReferences
    {
        return $this->store === null
            ? null
            : SiteReferences::fromPlan($plan, $this->store, $this->addresses->public());
    }

    /**
     * The other way round: whether the addresses that a plan changed show what was there before it.
     *
     * @param  Manifest  $before  hashes known
     * @return list<PageProof> an address the plan added holds unless it still shows what was added
     */
    public function proveBack(Plan $plan, Manifest $before): array
    {
        $expected = [];
        $gone = [];
        $top = $this->addresses->start();
        $start = $this->addresses->startPage($before);
        if ($top !== null && $start !== null && $start->sha256 !== null) {
            $expected[$top] = $start;
        }
        foreach ($plan->files(Change::Replace, Change::SetAside, Change::Add) as $item) {
            $old = $before->get($item->path);
            $entry = $old ?? $item->target;
            $url = $entry === null || $entry->sha256 === null ? null : $this->addresses->ofFile($entry);
            // What a program says that is gone cannot be known.
            if ($url !== null && ($old !== null || ! self::runs($entry))) {
                $expected[$url] = $entry;
                $old === null && $gone[$url] = true;
            }
        }
        $new = $start === null && $gone !== [] ? $this->newStart($plan) : null;
        if ($top !== null && $new !== null) {
            $expected[$top] = $new;
            $gone[$top] = true;
        }

        return $this->fetchAll($this->shareOf($expected), $gone);
    }

    /** Whether the bytes behind an address are what the server holds, and not what it made of them. */
    public function isComparable(ManifestEntry $entry): bool
    {
        return ! self::runs($entry) && $this->addresses->ofFile($entry) !== null;
    }

    private static function runs(ManifestEntry $entry): bool
    {
        return PageNames::runs($entry->path);
    }

    private function newStart(Plan $plan): ?ManifestEntry
    {
        $added = Manifest::fromEntries(
            array_filter(
                array_map(static fn (PlanItem $item): ?ManifestEntry => $item->target, $plan->files(Change::Add)),
            ),
        );
        $start = $this->addresses->startPage($added);

        return $start === null || self::runs($start) ? null : $start;
    }

    /**
     * @param  array<string, ManifestEntry>  $expected
     * @return array<string, ManifestEntry>
     */
    private function shareOf(array $expected): array
    {
        return array_slice(
            $expected,
            0,
            min((int) ceil(count($expected) * min(1.0, $this->share)), $this->most ?? PHP_INT_MAX),
            true,
        );
    }

    /**
     * @param  array<string, ManifestEntry|null>  $expected  by address
     * @param  array<string, true>  $gone  addresses that must not show it
     * @param  WhyDifferent|null  $why  of a way forward; null for the way back, which is looked at to its end
     * @param  (\Closure(PageProof, string|null, int): void)|null  $asked
     * @return list<PageProof>
     */
    private function fetchAll(array $expected, array $gone, ?WhyDifferent $why = null, ?\Closure $asked = null): array
    {
        $proofs = [];
        foreach (array_chunk($expected, self::TOGETHER, true) as $some) {
            $answers = $this->answers(array_map(strval(...), array_keys($some)), $this->hostAddress);
            foreach ($some as $url => $entry) {
                $proofs[] = $proof = self::page($answers[$url], $entry, $this->hostAddress, isset($gone[$url]), $why);
                $asked === null || $asked($proof, $entry?->path->toString(), count($expected));
                if ($why !== null && $this->stopsAtFirst && ! $proof->holds()) {
                    return $proofs;
                }
            }
        }

        return $proofs;
    }

    /**
     * @param  list<string>  $urls
     * @return array<string, WebAnswer> by address
     */
    private function answers(array $urls, ?string $at): array
    {
        if ($this->fetcher instanceof FetchesMany) {
            return $this->fetcher->fetchMany($urls, $at);
        }
        $answers = [];
        foreach ($urls as $url) {
            $answers[$url] = $this->fetcher->fetch($url, $at);
        }

        return $answers;
    }

    private static function page(
        WebAnswer $answer,
        ?ManifestEntry $entry,
        ?string $at,
        bool $gone,
        ?WhyDifferent $why,
    ): PageProof {
        if ($gone) {
            return PageProof::ofGone(
                $answer->url,
                $answer->status,
                $answer->sha256 === $entry?->sha256,
                $answer->error,
                $at,
            );
        }

        $instead = $entry === null ? null : $why?->instead($answer, $entry);
        $matches = match (true) {
            $entry === null => null,
            $instead !== null => false,
            self::runs($entry) => null,
            default => $answer->sha256 === $entry->sha256,
        };
        $isShown = $answer->status === 200 && $matches !== false;
        $misfit = $entry === null || $why === null || ! $isShown || self::runs($entry)
            ? null
            : ContentKind::misfit($answer, $entry->path);

        return new PageProof(
            $answer->url,
            $answer->status,
            $matches,
            $answer->error,
            $at,
            why: $entry === null || $isShown
                ? $misfit
                : $instead ?? $why?->explain($answer, $entry),
            sha256: $answer->sha256,
            mend: $entry === null ? null : $why?->mend($answer, $entry),
            fits: $misfit === null,
        );
    }

    /** @return array<string, ManifestEntry> by address */
    private function expected(Plan $plan, Manifest $after): array
    {
        $expected = [];
        $top = $this->addresses->start();
        $start = $this->addresses->startPage($after);
        if ($top !== null && $start !== null && $start->sha256 !== null) {
            $expected[$top] = $start;
        }
        $waves = $plan->waves($this->addresses->startPages);
        foreach ([...$waves['start'], ...$waves['pages'], ...$waves['assets']] as $item) {
            $url = $item->target === null ? null : $this->addresses->ofFile($item->target);
            if ($url === null) {
                continue;
            }
            [$at, $shown] = $this->directory($item, $after);
            $shown === null || $expected[$at] ??= $shown;
            // Visitors come to it by its directory, and some servers lead its own address there.
            if ((string) $shown?->path !== (string) $item->path) {
                $expected[$url] = $item->target;
            }
        }

        return $expected + $this->referredTo($plan, $after);
    }

    /** @return array{string, ManifestEntry|null} what a directory below the top shows, of a start page */
    private function directory(PlanItem $item, Manifest $after): array
    {
        $in = $item->path->parent();
        $url = $this->addresses->isStartPage($item->path) ? $this->addresses->ofDirectory($in) : null;
        $isBelow = $url !== null && $url !== $this->addresses->start();
        $shown = $isBelow ? $this->addresses->startPageIn($in, $after) : null;

        return [(string) $url, $shown?->sha256 === null ? null : $shown];
    }

    /**
     * What changed pages load or offer, and did not change itself: a page is as it should be with all that it shows.
     *
     * @return array<string, ManifestEntry> by address
     */
    private function referredTo(Plan $plan, Manifest $after): array
    {
        $referred = [];
        foreach (array_keys($this->references($plan)->shown ?? []) as $path) {
            $entry = $after->get((string) $path);
            $url = $entry?->sha256 === null ? null : $this->addresses->ofFile($entry);
            $entry === null || $url === null || $referred[$url] = $entry;
        }

        return $referred;
    }

    /**
     * @param  array<string, ManifestEntry>  $expected
     * @return array<string, ManifestEntry|null> null where only an answer is expected, whatever it says
     */
    private function withOthers(array $expected): array
    {
        return $expected + array_fill_keys($this->addresses->also, null);
    }
}
