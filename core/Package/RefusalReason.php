<?php

declare(strict_types=1);

namespace Cellarium\Core\Package;

/** Why a package was not taken in. */
enum RefusalReason: string
{
    case NotAnArchive = 'not_an_archive';
    case Broken = 'broken';
    case Empty = 'empty';
    case Leaves = 'leaves';
    case BadName = 'bad_name';
    case OurName = 'our_name';
    case Link = 'link';
    case Encrypted = 'encrypted';
    case TwiceTheSame = 'twice_the_same';
    case TooManyEntries = 'too_many_entries';
    case TooLarge = 'too_large';
    case Bomb = 'bomb';

    public function sentence(?string $detail): string
    {
        $detail ??= '';

        return match ($this) {
            self::NotAnArchive => 'This is not a zip, tar, tar.gz or tar.xz archive. Pack the site as one of '
                .'these and upload it again.',
            self::Broken => trim("The archive is damaged $detail").'. Pack or fetch it again.',
            self::Empty => 'The archive holds no files. Pack the folder that holds the built site.',
            self::Leaves => "The entry $detail leads out of the directory it would be unpacked in. Do not trust this "
                .'archive; ask where it came from.',
            self::BadName => "The entry $detail has a name that a server cannot hold. Rename it and pack again.",
            self::OurName => "The entry $detail has a name of the kind that Cellarium gives to files on their way to "
                .'a server, and takes away again. Rename it and pack again.',
            self::Link => "The entry $detail is a link, not a file. Pack the file it stands for.",
            self::Encrypted => "The entry $detail is encrypted. Pack without a password.",
            self::TwiceTheSame => "The name $detail stands in the archive twice. Pack again from a clean folder.",
            self::TooManyEntries => 'The archive holds more '
                ."than $detail entries, the limit set here. Split it, or have the limit raised.",
            self::TooLarge => 'Unpacked, the archive is larger '
                ."than $detail, the limit set here. Take out what does not belong, or have the limit raised.",
            self::Bomb => 'The archive unpacks to hundreds of times its size, as archives made to fill disks do. Do '
                .'not trust it; ask where it came from.',
        };
    }
}
