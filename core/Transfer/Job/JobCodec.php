<?php

declare(strict_types=1);

namespace Cellarium\Core\Transfer\Job;

use Cellarium\Core\Json\JsonFields;

/** Jobs as they go to another process of the same version. */
final class JobCodec
{
    private const JOBS = [
        'list' => ListDirectory::class,
        'fetch' => FetchFile::class,
        'keep' => KeepFile::class,
        'hash' => HashFile::class,
        'look_again' => LookAgain::class,
        'send' => SendFile::class,
        'send_content' => SendContent::class,
        'rename' => RenameFile::class,
        'rename_together' => RenameTogether::class,
        'copy' => CopyFile::class,
        'discard' => DiscardFile::class,
        'make_directory' => MakeDirectory::class,
        'remove_directory' => RemoveDirectory::class,
        'set_mode' => SetMode::class,
    ];

    /** @return array<string, string|int|bool|list<string>|null> */
    public static function encode(Job $job): array
    {
        return [
            'job' => (string) array_search($job::class, self::JOBS, true),
            'path' => $job->path->toString(),
            'subject' => $job->subject,
            'size' => $job->size,
        ] + $job->toFields();
    }

    public static function decode(JsonFields $fields): Job
    {
        return self::JOBS[$fields->text('job')]::fromFields($fields);
    }
}
