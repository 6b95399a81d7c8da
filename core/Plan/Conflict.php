<?php

declare(strict_types=1);

namespace Cellarium\Core\Plan;

/** What was done on the server since the last deployment, by nobody here, to a path that the plan would touch. */
enum Conflict: string
{
    case ChangedLive = 'changed_live';
    case RemovedLive = 'removed_live';
    case AddedLive = 'added_live';

    /** The server has the name in other capitals: two files to it, one to many people. */
    case OtherCase = 'other_case';

    public function label(): string
    {
        return match ($this) {
            self::ChangedLive => 'changed live',
            self::RemovedLive => 'removed live',
            self::AddedLive => 'added live',
            self::OtherCase => 'other capitals',
        };
    }

    public function sentence(): string
    {
        return match ($this) {
            self::ChangedLive => 'changed on the server since the last deployment',
            self::RemovedLive => 'removed on the server since the last deployment',
            self::AddedLive => 'put on the server since the last deployment',
            self::OtherCase => 'on the server in other capitals',
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
}
