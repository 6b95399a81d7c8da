<?php

declare(strict_types=1);

namespace Cellarium\Core\File;

use Cellarium\Core\Manifest\ManifestEntry;
use Cellarium\Core\Package\Contents\SensitiveNames;
use Cellarium\Core\Web\WebAnswer;

/** The answer to visitors who ask for the address of a file or directory. */
enum VisitorsGet: string
{
    case TheFile = 'the_file';

    /** A page that a program at the host makes of it. */
    case WhatItMakes = 'what_it_makes';

    /** The program itself, which is shown instead of run. */
    case ItsSource = 'its_source';

    /** Everyone gets what nobody should. */
    case Exposed = 'exposed';

    /** A listing of what lies in it. */
    case Listing = 'listing';

    case APage = 'a_page';

    case Refused = 'refused';

    case NotFound = 'not_found';

    case Redirected = 'redirected';

    case Fault = 'fault';

    case Nothing = 'nothing';

    private const PROGRAM = '/\.(?:php\d?|phtml|cgi|pl|py)\z/i';

    private const ARCHIVE = '/\.(?:zip|tar|tgz|gz|bz2|xz|7z|rar)\z/i';

    public static function fromAnswer(ManifestEntry $entry, WebAnswer $answer): self
    {
        $name = $entry->path->name();

        return match (true) {
            $answer->status === 0 => self::Nothing,
            in_array($answer->status, [401, 403], true) => self::Refused,
            in_array($answer->status, [404, 410], true) => self::NotFound,
            $answer->status >= 300 && $answer->status < 400 => self::Redirected,
            $answer->status >= 400 => self::Fault,
            ! $entry->isFile() => preg_match('/<title>\s*Index of /i', $answer->head) === 1
                ? self::Listing
                : self::APage,
            preg_match(self::PROGRAM, $name) === 1 => str_contains($answer->head, '<?php')
                ? self::ItsSource
                : self::WhatItMakes,
            SensitiveNames::isOne($entry->path), preg_match(self::ARCHIVE, $name) === 1 => self::Exposed,
            default => self::TheFile,
        };
    }

    /** In a few words, beside its name. */
    public function words(int $status): string
    {
        return match ($this) {
            self::TheFile => 'get it',
            self::WhatItMakes => 'get what it makes',
            self::ItsSource => 'read its source',
            self::Exposed => 'anyone can get it',
            self::Listing => 'get a listing',
            self::APage => 'get a page',
            self::Refused => "get $status, refused",
            self::NotFound => "get $status, not found",
            self::Redirected => 'are sent elsewhere',
            self::Fault => "get $status, a fault",
            self::Nothing => 'get no answer',
        };
    }

    /** Whether somebody should see to it. */
    public function isBad(): bool
    {
        return in_array($this, [self::ItsSource, self::Refused, self::NotFound, self::Fault, self::Nothing], true);
    }

    /** Whether it may be meant that way, or not. */
    public function isDoubtful(): bool
    {
        return $this === self::Exposed || $this === self::Listing;
    }
}
