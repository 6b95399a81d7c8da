<?php

declare(strict_types=1);

namespace Cellarium\Core\Deployment;

use Cellarium\Core\Manifest\Manifest;
use Cellarium\Core\Plan\Change;
use Cellarium\Core\Plan\Plan;
use Cellarium\Core\Web\WebAnswer;

/** Asks, as visitors would, for what decides nothing about the bytes of a run and yet is to be told with its state. */
final readonly class LiveQuestions
{
    /** So many addresses of each kind are asked for. */
    private const MOST = 300;

    private const MOST_DIRECTORIES = 40;

    /** So many are asked for before what came is looked at: of a host that fell silent nothing more is asked. */
    private const TOGETHER = 24;

    private const LISTING = '~<title>\s*(?:Index of|Directory listing (?:for|of)|Directory) ~i';

    /** @param  \Closure(list<string>): array<string, WebAnswer>  $ask  answers by address */
    public function __construct(private LiveAddresses $addresses, private \Closure $ask)
    {
    }

    /** Whether a page is the list of files that a web server makes for a directory without a start page. */
    public static function isListing(string $head): bool
    {
        return preg_match(self::LISTING, $head) === 1;
    }

    /**
     * @param  list<AskedReference>  $asked  what changed pages ask for
     * @return array{list<UnansweredReference>, int} and how many were not asked
     */
    public function unanswered(array $asked): array
    {
        $urls = [];
        $found = [];
        foreach ($asked as $one) {
            if ($one->address === null) {
                $found[] = self::unansweredBy($one, null);

                continue;
            }
            $url = $this->addresses->below($one->address, $one->isFromTop);
            $url === null || $urls[$url] ??= $one;
        }
        $answers = $this->answers(array_slice(array_keys($urls), 0, self::MOST));
        foreach ($answers as $url => $answer) {
            if ($answer->status >= 200 && $answer->status < 400) {
                continue;
            }
            $found[] = self::unansweredBy($urls[$url], $answer->status);
        }

        return [$found, count($urls) - count($answers)];
    }

    private static function unansweredBy(AskedReference $asked, ?int $status): UnansweredReference
    {
        return new UnansweredReference($asked->page, $asked->line, $asked->asks, $status);
    }

    /** @return list<RefusalProof> of what was sent and is not meant for visitors */
    public function refusals(Plan $plan): array
    {
        $sent = [];
        foreach ($plan->files(Change::Add, Change::Replace, Change::Same) as $item) {
            $url = $item->target === null ? null : $this->addresses->ofSecluded($item->target);
            $url === null || count($sent) >= self::MOST || $sent[$url] = $item->target;
        }
        $found = [];
        foreach ($this->answers(array_keys($sent)) as $url => $answer) {
            $found[] = new RefusalProof(
                $sent[$url]->path->toString(),
                $url,
                $answer->status,
                $answer->status === 200 && $answer->sha256 === $sent[$url]->sha256,
                (string) $sent[$url]->sha256,
            );
        }

        return $found;
    }

    /** @return list<string> directories that got files and that visitors get as a list of them; "" is the top */
    public function listed(Plan $plan, Manifest $after): array
    {
        $urls = [];
        foreach ($plan->files(Change::Add, Change::Replace) as $item) {
            $directory = $item->path->parent();
            $url = $this->addresses->ofDirectory($directory);
            if ($url !== null && ! isset($urls[$url]) && count($urls) < self::MOST_DIRECTORIES) {
                $urls[$url] = $this->addresses->startPageIn($directory, $after) === null ? (string) $directory : null;
            }
        }
        $urls = array_filter($urls, is_string(...));
        $answers = array_filter(
            $this->answers(array_keys($urls)),
            static fn (WebAnswer $answer): bool => $answer->status === 200 && self::isListing($answer->head),
        );

        return array_values(array_intersect_key($urls, $answers));
    }

    /**
     * @param  list<array-key>  $urls
     * @return array<string, WebAnswer> by address; of a host that answers nothing any more only the first
     */
    private function answers(array $urls): array
    {
        $answers = [];
        foreach (array_chunk(array_map(strval(...), $urls), self::TOGETHER) as $some) {
            $come = ($this->ask)($some);
            $answers += $come;
            if (array_filter($come, static fn (WebAnswer $answer): bool => $answer->status !== 0) === []) {
                break;
            }
        }

        return $answers;
    }
}
