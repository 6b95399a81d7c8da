<?php

declare(strict_types=1);

namespace Cellarium\Core\File;

use Cellarium\Core\Manifest\EntryKind;

/** The nine rights of a file or directory and what they mean (POSIX.1-2017, 4.5 File Access Permissions). */
final readonly class Rights
{
    public const WHO = ['owner', 'group', 'everyone'];

    public const WHAT = ['read', 'write', 'run'];

    /** @param  int  $mode  twelve bits */
    public function __construct(public int $mode, private EntryKind $kind)
    {
    }

    /** @return int|null null for what is no mode: three or four octal digits */
    public static function parse(string $digits): ?int
    {
        return preg_match('/\A[0-7]{3,4}\z/', $digits) === 1 ? (int) octdec($digits) : null;
    }

    public static function digits(int $mode): string
    {
        return sprintf('%03o', $mode);
    }

    /** @return list<bool> the nine, from the owner's reading to everyone's running */
    public function nine(): array
    {
        return array_map(fn (int $bit): bool => ($this->mode >> $bit & 1) === 1, range(8, 0));
    }

    /** What is the matter with it, in a sentence; null where nothing is. */
    public function warning(): ?string
    {
        $what = $this->kind === EntryKind::Directory ? 'put files in here or take them away' : 'change this file';

        return match (true) {
            ($this->mode & 0002) !== 0 => "Everyone who has an account on this server may $what, whoever they are.",
            ($this->mode & 07000 & ~01000) !== 0 => 'It runs in the name of its owner or group, whoever starts it.',
            default => null,
        };
    }

    /**
     * The smallest change that lets a web server read it which runs as somebody else.
     *
     * @return int|null null where everyone may read it already
     */
    public function opened(): ?int
    {
        $needed = $this->kind === EntryKind::Directory ? 0005 : 0004;

        return ($this->mode & $needed) === $needed ? null : $this->mode | ($needed * 011) | 0400;
    }

    /**
     * What is offered instead where everyone may change it: as it was deployed, else what files and folders of a site
     * mostly have, 644 and 755, without what it lacks already.
     *
     * @param  int|null  $deployed  twelve bits, null where that is not known
     * @param  bool  $isRun  whether the file is a program that is started by itself
     * @return int|null null where nobody may change it that should not
     */
    public function narrowed(?int $deployed = null, bool $isRun = false): ?int
    {
        $usual = $this->kind === EntryKind::Directory || $isRun ? 0755 : 0644;

        return match (true) {
            ($this->mode & 0002) === 0 => null,
            $deployed !== null && ($deployed & 0002) === 0 => $deployed,
            default => $this->mode & $usual,
        };
    }
}
