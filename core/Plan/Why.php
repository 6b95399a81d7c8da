<?php

declare(strict_types=1);

namespace Cellarium\Core\Plan;

/** The reason behind a change, where the change alone does not tell it. */
enum Why: string
{
    case InPackage = 'in_package';
    case NotYetCompared = 'not_yet_compared';
    case NotOurs = 'not_ours';
    case SiteSays = 'site_says';
    case HostFile = 'host_file';
    case Placeholder = 'placeholder';
    case FromLastDeployment = 'from_last_deployment';
    case NotInTarget = 'not_in_target';
    case ChangedSince = 'changed_since';
    case OtherCase = 'other_case';
    case Answered = 'answered';
    case BothKept = 'both_kept';
    case TheirsBeside = 'theirs_beside';
    case StartPageWins = 'start_page_wins';
    case StartPageBeside = 'start_page_beside';

    public function sentence(): string
    {
        return match ($this) {
            self::InPackage => '',
            self::NotYetCompared => 'same size; compared once the backup is taken',
            self::NotOurs => 'not part of this package',
            self::SiteSays => 'as the site says',
            self::HostFile => 'the host put it there',
            self::Placeholder => 'the placeholder of the host',
            self::FromLastDeployment => 'from the last deployment, not in this one',
            self::NotInTarget => 'was not there then',
            self::OtherCase => 'the server has this name in other capitals',
            self::ChangedSince => 'changed since the last deployment, by nobody here',
            self::Answered => 'as answered for this plan',
            self::BothKept => 'as answered for this plan; what is there stays beside it',
            self::StartPageWins => 'visitors would get this one instead of the start page that is sent',
            self::StartPageBeside => 'a second start page; visitors get the one that is sent',
            self::TheirsBeside => 'what was on the server, under a name of its own',
        };
    }
}
