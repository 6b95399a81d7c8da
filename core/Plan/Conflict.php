<?php

declare(strict_types=1);

namespace Cellarium\Core\Plan;

/** The reason for asking about a path: mostly what was done on the server since the last deployment, by nobody here. */
enum Conflict: string
{
    case ChangedLive = 'changed_live';
    case RemovedLive = 'removed_live';
    case AddedLive = 'added_live';

    /** The server has the name in other capitals: two files to it, one to many people. */
    case OtherCase = 'other_case';

    /** A start page that is not in the package, and that visitors get instead of the one that is. */
    case StartPageWins = 'start_page_wins';

    /** A start page that is not in the package, and that visitors do not get: no question, and it can be set aside. */
    case StartPageBeside = 'start_page_beside';

    public function label(): string
    {
        return match ($this) {
            self::ChangedLive => 'changed live',
            self::RemovedLive => 'removed live',
            self::AddedLive => 'added live',
            self::OtherCase => 'other capitals',
            self::StartPageWins => 'start page',
            self::StartPageBeside => 'second start page',
        };
    }

    public function sentence(): string
    {
        return match ($this) {
            self::ChangedLive => 'changed on the server since the last deployment',
            self::RemovedLive => 'removed on the server since the last deployment',
            self::AddedLive => 'put on the server since the last deployment',
            self::OtherCase => 'on the server in other capitals',
            self::StartPageWins => 'what visitors get instead of the start page that is sent, as long as it is there',
            self::StartPageBeside => 'a start page beside the one that is sent, which visitors get',
        };
    }

    /**
     * @param  bool  $inTarget  whether the package has a file of this name
     * @return list<Choice> that are different from each other here
     */
    public function choices(bool $inTarget): array
    {
        return $this === self::RemovedLive || ! $inTarget
            ? [Choice::Theirs, Choice::Ours]
            : [Choice::Theirs, Choice::Ours, Choice::Both];
    }

    /** Whether nothing starts before somebody has answered. */
    public function mustBeAnswered(): bool
    {
        return $this !== self::StartPageBeside;
    }
}
